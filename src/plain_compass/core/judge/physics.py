"""The physics findings: each limit state of the model put into a sentence."""

from __future__ import annotations

from ..base.levels import Group
from ..base.phrase import Phrase, phrase
from ..base.quantity import Kind
from ..mechanics.splitting import EARLY_MOST
from ..plan.case import Case, Parts
from ..plan.driven import thinning_of
from ..tree.cracks import crack_at_cut
from .bar import bar_findings
from .findings import Finding, Limit, Told, unknown
from .limits import (
    MOST_SHOWN,
    SOUND_HINGE_LEAST,
    SOUND_SHELL_LEAST,
    APART_MOST_m,
    STEP_SLACK_m,
    Uses,
    judged,
    step_wanted_m,
)
from .wedges import wedge_findings

LEAST_HINGE_m = 1e-4
"""A hinge that is cut through still has a thickness to divide by."""
BY_THICKNESS = 0.95
"""Share of the index that a bored cut would have too, from which it is the hinge's thickness that splits the stem."""


def physics_findings(case: Case, parts: Parts, uses: Uses) -> tuple[Finding, ...]:
    """Every finding that comes from the physics, in the order of the margin band.

    Args:
        uses: share of every limit that is asked of this case, by id.
    """
    found = [
        balance(case, parts, uses),
        *sitting_back(parts, uses),
        *shuts_first(parts, uses),
        side_use(parts, uses),
        *taper(case, uses),
        hold_until(parts, uses),
        *overcut(case, parts, uses),
        *apart(case, uses),
        split(case, parts, uses),
        *early(parts, uses),
        *strap(uses),
        *wedge_findings(case, parts, uses),
        *bar_findings(case, parts, uses),
        shell(parts, uses),
        sound_hinge(parts, uses),
        *unknowns(case),
    ]
    return tuple(found)


def balance(case: Case, parts: Parts, uses: Uses) -> Finding:
    """Does the tree go by itself, and if not, can the wedges tip it?"""
    state, wedging = parts.balance, parts.wedging
    ahead = abs(state.ahead_m)
    if not wedging.wanted:
        text = "balance.over.goes"
        if parts.loads.forward_Nm > 0 and state.moment_forward_Nm - parts.loads.forward_Nm <= 0:
            text = "balance.over.goes_by_rope"
        sentence = phrase(text, ahead=ahead)
        change = phrase("balance.over.goes_change")
        compared = (state.ahead_m, 0.0, Kind.LENGTH)
        return judged(Limit("balance.over", Group.BALANCE, "centre"), uses, compared, Told(sentence, change))
    plan = parts.wedge_plan
    return judged(
        Limit("balance.over", Group.BALANCE, "centre"),
        uses,
        (plan.lift_m if wedging.seats else wedging.lift_m, plan.have_m if wedging.seats else 0.0, Kind.FINE_LENGTH),
        Told(_brought_over(case, parts, uses), phrase("balance.over.change")),
        indicative=True,
        # What still holds is brought over by what comes next: a way that just does it is none to be watched.
        watch_from=1.0 if plan.goes_on else None,
    )


def _brought_over(case: Case, parts: Parts, uses: Uses) -> Phrase:
    """How the plan brings it over, on the way that is told."""
    wedging, plan, ahead_m = parts.wedging, parts.wedge_plan, parts.balance.ahead_m
    if wedging.goes_by_hand:
        return phrase("balance.over.by_hand", ahead=abs(ahead_m))
    if not wedging.seats:
        return phrase("balance.over.no_wedge", ahead=abs(ahead_m), lift=wedging.lift_m)
    lifts = {"lift": plan.lift_m, "have": plan.have_m}
    thin_m = thinning_of(case, parts).allowed_m
    if plan.name == "jack" and uses["balance.over"] <= 1.0:
        return phrase("balance.over.jack", **lifts)
    if uses["balance.over"] > 1.0 or (plan.thins and thin_m is None):
        return phrase("balance.over.past", **lifts)
    if thin_m is not None:
        return phrase("balance.over.thin", have=plan.have_m, to=thin_m)
    if plan.stacked and wedging.shortest is not None:
        return phrase("balance.over.stack", single=wedging.shortest.available_m, **lifts)
    if parts.rigging is not None and parts.rigging.moment_forward_Nm > 0:
        return phrase("balance.over.with_the_rope", **lifts)
    if ahead_m >= 0:
        return phrase("balance.over.held_lift", ahead=ahead_m, go=parts.balance.theta_go_deg, **lifts)
    return phrase("balance.over.must_lift", ahead=abs(ahead_m), **lifts)


