"""``plain-compass watch``: one tree reckoned again whenever its file changes."""

from __future__ import annotations

import argparse
import time
from pathlib import Path

from ..core.base.errors import PlainCompassError
from ..job.disk import JobFileError
from ..job.fall import judged_with_fall
from ..job.language import tr
from ..job.report import table
from .on_tree import add_file_and_tree, loaded

EVERY_S = 0.5
"""From look to look at the file."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """Which tree, how often."""
    add_file_and_tree(parser)
    parser.add_argument("--times", type=int, default=0, help=tr("end after it was reckoned so often; 0 for never"))


def run(arguments: argparse.Namespace) -> int:
    """Reckon, wait for a change, reckon again, until interrupted."""
    if str(arguments.file) in ("-", "demo"):
        raise JobFileError(tr("watch wants a file that can change; {file} does not.", file=arguments.file))
    seen, told = None, 0
    try:
        while not arguments.times or told < arguments.times:
            now = _stamp(arguments.file)
            if now != seen:
                seen, told = now, told + 1
                _tell(arguments)
            else:
                time.sleep(EVERY_S)
    except KeyboardInterrupt:
        pass
    return 0


def _stamp(path: Path) -> tuple[int, int] | None:
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_mtime_ns, found.st_size


def _tell(arguments: argparse.Namespace) -> None:
    """What the numbers say now; a file that cannot be read is said to be so, and watched on."""
    print(f"--- {time.strftime('%H:%M:%S')} {arguments.file}", flush=True)
    try:
        job, plan = loaded(arguments)
        print(table(job, plan, judged_with_fall(job, plan.id)[0]), flush=True)
    except PlainCompassError as error:
        print(str(error), flush=True)
