"""The physics findings: each limit state of the model put into a sentence."""

from __future__ import annotations

import math

from ..base.phrase import phrase
from ..plan.case import Case, Parts
from ..tree.cracks import crack_at_cut
from .bar import bar_findings
from .findings import Finding, against, unknown, used
from .wedges import wedge_findings

SOUND_SHELL_LEAST = 0.30
SOUND_HINGE_LEAST = 0.5


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
    ahead = (abs(state.ahead_m), "length")
    if not wedging.wanted:
        text = "The centre of mass stands {ahead} ahead of the [hinge]: the tree goes by itself."
        if parts.loads.forward_Nm > 0 and state.moment_forward_Nm - parts.loads.forward_Nm <= 0:
            text = "The centre of mass stands {ahead} behind the [hinge]; with the rope's full pull the tree goes."
        sentence = phrase(text, ahead=ahead)
        change = phrase("A deeper [face] or a lay further from the lean takes this away.")
        # Nothing is used of anything: the less help a tree needs, the more margin, and none at all is the whole of it.
        compared = (state.ahead_m, 0.0, "length")
        return against("balance.over", "balance", 0.0, compared, sentence, change, mark="centre")
    shortest = max(wedging.seats, key=lambda seat: seat.lift_m / max(seat.available_m, 1e-9), default=None)
    lift, available = (shortest.lift_m, shortest.available_m) if shortest else (wedging.lift_m, 0.0)
    use = lift / available if available > 0 else math.inf
    where = "ahead of" if state.ahead_m >= 0 else "behind"
    what = f"The centre of mass stands {{ahead}} {where} the [hinge]: wedges must lift {{lift}} and have {{have}}."
    if parts.rigging is not None and parts.rigging.moment_forward_Nm > 0:
        what = f"The centre stands {{ahead}} {where} the [hinge]; with the rope wedges lift {{lift}} of {{have}}."
    if not wedging.seats:
        what = f"The centre of mass stands {{ahead}} {where} the [hinge]; no wedge is placed to lift it {{lift}}."
    return against(
        "balance.over",
        "balance",
        use,
        (lift, available, "fine_length"),
        phrase(what, ahead=ahead, lift=(lift, "fine_length"), have=(available, "fine_length")),
        phrase(
            "Two wedges on each other would lift it; or a lay nearer the lean, or a rope set high."
            if wedging.doubled_needed
            else "A lay nearer the lean, thicker wedges, or a rope set high."
        ),
        mark="centre",
    )


def side_use(parts: Parts) -> Finding:
    """Side weight against the hinge."""
    use = parts.use.side_utilisation
    side = "left" if parts.balance.left_m > 0 else "right"
    other = "right" if side == "left" else "left"
    sentence = phrase(
        f"Side weight of {{off}} to the {side} uses {{use}} of the [hinge] by the time it has done its work.",
        off=(abs(parts.balance.left_m), "length"),
        use=(use, "ratio"),
    )
    change = phrase(f"A lay turned to the {side}, or more wood at the {other} end, which is in tension.")
    return used("hinge.side", "hinge", use, sentence, change, indicative=True, mark="hinge")


def hold_until(parts: Parts) -> Finding:
    """Does the hinge hold long enough?"""
    use, needed = parts.use, parts.use.needed_tilt_deg
    share = needed / use.lets_go_deg if use.lets_go_deg > 0 else (math.inf if needed > 0 else 0.0)
    why = {"face shut": "the [face] shuts", "side load": "side weight tears it", "its own limit": "it breaks by itself"}
    sentence = phrase(
        f"The [hinge] lets go at {{at}} of tilt, when {why[use.lets_go_by]}; it is needed until {{need}}.",
        at=(use.lets_go_deg, "angle"),
        need=(needed, "angle"),
    )
    change = phrase("A wider [face], a thinner or stepped [hinge], or a lay nearer the lean.")
    return against(
        "hinge.holds",
        "hinge",
        share,
        (needed, use.lets_go_deg, "angle"),
        sentence,
        change,
        watch_from=0.9,
        indicative=True,
        mark="face",
    )