def sitting_back(parts: Parts, uses: Uses) -> list[Finding]:
    """Does the tree sit back onto the saw before a wedge holds it?"""
    if "balance.sits_back" not in uses:
        return []
    use = uses["balance.sits_back"]
    # A share that is held down is that of a stem somebody can hold.
    text = "balance.sits_back.pushed" if use < parts.balance.sits_back_utilisation else "balance.sits_back.asks"
    told = Told(phrase(text, use=min(use, MOST_SHOWN)), phrase("balance.sits_back.change"))
    return [judged(Limit("balance.sits_back", Group.BALANCE, "centre"), uses, None, told, indicative=True)]


def shuts_first(parts: Parts, uses: Uses) -> list[Finding]:
    """Does the face shut while the hinge still holds the tree?"""
    if "balance.shuts_first" not in uses:
        return []
    at, go = parts.face.closing_angle_deg, parts.balance.theta_go_deg
    told = Told(phrase("balance.shuts_first.shuts", at=at, go=go), phrase("balance.shuts_first.change"))
    limit = Limit("balance.shuts_first", Group.BALANCE, "face")
    return [judged(limit, uses, (at, go, Kind.ANGLE), told, indicative=True)]


def side_use(parts: Parts, uses: Uses) -> Finding:
    """Side weight against the hinge."""
    use = uses["hinge.side"]
    side = "left" if parts.balance.left_m > 0 else "right"
    other = "right" if side == "left" else "left"
    sentence = phrase("hinge.side.uses", side=phrase(f"side.{side}"), off=abs(parts.balance.left_m), use=use)
    change = phrase("hinge.side.change", side=phrase(f"side.{side}"), other=phrase(f"side.{other}"))
    return judged(Limit("hinge.side", Group.HINGE, "hinge"), uses, None, Told(sentence, change), indicative=True)


def taper(case: Case, uses: Uses) -> list[Finding]:
    """Is the thicker end where the side weight crushes it?"""
    if "hinge.taper" not in uses:
        return []
    left, right = phrase("side.left"), phrase("side.right")
    thick, other = (left, right) if case.cut.hinge.left_m > case.cut.hinge.right_m else (right, left)
    told = Told(phrase("hinge.taper.wrong", side=thick), phrase("hinge.taper.change", other=other))
    limit = Limit("hinge.taper", Group.HINGE, "hinge")
    return [judged(limit, uses, (case.cut.hinge.left_m, case.cut.hinge.right_m, Kind.LENGTH), told, indicative=True)]


def hold_until(parts: Parts, uses: Uses) -> Finding:
    """Does the hinge hold long enough?"""
    use, needed = parts.use, parts.use.needed_tilt_deg
    sentence = phrase(
        "hinge.holds.lets_go",
        why=phrase(f"hinge.holds.{use.lets_go_by.replace(' ', '_')}"),
        at=use.lets_go_deg,
        need=needed,
    )
    change = phrase("hinge.holds.change")
    return judged(
        Limit("hinge.holds", Group.HINGE, "face"),
        uses,
        (needed, parts.face.closing_angle_deg, Kind.ANGLE),
        Told(sentence, change),
        indicative=True,
    )


def overcut(case: Case, parts: Parts, uses: Uses) -> list[Finding]:
    """An overcut shuts first; said whenever there is one."""
    e = case.cut.face.overcut_m
    if e <= 0:
        return []
    sentence = phrase("face.overcut.face_cut_runs", e=e, at=parts.face.closing_angle_deg)
    told = Told(sentence, phrase("face.overcut.change"))
    return [judged(Limit("face.overcut", Group.FACE, "face"), uses, (e, 0.0, Kind.LENGTH), told)]


