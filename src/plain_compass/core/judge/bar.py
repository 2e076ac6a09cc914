"""The bar findings: does it get through, is there room to bore, and what does a bore set wrong do at the far end?"""

from __future__ import annotations

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..mechanics.bar import NICKS_DEG, BarPlan, bar_plan, off_line_m, usable_m
from ..mechanics.hinge import bored_m, rear_line
from ..plan.case import Case, Parts, Planned
from .findings import Finding, Limit, Told, as_fact, stated
from .limits import Uses, judged


def bar_findings(case: Case, parts: Parts, uses: Uses) -> list[Finding]:
    """Reach, room and direction."""
    found = _reach(case, parts, uses)
    if case.cut.back.strapped:
        found.append(_room(case, parts, uses))
    if case.cut.back.traits.bored:
        found.append(_nick(case, parts, uses))
    return found


def reach_m(case: Case) -> float:
    """Usable bar inside the wood."""
    return usable_m(case.kit.bar_m, case.tree.trunk.bark_m, shaved=case.cut.back.shaved == "yes")


def _reach(case: Case, parts: Parts, uses: Uses) -> list[Finding]:
    """Whether it gets through, and that it takes two sides where it does not reach across."""
    reach = reach_m(case)
    held = case.cut.back.held
    across = parts.face.hinge_length_m if held else parts.section.width_m
    use = uses["bar.reach"]
    text = "bar.reach.bar_reaches_across"
    if across > reach:
        text = "bar.reach.from_two_sides"
    if use > 1:
        text = "bar.reach.even_sides_bar"
    told = Told(phrase(text, across=across, bar=reach), phrase("bar.reach.change"))
    found = [judged(Limit("bar.reach", Group.BAR, "kerf"), uses, (across, 2 * reach, Kind.LENGTH), told)]
    if reach < across and use <= 1:
        sides = phrase("bar.sides.two", across=across, bar=reach)
        found.append(as_fact(stated(Limit("bar.sides", Group.BAR, "kerf"), Level.CLEAR, sides, "bar.reach.change")))
    return found


def _room(case: Case, parts: Parts, uses: Uses) -> Finding:
    room = parts.hinge_back_m - parts.section.back_m - case.cut.back.kept_m
    sentence = phrase("bar.bore_room.between_hinge_strap", room=room, bar=case.kit.bar_width_m)
    return judged(
        Limit("bar.bore_room", Group.BAR, "strap"),
        uses,
        (room, case.kit.bar_width_m, Kind.LENGTH),
        Told(sentence, phrase("bar.bore_room.change")),
    )


def _nick(case: Case, parts: Parts, uses: Uses) -> Finding:
    """A bore out of line comes nearer to the face at its far end; through the hinge it is a stop."""
    across = min(parts.face.hinge_length_m, reach_m(case))
    far = off_line_m(across)
    thin = min(case.cut.hinge.left_m, case.cut.hinge.right_m)
    sentence = phrase("bar.nick.bore_out_line", error=NICKS_DEG, far=far, thin=thin)
    return judged(
        Limit("bar.nick", Group.BAR, "hinge"),
        uses,
        (far, thin, Kind.LENGTH),
        Told(sentence, phrase("bar.nick.change")),
        indicative=True,
    )


def bar_plan_of(planned: Planned) -> BarPlan:
    """The passes for a cut as it is planned."""
    case, section, face = planned.case, planned.parts.section, planned.parts.face
    cut = case.cut
    middle = (face.end_left_m + face.end_right_m) / 2
    half = bored_m(cut.hinge) / 2
    at, slope = rear_line(section, face, cut)
    rear = section.back_m + (cut.back.kept_m if cut.back.traits.keeps_back else 0.0)
    return bar_plan(
        section,
        (rear, (at - cut.hinge.middle_m, slope)),
        reach_m=reach_m(case),
        first="right" if cut.back.side == "left" else "left",
        heart=(middle - half, middle + half) if half > 0 else None,
        thickness_m=(cut.hinge.left_m, cut.hinge.right_m),
    )
