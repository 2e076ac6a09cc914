"""``plain-compass self-check``: closed forms, symmetries and the demo's numbers, reckoned on this machine."""

from __future__ import annotations

import argparse
import platform

from ..job.language import tr
from ..job.self_check import checks
from ..job.stamp import output_text, stamp
from ..job.words import Speech


def add_to(parser: argparse.ArgumentParser) -> None:
    """How it is told."""
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))


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
            + (
                ""
                if each.is_good
                else tr(": {found:.8g}, should be {wanted:.8g}", found=each.found, wanted=each.wanted)
            )
        )
    by = stamp()
    where = tr(
        "version {version}, constants {constants}, Python {python_version}",
        version=by["version"],
        constants=by["constants"],
        python_version=platform.python_version(),
    )
    print(tr("{good} of {checked} good ({where}).", good=len(found) - len(bad), checked=len(found), where=where))
    return int(bool(bad))
