"""Findings from the fall: where it goes and how sure that is, what it may hit, hang on, lose on the way."""

from __future__ import annotations

from dataclasses import replace

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..fall.fan import Chance, Fan
from ..fall.nominal import NominalFall
from ..plan.case import Planned
from ..plan.reach import called
from ..site.site import Cost
from .findings import Finding, Limit, Told, against, margin_of, stated

LEVELS_FROM = {"sits_back": (0.01, 0.10), "lost_early": (0.10, 2.0), "hangs": (0.02, 0.30), "breaks": (0.10, 2.0)}
"""Chances from which each is a watch, and a stop; 2 is never."""
TOLD_FROM = {"never": 0.001, "matters": 0.02, "nuisance": 0.10}
"""By what it costs, the dearest first: the chance from which a target is told."""
CLOSE_FROM = 0.05
"""Chance from which it is worth a watch: one fall in twenty."""


def fall_findings(planned: Planned, fall: NominalFall, fan: Fan) -> tuple[Finding, ...]:
    """What the plan's own fall and its likely ones say."""
    found = [_drift(planned, fan), _targets(planned, fan), *_chances(fan), *_butt(fall)]
    found += [*_start(fall), *_top(planned), *_close(fan)]
    return tuple(found)


def _drift(planned: Planned, fan: Fan) -> Finding:
    """How far off the lay the middle of the fan is; what would bring it back."""
    tolerance = planned.case.practice.tolerance_deg
    low, middle, high = fan.off_deg
    text = "fall.drift.top_comes_lie"
    use = abs(middle) / tolerance
    change = phrase("fall.drift.change")
    if use >= 1:
        change = phrase("fall.drift.aim_off", off=abs(middle), side=phrase("side.right" if middle > 0 else "side.left"))
    found = against(
        Limit("fall.drift", Group.LANDING, "lay"),
        min(use, 1.0),
        (abs(middle), tolerance, Kind.ANGLE),
        Told(phrase(text, middle=middle, low=low, high=high), change),
        indicative=True,
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
                Limit("fall.not_judged", Group.LANDING),
                Level.UNKNOWN,
                phrase("fall.not_judged.tree_hit_judged"),
                "fall.not_judged.change",
            )
        return stated(
            Limit("fall.targets", Group.LANDING, "lay"),
            Level.CLEAR,
            phrase("fall.targets.likely_falls_none", count=len(fan.samples)),
            "fall.targets.change",
            indicative=True,
        )
    name, cost, chance = told[0]
    level = Level.STOP if cost == Cost.NEVER else Level.WATCH
    return replace(
        stated(
            Limit("fall.targets", Group.LANDING, "lay"),
            level,
            phrase(
                "fall.targets.hits_more" if len(told) > 1 else "fall.targets.hits",
                chance=chance.share,
                name=name,
                cost=phrase(f"cost.{cost}"),
                more=len(told) - 1,
            ),
            "fall.targets.hit_change",
            source="site",
            indicative=True,
        ),
        value=chance.share,
        limit=TOLD_FROM[cost],
        kind=Kind.RATIO,
    )


CHANCES = {
    "sits_back": (Group.BALANCE, "centre"),
    "lost_early": (Group.HINGE, "hinge"),
    "hangs": (Group.LANDING, "lay"),
    "breaks": (Group.LANDING, "lay"),
}
"""Other ways in which a fall may go wrong: the limit state of each, and where it is shown."""


def _chances(fan: Fan) -> list[Finding]:
    """Each of the other ways in which it may go wrong, once it is worth telling."""
    found = []
    for chance in fan.wrongs:
        if chance.key not in CHANCES:
            continue
        watch, stop = LEVELS_FROM[chance.key]
        group, mark = CHANCES[chance.key]
        level = Level.STOP if chance.share >= stop else Level.WATCH if chance.share >= watch else Level.CLEAR
        if level == Level.CLEAR and chance.share == 0:
            continue
        told = stated(
            Limit(f"fall.{chance.key}", group, mark),
            level,
            phrase(f"fall.{chance.key}.likely", chance=chance.share),
            f"fall.{chance.key}.change",
            indicative=True,
        )
        found.append(replace(told, value=chance.share, limit=min(stop, 1.0), kind=Kind.RATIO))
    return found


def _butt(fall: NominalFall) -> list[Finding]:
    """What the butt does, where it does anything."""
    if fall.butt in ("stays", "held", "hangs", "comes down"):
        return []
    texts = {
        "kicks back": "fall.butt.top_lands_first",
        "lifts": "fall.butt.stem_meets_ground",
        "slides": "fall.butt.butt_runs_ahead",
        "flies": "fall.butt.thrown_ahead",
    }
    values = {"kicks back": {"back": -fall.butt_m}, "slides": {"ahead": fall.butt_m}, "flies": {"ahead": fall.butt_m}}
    return [
        stated(
            Limit(f"fall.{fall.butt.replace(' ', '_')}", Group.LANDING, "face"),
            Level.CLEAR if fall.butt == "flies" else Level.WATCH,
            phrase(texts[fall.butt], **values.get(fall.butt, {})),
            "fall.butt.change",
            indicative=True,
        )
    ]


def _start(fall: NominalFall) -> list[Finding]:
    """Where the hinge is spent before the tree goes over."""
    if not fall.goes:
        return [
            stated(
                Limit("fall.start", Group.HINGE, "hinge"),
                Level.STOP,
                phrase("fall.start.hinge_spent_tree"),
                "fall.start.spent_change",
                indicative=True,
            )
        ]
    return []


def _top(planned: Planned) -> list[Finding]:
    """A dead or forked top whips as it falls: an indicative warning, nothing reckoned."""
    tree = planned.case.tree
    why = ""
    if tree.condition == "dead":
        why = "fall.top.tree_dead"
    elif tree.fork.kind == "second":
        why = "fall.top.crown_forked"
    elif tree.around.dead_limbs == "yes":
        why = "fall.top.dead_wood_above"
    if not why:
        return []
    return [
        stated(
            Limit("fall.top", Group.AROUND, "crown"),
            Level.WATCH,
            phrase("fall.top.snaps", why=phrase(why)),
            "fall.top.change",
            indicative=True,
        )
    ]


def _close(fan: Fan) -> list[Finding]:
    """Where many of the falls turn on whether the hinge only just holds."""
    share = fan.close_calls / len(fan.samples)
    if share < CLOSE_FROM:
        return []
    return [
        stated(
            Limit("fall.close", Group.HINGE, "hinge"),
            Level.WATCH,
            phrase("fall.close.likely_falls_hinge", close=float(fan.close_calls), count=len(fan.samples)),
            "fall.close.change",
            indicative=True,
        )
    ]


def hit_chances(planned: Planned, fan: Fan) -> tuple[tuple[str, str, Chance], ...]:
    """(name, cost, chance) of all that may be hit and costs something, the costliest first, then the likeliest."""
    things, order = planned.case.site.obstacles, tuple(TOLD_FROM)
    named = [(called(things[chance.index]), things[chance.index].cost, chance) for chance in fan.hits]
    return tuple(
        sorted((hit for hit in named if hit[1] in order), key=lambda hit: (order.index(hit[1]), -hit[2].share))
    )