def apart(case: Case, uses: Uses) -> list[Finding]:
    """Roof and floor that end at different heights, and the step that is the same over both ends again."""
    if "face.apart" not in uses:
        return []
    by, step = case.cut.face.apart_m, case.cut.back.step_m
    wanted = step_wanted_m(case.practice.step_m[0], by)
    enough = step >= wanted - STEP_SLACK_m
    sentence = phrase("face.apart.stepped" if enough else "face.apart.ends", apart=by, left=step - by)
    told = Told(sentence, phrase("face.apart.recut" if enough else "face.apart.change", step=wanted))
    return [judged(Limit("face.apart", Group.FACE, "face"), uses, (by, APART_MOST_m, Kind.LENGTH), told)]


def split(case: Case, parts: Parts, uses: Uses) -> Finding:
    """Splitting up the stem with the chosen back cut."""
    result = parts.splitting
    sentence = phrase(
        "split.index.held" if case.cut.back.held else "split.index.from_behind",
        index=result.split_index,
        plain=result.split_index_plain,
        bored=result.split_index_bored,
    )
    thick = case.cut.back.held or result.split_index_bored >= BY_THICKNESS * result.split_index
    change = phrase("split.index.thick_change" if thick else "split.index.change")
    if result.split_index_overcut == result.split_index > 0:
        change = phrase("split.index.overcut_change")
    return judged(
        Limit("split.index", Group.SPLIT, "kerf"),
        uses,
        (result.split_index, 1.0, Kind.NUMBER),
        Told(sentence, change),
        indicative=True,
    )


def early(parts: Parts, uses: Uses) -> list[Finding]:
    """Does a tree cut from behind go before the cut is down to its hinge?"""
    if "split.early" not in uses:
        return []
    left = parts.splitting.moves_at_m
    ratio = (left or 0.0) / max(parts.hinge.thickness_m, LEAST_HINGE_m)
    sentence = phrase("split.early.goes", left=left, share=ratio) if left else phrase("split.early.stands")
    told, compared = Told(sentence, phrase("split.early.change")), (ratio, EARLY_MOST, Kind.NUMBER)
    return [judged(Limit("split.early", Group.SPLIT, "kerf"), uses, compared, told, indicative=True)]


def strap(uses: Uses) -> list[Finding]:
    """Does the strap hold until it is cut?"""
    if "split.strap" not in uses:
        return []
    told = Told(phrase("split.strap.strap_carries_cut", use=uses["split.strap"]), phrase("split.strap.change"))
    return [judged(Limit("split.strap", Group.SPLIT, "strap"), uses, None, told)]


def shell(parts: Parts, uses: Uses) -> Finding:
    """Sound shell at the cut."""
    ratio = parts.section.shell_ratio
    if ratio is None:
        return unknown("decay.shell", Group.DECAY, "decay.shell.butt_been_sounded", "decay.shell.sound_it")
    sentence = phrase("decay.shell.thinnest_sound_shell", ratio=ratio, least=SOUND_SHELL_LEAST)
    return judged(
        Limit("decay.shell", Group.DECAY, "rot"),
        uses,
        (ratio, SOUND_SHELL_LEAST, Kind.RATIO),
        Told(sentence, phrase("decay.shell.change")),
    )


def sound_hinge(parts: Parts, uses: Uses) -> Finding:
    """Sound wood in the hinge."""
    if parts.section.shell_ratio is None:
        return unknown("decay.hinge", Group.DECAY, "decay.hinge.whether_hinge_sound", "decay.hinge.probe")
    share = parts.hinge.sound_fraction
    sentence = phrase("decay.hinge.hinge_sound_wood", share=share)
    return judged(
        Limit("decay.hinge", Group.DECAY, "hinge"),
        uses,
        (share, SOUND_HINGE_LEAST, Kind.RATIO),
        Told(sentence, phrase("decay.hinge.change")),
    )


def unknowns(case: Case) -> list[Finding]:
    """What was not looked at. Never shown as clear."""
    found = []
    if case.tree.lean.method == "unknown":
        found.append(unknown("balance.lean", Group.BALANCE, "balance.lean.lean_been_judged", "balance.lean.change"))
    if crack_at_cut(case.tree, case.cut.height_m) == "unknown":
        found.append(unknown("split.crack", Group.SPLIT, "split.crack.cracks_seams_been", "split.crack.change"))
    return found
