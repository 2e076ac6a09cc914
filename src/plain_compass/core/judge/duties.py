"""Duties: what is to be done on the site before the saw starts, whatever the numbers say; ticked with who and when."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..base.frames import full_turn_deg
from ..base.levels import Group
from ..base.phrase import phrase
from ..plan.case import Case
from ..plan.reach import called
from ..site.ways_out import kept_away_m, people_inside, ways_out
from .findings import Done, Finding, Limit, duty

SAME_LAY_DEG = 5
"""A lay turned by less still has the same ways out."""


def duty_findings(case: Case) -> tuple[Finding, ...]:
    """What every felling asks for, and what this one does."""
    return (_ways(case), _people(case), *_rope(case))


def _ways(case: Case) -> Finding:
    left, right = ways_out(case.site, case.at, case.cut.lay_deg)
    sentence = phrase("duty.ways.clear", left=left.bearing_deg, right=right.bearing_deg)
    about = f"lay {round(full_turn_deg(case.cut.lay_deg) / SAME_LAY_DEG) * SAME_LAY_DEG}"
    return duty(Limit("duty.ways", Group.WAY_OUT, "lay"), about, sentence, "duty.ways.change")


def _people(case: Case) -> Finding:
    """The zone nobody else may be in, and what of it must be closed."""
    zone = kept_away_m(case.site, case.at, case.tree.height_m, case.cut.lay_deg)
    names = tuple(called(case.site.obstacles[index]) for index in people_inside(case.site, case.at, case.tree.height_m))
    text = "duty.people.close" if names else "duty.people.nobody"
    sentence = phrase(text, zone=zone, names=names) if names else phrase(text, zone=zone)
    about = ", ".join(sorted(names)) or "nobody"
    return duty(Limit("duty.people", Group.WAY_OUT, "lay"), about, sentence, "duty.people.change")


def _rope(case: Case) -> list[Finding]:
    """A rope is looked over, and its hauler stands where the plan has them."""
    if case.rope.use != "set":
        return []
    sentence = phrase("duty.rope.look_over", haul=case.rope.haul_N)
    return [duty(Limit("duty.rope", Group.BALANCE, "rope"), "rope", sentence, "duty.rope.change")]


def with_done(findings: tuple[Finding, ...], done: Sequence[Done]) -> tuple[Finding, ...]:
    """The findings with their duties ticked that were done, for what they are to be done for now."""
    ticked = {(each.id, each.about): each for each in done}
    return tuple(
        replace(each, done=ticked[each.id, each.about]) if (each.id, each.about) in ticked else each
        for each in findings
    )
