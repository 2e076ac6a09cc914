"""``plain-compass learn``: what a faller's own stumps teach of his hand, his eye and the constants."""

from __future__ import annotations

import argparse
from typing import Any

from ..core.base.steps import finished
from ..core.stump.quantities import Known
from ..core.stump.reliability import in_fan_share, reliability
from ..job.language import tr
from ..job.learned_words import known_words, quantity_name
from ..job.report import plain
from ..job.stamp import output_text
from ..job.words import Speech
from ..log.backtest import backtest_in_steps
from ..log.records import known_in, records_of
from ..log.store import Filter
from .log import opened_log


def add_to(parser: argparse.ArgumentParser) -> None:
    """Whose stumps, from which log."""
    parser.add_argument("--faller", default="", help=tr("only this faller's; everybody's together where left out"))
    parser.add_argument("--saw", default="", help=tr("only with this saw"))
    parser.add_argument("--log", default="", help=tr("the log's file, or the word demo; your own where left out"))
    parser.add_argument("--back-test", action="store_true", help=tr("tell every stump anew by the ones before it"))
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))


def run(arguments: argparse.Namespace) -> int:
    """Print every quantity with what is shipped and what is known."""
    log, wanted = opened_log(arguments.log), Filter(faller=arguments.faller, saw=arguments.saw)
    records = records_of(log, wanted)
    known = known_in(log, wanted)
    inside, told = in_fan_share(records)
    tested = None
    if arguments.back_test:
        tested = finished(backtest_in_steps(list(log.entries(wanted)), records, arguments.faller))
    if arguments.json:
        found = {
            "faller": arguments.faller,
            "quantities": [_plain(each, arguments.faller) for each in known],
            "in_fan": {"inside": inside, "told": told},
            "reliability": [plain(each) for each in reliability(records)],
            "back_test": None if tested is None else plain(tested),
        }
        print(output_text(found))
        return 0
    speech = Speech()
    for each in known:
        print(f"{quantity_name(each.key, speech)}: {known_words(each, speech)}")
    print(tr("{inside} of {told} tops lay where nine in ten were told to.", inside=inside, told=told))
    if tested is not None:
        print(
            tr(
                "Told anew, {count}: {before} inside by what is shipped ({before_deg:.1f}° wide), "
                "{after} by the stumps before ({after_deg:.1f}°).",
                count=tested.count,
                before=tested.before,
                before_deg=tested.before_deg,
                after=tested.after,
                after_deg=tested.after_deg,
            )
        )
    return 0


def _plain(known: Known, faller: str) -> dict[str, Any]:
    used = known.used(faller)
    interval = (known.normal or known.factor).interval(0.9)  # type: ignore[union-attr]
    return {
        "quantity": known.key,
        "count": known.count,
        "mean": used.mean,
        "spread": used.spread,
        "interval_90": list(interval),
        "shipped_spread": known.shipped,
        "marked": int(known.marked.sum()),
    }
