"""Findings from the fall: where it goes and how sure that is, what it may hit, hang on, lose on the way."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.phrase import escaped, phrase
from ..fall.fan import Chance, Fan
from ..fall.nominal import NominalFall
from ..plan.case import Planned
from ..plan.reach import called
from .findings import Finding, against, margin_of, stated

LEVELS_FROM = {
    "sits_back": (0.01, 0.10),
    "splits": (0.05, 0.25),
    "lost_early": (0.10, 2.0),
    "hangs": (0.02, 0.30),
    "breaks": (0.10, 2.0),
}
"""Chances from which each is a watch, and a stop; 2 is never."""
TOLD_FROM = {"never": 0.001, "matters": 0.02, "nuisance": 0.10}
"""By what it costs, the dearest first: the chance from which a target is told."""
CLOSE_FROM = 0.05
START_SPARE_DEG = 1.0
"""How much farther than the wedges are reckoned to the hinge may hold before it is told."""


def fall_findings(planned: Planned, fall: NominalFall, fan: Fan) -> tuple[Finding, ...]:
    """What the plan's own fall and its likely ones say."""
    found = [_drift(planned, fan), _targets(planned, fan), *_chances(fan), *_butt(fall)]
    found += [*_start(planned, fall), *_top(planned), *_close(fan)]
    return tuple(found)


def _drift(planned: Planned, fan: Fan) -> Finding:
    """How far off the lay the middle of the fan is; what would bring it back."""
    tolerance = planned.case.practice.tolerance_deg
    low, middle, high = fan.off_deg
    text = "The top comes to lie {middle} of the lay, nine times in ten between {low} and {high} of it."
    use = abs(middle) / tolerance
    change = phrase("More even wood in the [hinge], a lay nearer the weight, or nothing: it is within what you allow.")
    if use >= 1:
        change = phrase(
            f"Aim off {{off}} to the {'right' if middle > 0 else 'left'} (Ctrl+J), or take the side weight off.",
            off=(abs(middle), "angle"),
        )
    found = against(
        "fall.drift",
        "landing",
        min(use, 1.0),
        (abs(middle), tolerance, "angle"),
        phrase(text, middle=(middle, "aside"), low=(low, "aside"), high=(high, "aside")),
        change,
        indicative=True,
        mark="lay",
    )
    # Never worse than to watch: what a drift does is judged by what it hits.
    return replace(found, margin=margin_of(use))


def _targets(planned: Planned, fan: Fan) -> Finding:
    """The costliest thing that some of the falls hit, with its chance."""
    site = planned.case.site
    told = [hit for hit in hit_chances(planned, fan) if hit[2].share >= TOLD_FROM[hit[1]]]
    if not told:
        if not site.obstacles:
            return stated(
                "fall.not_judged",
                "landing",
                "unknown",
                phrase("What the tree may hit is not judged: nothing is drawn on the ground yet."),
                "Draw what stands and lies round the tree.",
            )
        return stated(
            "fall.targets",
            "landing",
            "clear",
            phrase(
                "Of {count} likely falls none that is worth telling hits anything drawn that has a cost.",
                count=_of(fan),
            ),
            "Walk the lay all the same: the plan holds what was drawn.",
            indicative=True,
            mark="lay",
        )
    name, cost, chance = told[0]
    level = "stop" if cost == "never" else "watch"
    words = {"never": "which must never be hit", "matters": "which matters", "nuisance": "a nuisance"}[cost]
    more = f", and {len(told) - 1} more" if len(told) > 1 else ""
    return replace(
        stated(
            "fall.targets",
            "landing",
            level,
            phrase(f"{{chance}} it hits {escaped(name)}, {words}{more}.", chance=(chance.share, "chance")),
            "Another lay, a stouter [hinge], a better measured lean; the fan on the ground shows which side is short.",
            source="site",
            indicative=True,
            mark="lay",
        ),
        value=chance.share,
        limit=TOLD_FROM[cost],
        kind="ratio",
    )


def _of(fan: Fan) -> tuple[float, str]:
    return float(len(fan.samples)), "count"


CHANCES = {
    "sits_back": (
        "balance",
        "{chance} it sits back on the saw before a wedge can hold it.",
        "Bore it and wedge first, a quarter cut, or a rope before the [back cut].",
        "centre",
    ),
    "splits": (
        "split",
        "{chance} the stem splits up from the cut, by the index of each likely fall.",
        "Bore it and release last; see what drives the index.",
        "kerf",
    ),
    "lost_early": (
        "hinge",
        "{chance} the [hinge] is lost before half way down: from there it goes where its weight hangs.",
        "Less side weight, an evener or stouter [hinge], a wider [face].",
        "hinge",
    ),
    "hangs": (
        "landing",
        "{chance} it hangs in a neighbour.",
        "A lay with more room, or the neighbour first; a hung tree is for those qualified.",
        "lay",
    ),
    "breaks": (
        "landing",
        "{chance} the stem breaks over the ground it lands on.",
        "A lay beside the hump, brush under the stem to fall on, or the break planned where the log is cut.",
        "lay",
    ),
}


