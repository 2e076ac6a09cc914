"""Duties: what is to be done on the site before the saw starts, whatever the numbers say; ticked with who and when."""

from __future__ import annotations

from collections.abc import Sequence

from ..base.frames import full_turn_deg
from ..base.frozen import changed
from ..base.kept import kept
from ..base.levels import Group
from ..base.phrase import phrase
from ..plan.case import Case
from ..plan.reach import called
from ..site.site import Place, Site
from ..site.ways_out import FROM_LAY_DEG, Ways, kept_away_m, people_inside, ways_out
from .findings import Done, Finding, Limit, duty

SAME_LAY_DEG = 5
"""A lay turned by less still has the same ways out."""


def duty_findings(case: Case) -> tuple[Finding, ...]:
    """What every felling asks for, and what this one does."""
    site, at, lay_deg = case.site, case.at, case.cut.lay_deg
    return (_ways(site, at, lay_deg, case.cut.ways), _people(site, at, case.tree.height_m, lay_deg), *_rope(case))


@kept("findings of the ground", 64)
def _ways(site: Site, at: Place, lay_deg: float, ways: Ways) -> Finding:
    left, right = ways_out(site, at, lay_deg, ways)
    sentence = phrase("duty.ways.clear", left=left.bearing_deg, right=right.bearing_deg)
    about = f"lay {round(full_turn_deg(lay_deg) / SAME_LAY_DEG) * SAME_LAY_DEG}"
    if left.off_lay_deg != FROM_LAY_DEG or right.off_lay_deg != FROM_LAY_DEG:
        # Another way is not the one that was cleared.
        about += f", ways {left.off_lay_deg:.0f} {right.off_lay_deg:.0f}"
    return duty(Limit("duty.ways", Group.WAY_OUT, "lay"), about, sentence, "duty.ways.change")


@kept("findings of the ground", 64)
def _people(site: Site, at: Place, height_m: float, lay_deg: float) -> Finding:
    """The zone nobody else may be in, and what of it must be closed."""
    zone = kept_away_m(site, at, height_m, lay_deg)
    names = tuple(called(site.obstacles[index]) for index in people_inside(site, at, height_m))
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
        changed(each, done=ticked[each.id, each.about]) if (each.id, each.about) in ticked else each
        for each in findings
    )