def overcut(case: Case, parts: Parts) -> list[Finding]:
    """An overcut shuts first; said whenever there is one."""
    e = case.cut.face.overcut_m
    if e <= 0:
        return []
    sentence = phrase(
        "One [face] cut runs {e} past the other: its slot shuts after {at} of tilt, long before the [face] does.",
        e=(e, "length"),
        at=(parts.face.closing_angle_deg, "angle"),
    )
    level = "stop" if parts.face.shuts_on_overcut else "watch"
    return [
        Finding(
            id="face.overcut",
            group="face",
            level=level,
            value=e,
            limit=0.0,
            kind="length",
            margin=-1.0 if level == "stop" else 0.1,
            sentence=sentence,
            change=phrase("Clean the apex until roof and floor meet along their whole length."),
            mark="face",
        )
    ]


def split(case: Case, parts: Parts) -> Finding:
    """Splitting up the stem with the chosen back cut."""
    result = parts.splitting
    how = "held behind and released" if case.cut.back.held else "cut from behind"
    sentence = phrase(
        f"Splitting index {{index}} when {how} (from behind {{plain}}, bored {{bored}}); 1 is the limit.",
        index=(result.split_index, "number"),
        plain=(result.split_index_plain, "number"),
        bored=(result.split_index_bored, "number"),
    )
    change = phrase("Bore it and release last, or choose a lay nearer upright; do not buy margin by depth alone.")
    if result.split_index_overcut == result.split_index > 0:
        change = phrase("Clean the apex: the slot of the [overcut] is what tears the stem here.")
    return against(
        "split.index",
        "split",
        result.split_index,
        (result.split_index, 1.0, "number"),
        sentence,
        change,
        watch_from=0.5,
        indicative=True,
        mark="kerf",
    )


def strap(parts: Parts) -> list[Finding]:
    """Does the strap hold until it is cut?"""
    use = parts.splitting.strap_utilisation
    if use is None:
        return []
    sentence = phrase("The [strap] carries {use} of what it may before it is cut.", use=(use, "ratio"))
    change = phrase("A thicker [strap]; too thin and it tears before it is cut.")
    return [used("split.strap", "split", use, sentence, change, mark="strap")]


def shell(parts: Parts) -> Finding:
    """Sound shell at the cut."""
    ratio = parts.section.shell_ratio
    if ratio is None:
        return unknown(
            "decay.shell",
            "decay",
            "The butt has not been sounded: rot is not known.",
            "Sound it all round; probe where it is dull.",
        )
    use = SOUND_SHELL_LEAST / max(ratio, 1e-6)
    sentence = phrase(
        "The thinnest sound shell is {ratio} of the radius; below {least} the section is suspect whatever else holds.",
        ratio=(ratio, "ratio"),
        least=(SOUND_SHELL_LEAST, "ratio"),
    )
    return against(
        "decay.shell",
        "decay",
        use,
        (ratio, SOUND_SHELL_LEAST, "ratio"),
        sentence,
        phrase("A higher cut, where the rot is smaller."),
        mark="rot",
    )


def sound_hinge(parts: Parts) -> Finding:
    """Sound wood in the hinge."""
    if parts.section.shell_ratio is None:
        return unknown(
            "decay.hinge", "decay", "Whether the [hinge] is sound is not known.", "Probe where the [hinge] will be."
        )
    share = parts.hinge.sound_fraction
    use = SOUND_HINGE_LEAST / max(share, 1e-6)
    sentence = phrase("{share} of the [hinge] is sound wood.", share=(share, "ratio"))
    return against(
        "decay.hinge",
        "decay",
        use,
        (share, SOUND_HINGE_LEAST, "ratio"),
        sentence,
        phrase("Another [face] depth or a higher cut."),
        mark="hinge",
    )


def unknowns(case: Case) -> list[Finding]:
    """What was not looked at. Never shown as clear."""
    found = []
    if case.tree.lean.method == "unknown":
        found.append(
            unknown(
                "balance.lean",
                "balance",
                "The lean has not been judged.",
                "Walk round and hang a plumb line from two sides.",
            )
        )
    if crack_at_cut(case.tree, case.cut.height_m) == "unknown":
        found.append(
            unknown(
                "split.crack",
                "split",
                "Cracks and seams have not been looked for.",
                "Look all round the butt; a crack halves what the wood resists.",
            )
        )
    return found
