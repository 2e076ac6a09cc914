"""``plain-compass``, ``demo`` and ``open``: the window."""

from __future__ import annotations

import argparse
from pathlib import Path

from ..job.language import tr


def run_window(_: argparse.Namespace) -> int:
    """On the last job."""
    from ..app.main import run

    return run()


def run_demo(_: argparse.Namespace) -> int:
    """On the demo job."""
    from ..app.main import run

    return run(demo=True)


def add_open_to(parser: argparse.ArgumentParser) -> None:
    """Which files, and in which window."""
    parser.add_argument("files", type=Path, nargs="*", help=tr("jobs, tree lists, sites, logs; or the word demo"))
    parser.add_argument("--new-window", action="store_true", help=tr("in a window of its own, even where one runs"))
    parser.set_defaults(run=run_open)


def run_open(arguments: argparse.Namespace) -> int:
    """On files; a single job that cannot be read is said so here, before any window opens."""
    from ..app.main import run
    from ..job.files import is_job_file, read_job

    files: list[Path] = arguments.files
    if [str(each) for each in files] == ["demo"] and not files[0].exists():
        return run(demo=True, new_window=arguments.new_window)
    if len(files) == 1 and is_job_file(files[0]):
        read_job(files[0])
    return run(files, new_window=arguments.new_window)
