"""A file of the site, whichever kind it is, taken into a job."""

from __future__ import annotations

from dataclasses import replace

from .document import Job
from .geojson import import_geojson, with_imported
from .language import tr
from .projection import origin_of
from .spot_heights import import_spots


def with_site_file(job: Job, text: str, name: str) -> tuple[Job, str, tuple[str, ...]]:
    """(the job with the file's site, what was taken, a sentence for each thing that was not, or only by guess).

    A ``.csv`` holds spot heights, anything else is GeoJSON. Raises TableError or GeoJsonError when it is neither.
    """
    if name.lower().endswith(".csv"):
        spots, skipped = import_spots(text, name, origin_of(job.site))
        return replace(job, site=replace(job.site, spots=spots)), tr("{count} spot heights", count=len(spots)), skipped
    found = import_geojson(text, name, job)
    told = tr("{count} obstacles", count=len(found.obstacles))
    if found.spots:
        told += tr(" and {count} spot heights", count=len(found.spots))
    return with_imported(job, found), told, found.skipped + found.assumed
