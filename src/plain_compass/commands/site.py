"""``plain-compass site``: a job's site as GeoJSON, and obstacles from GeoJSON into a job."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

from ..job.files import read_job, read_text, write_atomically, write_job
from ..job.geojson import import_geojson, site_geojson, with_imported


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add the arguments."""
    parser.add_argument("what", choices=("import", "export"), help="from GeoJSON into a job, or from a job to GeoJSON")
    parser.add_argument("file", type=Path, help="the GeoJSON to import, or the job to export from")
    parser.add_argument("-o", "--output", type=Path, required=True, help="the job to change, or the GeoJSON to write")


def run(arguments: argparse.Namespace) -> int:
    """Import or export. What could not be taken is said on standard error, a line a feature."""
    if arguments.what == "export":
        write_atomically(arguments.output, site_geojson(read_job(arguments.file).job))
        print(f"Site written to {arguments.output}.")
        return 0
    found = import_geojson(read_text(arguments.file), arguments.file.name)
    opened = read_job(arguments.output)
    write_job(arguments.output, with_imported(opened.job, found), opened.raw)
    for sentence in found.skipped:
        print(sentence, file=sys.stderr)
    print(f"{len(found.obstacles)} obstacles written to {arguments.output}.")
    return 0
