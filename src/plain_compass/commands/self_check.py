"""``plain-compass self-check``: closed forms, symmetries and the demo's numbers, reckoned on this machine."""

from __future__ import annotations

import argparse
import platform

from ..job.self_check import checks
from ..job.stamp import output_text, stamp
from ..job.words import Speech


def add_to(parser: argparse.ArgumentParser) -> None:
    """How it is told."""
    parser.add_argument("--json", action="store_true", help="print one JSON object")


def run(arguments: argparse.Namespace) -> int:
    """Check everything; exit with 1 where anything is off."""
    found = list(checks())
    speech, bad = Speech(), [each for each in found if not each.is_good]
    if arguments.json:
        rows = [{"name": e.name, "found": e.found, "wanted": e.wanted, "good": e.is_good} for e in found]
        print(output_text({"checks": rows}))
        return int(bool(bad))
    for each in found:
        sign = "good" if each.is_good else "OFF "
        print(
            f"{sign}  {speech.say(each.name)}"
            + ("" if each.is_good else f": {each.found:.8g}, should be {each.wanted:.8g}")
        )
    by = stamp()
    where = f"version {by['version']}, constants {by['constants']}, Python {platform.python_version()}"
    print(f"{len(found) - len(bad)} of {len(found)} good ({where}).")
    return int(bool(bad))
