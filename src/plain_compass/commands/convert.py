"""``plain-compass convert``: a job brought to today's version, its trees as CSV, its site as GeoJSON, by the names."""

from __future__ import annotations

import argparse
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

from ..job.disk import JobFileError, read_text, write_atomically
from ..job.document import VERSION, Job
from ..job.edits import new_job
from ..job.files import job_text
from ..job.geojson import site_geojson
from ..job.language import tr
from ..job.site_files import with_site_file
from ..job.tree_list import export_csv, import_csv
from .opening import opened_job

WRITERS: dict[str, Callable[[Job], str]] = {
    ".json": lambda job: job_text(job, indent=2),
    ".csv": export_csv,
    ".geojson": site_geojson,
}
"""How a name ends -> what is written under it."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """From what to what."""
    parser.add_argument(
        "source", type=Path, help=tr("a job of any version, a tree list (.csv), a site (.geojson), or -")
    )
    parser.add_argument(
        "target",
        type=Path,
        help=tr("what to write: {names} (a job, version {version})", names=", ".join(WRITERS), version=VERSION),
    )
    parser.add_argument("--over", action="store_true", help=tr("write over a file that is there"))


def run(arguments: argparse.Namespace) -> int:
    """Read, write; a file that is there is left unless it may be written over."""
    writer = WRITERS.get(arguments.target.suffix.lower())
    if writer is None:
        raise JobFileError(
            tr("{name}: accepted are names that end in {names}.", name=arguments.target.name, names=", ".join(WRITERS))
        )
    if arguments.target.exists() and not arguments.over:
        raise JobFileError(tr("{target} is there already; give another name, or --over.", target=arguments.target))
    job, told = _read(arguments.source)
    write_atomically(arguments.target, writer(job))
    for line in told:
        print(line)
    print(
        tr(
            "{count} trees of {source} written to {target}.",
            count=len(job.trees),
            source=arguments.source,
            target=arguments.target,
        )
    )
    return 0


def _read(source: Path) -> tuple[Job, tuple[str, ...]]:
    """(a job, sentences on what could not be taken)."""
    bare = new_job()
    if source.suffix.lower() == ".csv":
        return replace(bare, trees=import_csv(read_text(source), source.name, bare.practice)), ()
    if source.suffix.lower() == ".geojson":
        job, _, told = with_site_file(bare, read_text(source), source.name)
        return job, told
    return opened_job(source), ()
