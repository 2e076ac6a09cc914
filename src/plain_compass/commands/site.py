"""``plain-compass site``: a job's site as GeoJSON, and obstacles or spot heights from a file into a job."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

from ..job.disk import read_text, write_atomically
from ..job.files import read_job, write_job
from ..job.geojson import site_geojson
from ..job.language import tr
from ..job.site_files import with_site_file
from .opening import opened_job


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add the arguments."""
    parser.add_argument(
        "what", choices=("import", "export"), help=tr("from a file into a job, or from a job to GeoJSON")
    )
    parser.add_argument(
        "file", type=Path, help=tr("GeoJSON, or a CSV of spot heights, to import; or the job to export from")
    )
    parser.add_argument(
        "--positions",
        action="store_true",
        help=tr("export longitude and latitude about the job's origin, not local metres"),
    )
    parser.add_argument(
        "-o", "--output", type=Path, required=True, help=tr("the job to change, or the GeoJSON to write")
    )


def run(arguments: argparse.Namespace) -> int:
    """Import or export. What could not be taken is said on standard error, a line a feature."""
    if arguments.what == "export":
        write_atomically(arguments.output, site_geojson(opened_job(arguments.file), positions=arguments.positions))
        print(tr("Site written to {output}.", output=arguments.output))
        return 0
    opened = read_job(arguments.output)
    job, told, skipped = with_site_file(opened.job, read_text(arguments.file), arguments.file.name)
    write_job(arguments.output, job, opened.raw)
    for sentence in skipped:
        print(sentence, file=sys.stderr)
    print(tr("{told} written to {output}.", told=told, output=arguments.output))
    return 0
