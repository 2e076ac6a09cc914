"""Did what was told happen: a row for everything the plan told and somebody looked at."""

from __future__ import annotations

from typing import NamedTuple

from ..core.base.phrase import phrase
from ..core.base.quantity import Kind
from ..core.stump.told import Told, came_true, in_fan
from .document import TreePlan
from .words import Speech

OFF_BY = 1.5
"""A count that is within this many times what was told came out as told."""


class ToldRow(NamedTuple):
    """What it is, what was told, what happened, and whether that agrees; None where that cannot be said."""

    name: str
    told: str
    happened: str
    agrees: bool | None


def told_rows(plan: TreePlan, told: Told, missed_deg: float | None, speech: Speech) -> tuple[ToldRow, ...]:
    """The rows, in the order in which they happen."""
    rows, as_cut = [], plan.as_cut
    for name, (chance, did) in came_true(told, as_cut).items():
        # A chance by itself is never wrong; what was told as unlikely and happened is marked all the same.
        agrees = None if did and chance > UNLIKELY else not did
        said = speech.tell("told.yes" if did else "told.no")
        rows.append(ToldRow(speech.phrase(f"told.{name}"), speech.show(chance, Kind.CHANCE), said, agrees))
    for name, told_value, read, kind in (
        ("blows", told.blows, as_cut.blows, Kind.COUNT),
        ("lift", told.lift_m, as_cut.lift_m, Kind.FINE_LENGTH),
    ):
        if told_value is not None and read is not None:
            agrees = told_value / OFF_BY <= read <= told_value * OFF_BY
            rows.append(
                ToldRow(
                    speech.phrase(f"told.{name}"), f"~ {speech.show(told_value, kind)}", speech.show(read, kind), agrees
                )
            )
    inside = None if missed_deg is None else in_fan(told, missed_deg)
    if inside is not None and missed_deg is not None:
        edges = phrase("told.fan_told", low=told.low_deg or 0.0, high=told.high_deg or 0.0)
        where = phrase("told.in_fan" if inside else "told.outside", miss=missed_deg)
        rows.append(ToldRow(speech.phrase("told.fan"), speech.tell(edges), speech.tell(where), inside))
    if told.hits is not None and missed_deg is not None:
        did = as_cut.has_hit
        agrees = None if did and told.hits > UNLIKELY else not did
        happened = as_cut.hit or speech.tell("told.no")
        rows.append(ToldRow(speech.phrase("told.hits"), speech.show(told.hits, Kind.CHANCE), happened, agrees))
    return tuple(rows)


UNLIKELY = 0.05
"""What was told to happen less often than this is not said to have been told."""