def _chances(fan: Fan) -> list[Finding]:
    """Each of the other ways in which it may go wrong, once it is worth telling."""
    found = []
    for chance in fan.wrongs:
        if chance.key not in CHANCES:
            continue
        watch, stop = LEVELS_FROM[chance.key]
        group, text, change, mark = CHANCES[chance.key]
        level = "stop" if chance.share >= stop else "watch" if chance.share >= watch else "clear"
        if level == "clear" and chance.share == 0:
            continue
        told = stated(
            f"fall.{chance.key}",
            group,
            level,
            phrase(text, chance=(chance.share, "chance")),
            change,
            indicative=True,
            mark=mark,
        )
        found.append(replace(told, value=chance.share, limit=min(stop, 1.0), kind="ratio"))
    return found


def _butt(fall: NominalFall) -> list[Finding]:
    """What the butt does, where it does anything."""
    if fall.butt in ("stays", "held", "hangs"):
        return []
    texts = {
        "kicks back": "The top lands first, the [hinge] gone: the butt may be thrown back {back}, at head height.",
        "lifts": "The stem meets the ground in its middle, the [hinge] gone: the butt is levered off the stump.",
        "slides": "The butt runs ahead off the stump, about {ahead}.",
    }
    values = {"kicks back": {"back": (-fall.butt_m, "span")}, "slides": {"ahead": (fall.butt_m, "span")}}
    return [
        stated(
            f"fall.{fall.butt.replace(' ', '_')}",
            "landing",
            "watch",
            phrase(texts[fall.butt], **values.get(fall.butt, {})),
            "Nobody behind or beside the stump; away as soon as it goes, and not back until it is still.",
            indicative=True,
            mark="face",
        )
    ]


def _start(planned: Planned, fall: NominalFall) -> list[Finding]:
    """Where the hinge holds the tree farther over than the wedges are reckoned to bring it."""
    parts = planned.parts
    if not fall.goes:
        return [
            stated(
                "fall.start",
                "hinge",
                "stop",
                phrase("The [hinge] is spent before the tree goes over: nothing says where it goes then."),
                "A thinner [hinge], a wider [face], a rope; or a lay it leans to.",
                indicative=True,
                mark="hinge",
            )
        ]
    to = parts.wedging.tilt_deg
    if not parts.wedging.wanted or parts.rigging is not None or fall.start_deg <= to + START_SPARE_DEG:
        return []
    lifts = [seat.arm_m * math.tan(math.radians(fall.start_deg)) for seat in parts.wedging.seats]
    have = max((seat.available_m for seat in parts.wedging.seats), default=0.0)
    text = "The [hinge] may hold it until {start} of tilt, though its weight is over at {to}"
    if lifts and max(lifts) > have:
        text += ": that is {lift} of lift, and the wedges have {have}"
    return [
        stated(
            "fall.start",
            "wedge",
            "watch",
            phrase(
                text + ".",
                start=(fall.start_deg, "angle"),
                to=(to, "angle"),
                lift=(max(lifts, default=0.0), "fine_length"),
                have=(have, "fine_length"),
            ),
            "Wedge and cut in turn down to a [hinge] that folds, more wedges, or a rope.",
            indicative=True,
            mark="wedges",
        )
    ]


def _top(planned: Planned) -> list[Finding]:
    """A dead or forked top whips as it falls: an indicative warning, nothing reckoned."""
    tree = planned.case.tree
    why = ""
    if tree.condition == "dead":
        why = "The tree is dead"
    elif tree.fork.kind == "second":
        why = "The crown is forked"
    elif tree.around.dead_limbs == "yes":
        why = "There is dead wood above"
    if not why:
        return []
    return [
        stated(
            "fall.top",
            "around",
            "watch",
            phrase(f"{why}: tops and limbs may snap off as it starts or as it is checked, and come back at the stump."),
            "Start it gently, no jerk by rope or maul; look up, and be away before it moves.",
            indicative=True,
            mark="crown",
        )
    ]


def _close(fan: Fan) -> list[Finding]:
    """Where many of the falls turn on whether the hinge only just holds."""
    share = fan.close_calls / len(fan.samples)
    if share < CLOSE_FROM:
        return []
    return [
        stated(
            "fall.close",
            "hinge",
            "watch",
            phrase(
                "In {close} of {count} likely falls the [hinge] only just holds or does not: small things decide.",
                close=(float(fan.close_calls), "count"),
                count=_of(fan),
            ),
            "Give the [hinge] room: less side weight, a little more wood on the tension side.",
            indicative=True,
            mark="hinge",
        )
    ]


def hit_chances(planned: Planned, fan: Fan) -> tuple[tuple[str, str, Chance], ...]:
    """(name, cost, chance) of all that may be hit and costs something, the costliest first, then the likeliest."""
    things, order = planned.case.site.obstacles, tuple(TOLD_FROM)
    named = [(called(things[chance.index]), things[chance.index].cost, chance) for chance in fan.hits]
    return tuple(
        sorted((hit for hit in named if hit[1] in order), key=lambda hit: (order.index(hit[1]), -hit[2].share))
    )
