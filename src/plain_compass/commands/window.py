"""``plain-compass``, ``demo`` and ``open``: the window."""

from __future__ import annotations

import argparse
from pathlib import Path


def run_window(_: argparse.Namespace) -> int:
    """On the last job."""
    from ..app.main import run

    return run()


def run_demo(_: argparse.Namespace) -> int:
    """On the demo job."""
    from ..app.main import run

    return run(demo=True)


def add_open_to(parser: argparse.ArgumentParser) -> None:
    """Which file."""
    parser.add_argument("file", type=Path)
    parser.set_defaults(run=run_open)


def run_open(arguments: argparse.Namespace) -> int:
    """On a job file."""
    from ..app.main import run
    from ..job.files import read_job

    if str(arguments.file) == "demo" and not arguments.file.exists():
        return run(demo=True)
    read_job(arguments.file)
    return run(arguments.file)
