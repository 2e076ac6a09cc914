"""The rope findings: does it pull enough, does every part hold it, is it long enough, where does the hauler stand?"""

from __future__ import annotations

import math

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..plan.case import Case, Parts
from ..site.rigging import Rigging
from .findings import Finding, Limit, Told, stated
from .limits import Uses, judged

STRAIGHT_IN_DEG = 45.0
"""A hauler within this of the lay, and in reach of the top, stands where the tree comes down."""


def rope_findings(case: Case, parts: Parts, uses: Uses) -> tuple[Finding, ...]:
    """Nothing where no rope is set."""
    rope, rigging = case.rope, parts.rigging
    if rope.use != "set":
        return ()
    if rigging is None:
        text = "rope.pull.straight_down"
        return (
            stated(Limit("rope.pull", Group.BALANCE, "rope"), Level.STOP, phrase(text), "rope.pull.straight_change"),
        )
    return (
        _pull(case, rigging, uses),
        _weakest(rigging, uses),
        _long_enough(case, rigging, uses),
        _hauler(case, rigging),
    )


def _pull(case: Case, rigging: Rigging, uses: Uses) -> Finding:
    gives, use = rigging.moment_forward_Nm, uses["rope.pull"]
    needs = rigging.pull_N * use if use < math.inf else 0.0
    text = "rope.pull.pulls"
    if gives <= 0:
        text = "rope.pull.pulls_away"
    return judged(
        Limit("rope.pull", Group.BALANCE, "rope"),
        uses,
        (needs, rigging.pull_N, Kind.FORCE),
        Told(
            phrase(
                text,
                pull=rigging.pull_N,
                haul=case.rope.haul_N,
                real=rigging.advantage,
                needs=needs,
                low=rigging.low_pull_N * min(use, 99.0),
            ),
            phrase("rope.pull.change"),
        ),
    )


def _weakest(rigging: Rigging, uses: Uses) -> Finding:
    sentence = phrase("rope.weakest.nearest", part=phrase(f"rope.weakest.{rigging.weakest}"), use=rigging.weakest_use)
    change = phrase("rope.weakest.change")
    return judged(Limit("rope.weakest", Group.BALANCE, "rope"), uses, None, Told(sentence, change))


def _long_enough(case: Case, rigging: Rigging, uses: Uses) -> Finding:
    have = case.rope.length_m
    return judged(
        Limit("rope.length", Group.BALANCE, "rope"),
        uses,
        (rigging.length_needed_m, have, Kind.SPAN),
        Told(
            phrase("rope.length.all_legs_ends", needs=rigging.length_needed_m, have=have), phrase("rope.length.change")
        ),
    )


def _hauler(case: Case, rigging: Rigging) -> Finding:
    reach = case.tree.height_m - case.cut.height_m
    away = rigging.hauler_m
    change = "rope.hauler.change"
    inside = rigging.hauler_m <= 1.2 * reach
    if inside and rigging.hauler_off_lay_deg <= STRAIGHT_IN_DEG:
        text = "rope.hauler.under_it"
        return stated(Limit("rope.hauler", Group.WAY_OUT, "rope"), Level.STOP, phrase(text, away=away), change)
    if rigging.hauler_m <= case.site.kept_away_lengths * case.tree.height_m:
        text = "rope.hauler.inside"
        return stated(Limit("rope.hauler", Group.WAY_OUT, "rope"), Level.WATCH, phrase(text, away=away), change)
    text = "rope.hauler.outside"
    return stated(Limit("rope.hauler", Group.WAY_OUT, "rope"), Level.CLEAR, phrase(text, away=away), change)
