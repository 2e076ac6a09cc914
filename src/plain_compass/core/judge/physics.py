"""The physics findings: each limit state of the model put into a sentence."""

from __future__ import annotations

import math

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..plan.case import Case, Parts
from ..tree.cracks import crack_at_cut
from .bar import bar_findings
from .findings import Finding, Limit, Told, against, unknown, used
from .wedges import wedge_findings

SOUND_SHELL_LEAST = 0.30
"""Shell over radius below which a hollow stem is no longer worked as a sound one (practice of the trade)."""
SOUND_HINGE_LEAST = 0.5
"""Less sound wood than half a hinge steers nothing."""


def physics_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """Every finding that comes from the physics, in the order of the margin band."""
    found = [
        balance(parts),
        side_use(parts),
        hold_until(parts),
        *overcut(case, parts),
        split(case, parts),
        *strap(parts),
        *wedge_findings(case, parts),
        *bar_findings(case, parts),
        shell(parts),
        sound_hinge(parts),
        *unknowns(case),
    ]
    return tuple(found)


def balance(parts: Parts) -> Finding:
    """Does the tree go by itself, and if not, can the wedges tip it?"""
    state, wedging = parts.balance, parts.wedging
    ahead = abs(state.ahead_m)
    if not wedging.wanted:
        text = "balance.over.goes"
        if parts.loads.forward_Nm > 0 and state.moment_forward_Nm - parts.loads.forward_Nm <= 0:
            text = "balance.over.goes_by_rope"
        sentence = phrase(text, ahead=ahead)
        change = phrase("balance.over.goes_change")
        # Nothing is used of anything: the less help a tree needs, the more margin, and none at all is the whole of it.
        compared = (state.ahead_m, 0.0, Kind.LENGTH)
        return against(Limit("balance.over", Group.BALANCE, "centre"), 0.0, compared, Told(sentence, change))
    shortest = max(wedging.seats, key=lambda seat: seat.lift_m / max(seat.available_m, 1e-9), default=None)
    lift, available = (shortest.lift_m, shortest.available_m) if shortest else (wedging.lift_m, 0.0)
    use = lift / available if available > 0 else math.inf
    where = phrase("place.ahead_of" if state.ahead_m >= 0 else "place.behind")
    what = "balance.over.must_lift"
    if parts.rigging is not None and parts.rigging.moment_forward_Nm > 0:
        what = "balance.over.with_the_rope"
    if not wedging.seats:
        what = "balance.over.no_wedge"
    return against(
        Limit("balance.over", Group.BALANCE, "centre"),
        use,
        (lift, available, Kind.FINE_LENGTH),
        Told(
            phrase(what, ahead=ahead, where=where, lift=lift, have=available),
            phrase("balance.over.double_change" if wedging.doubled_needed else "balance.over.change"),
        ),
    )


def side_use(parts: Parts) -> Finding:
    """Side weight against the hinge."""
    use = parts.use.side_utilisation
    side = "left" if parts.balance.left_m > 0 else "right"
    other = "right" if side == "left" else "left"
    sentence = phrase("hinge.side.uses", side=phrase(f"side.{side}"), off=abs(parts.balance.left_m), use=use)
    change = phrase("hinge.side.change", side=phrase(f"side.{side}"), other=phrase(f"side.{other}"))
    return used(Limit("hinge.side", Group.HINGE, "hinge"), use, Told(sentence, change), indicative=True)


def hold_until(parts: Parts) -> Finding:
    """Does the hinge hold long enough?"""
    use, needed = parts.use, parts.use.needed_tilt_deg
    share = needed / use.lets_go_deg if use.lets_go_deg > 0 else (math.inf if needed > 0 else 0.0)
    sentence = phrase(
        "hinge.holds.lets_go",
        why=phrase(f"hinge.holds.{use.lets_go_by.replace(' ', '_')}"),
        at=use.lets_go_deg,
        need=needed,
    )
    change = phrase("hinge.holds.change")
    return against(
        Limit("hinge.holds", Group.HINGE, "face"),
        share,
        (needed, use.lets_go_deg, Kind.ANGLE),
        Told(sentence, change),
        watch_from=0.9,
        indicative=True,
    )


def overcut(case: Case, parts: Parts) -> list[Finding]:
    """An overcut shuts first; said whenever there is one."""
    e = case.cut.face.overcut_m
    if e <= 0:
        return []
    sentence = phrase("face.overcut.face_cut_runs", e=e, at=parts.face.closing_angle_deg)
    level = Level.STOP if parts.face.shuts_on_overcut else Level.WATCH
    return [
        Finding(
            id="face.overcut",
            group=Group.FACE,
            level=level,
            value=e,
            limit=0.0,
            kind=Kind.LENGTH,
            margin=-1.0 if level == Level.STOP else 0.1,
            sentence=sentence,
            change=phrase("face.overcut.change"),
            mark="face",
        )
    ]


def split(case: Case, parts: Parts) -> Finding:
    """Splitting up the stem with the chosen back cut."""
    result = parts.splitting
    sentence = phrase(
        "split.index.held" if case.cut.back.held else "split.index.from_behind",
        index=result.split_index,
        plain=result.split_index_plain,
        bored=result.split_index_bored,
    )
    change = phrase("split.index.change")
    if result.split_index_overcut == result.split_index > 0:
        change = phrase("split.index.overcut_change")
    return against(
        Limit("split.index", Group.SPLIT, "kerf"),
        result.split_index,
        (result.split_index, 1.0, Kind.NUMBER),
        Told(sentence, change),
        watch_from=0.5,
        indicative=True,
    )


def strap(parts: Parts) -> list[Finding]:
    """Does the strap hold until it is cut?"""
    use = parts.splitting.strap_utilisation
    if use is None:
        return []
    sentence = phrase("split.strap.strap_carries_cut", use=use)
    change = phrase("split.strap.change")
    return [used(Limit("split.strap", Group.SPLIT, "strap"), use, Told(sentence, change))]


def shell(parts: Parts) -> Finding:
    """Sound shell at the cut."""
    ratio = parts.section.shell_ratio
    if ratio is None:
        return unknown("decay.shell", Group.DECAY, "decay.shell.butt_been_sounded", "decay.shell.sound_it")
    use = SOUND_SHELL_LEAST / max(ratio, 1e-6)
    sentence = phrase("decay.shell.thinnest_sound_shell", ratio=ratio, least=SOUND_SHELL_LEAST)
    return against(
        Limit("decay.shell", Group.DECAY, "rot"),
        use,
        (ratio, SOUND_SHELL_LEAST, Kind.RATIO),
        Told(sentence, phrase("decay.shell.change")),
    )


def sound_hinge(parts: Parts) -> Finding:
    """Sound wood in the hinge."""
    if parts.section.shell_ratio is None:
        return unknown("decay.hinge", Group.DECAY, "decay.hinge.whether_hinge_sound", "decay.hinge.probe")
    share = parts.hinge.sound_fraction
    use = SOUND_HINGE_LEAST / max(share, 1e-6)
    sentence = phrase("decay.hinge.hinge_sound_wood", share=share)
    return against(
        Limit("decay.hinge", Group.DECAY, "hinge"),
        use,
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
