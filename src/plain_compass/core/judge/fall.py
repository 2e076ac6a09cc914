"""Findings from the fall: where it goes and how sure that is, what it may hit, hang on, lose on the way."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.frozen import changed
from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..fall.fan import Chance, Fan
from ..fall.nominal import NominalFall
from ..plan.case import Planned
from ..plan.reach import called
from ..site.site import Cost
from .chances import STOP_ABOVE, level_of_chance
from .findings import Finding, Limit, Told, against, as_fact, margin_of, stated

TOLD_FROM = {"never": 0.001, "matters": 0.02, "nuisance": 0.10}
"""By what it costs, the dearest first: the chance from which a target is told."""
STATES_OF = {
    "sits_back": ("balance.sits_back",),
    "stays_up": ("balance.over", "balance.shuts_first"),
    "splits": ("split.index",),
    "lost_early": ("hinge.side", "hinge.holds"),
    "breaks": ("landing.break",),
}
"""Ways in which a fall goes wrong that are limits of the plan: their chance is told once, by the limit."""


def fall_findings(planned: Planned, fall: NominalFall, fan: Fan) -> tuple[Finding, ...]:
    """What the plan's own fall and its likely ones say, beside what the limits of the plan say already."""
    targets, drift = _targets(planned, fan), _drift(planned, fan)
    # A drift matters by what it brings the tree down on.
    drift = as_fact(drift) if targets.level == Level.CLEAR else drift
    return (drift, targets, *_hangs(fan), *_butt(fall), *_start(fall), *_top(planned))


def wrongs_told(findings: tuple[Finding, ...], fan: Fan) -> tuple[Chance, ...]:
    """Every way in which the fall may go wrong with its chance: that of the limit it is the failing of, where it is."""
    known = {finding.id: finding.chance for finding in findings}
    told = []
    for chance in fan.wrongs:
        each = [share for id in STATES_OF.get(chance.key, ()) if (share := known.get(id)) is not None]
        told.append(replace(chance, share=1.0 - math.prod(1.0 - share for share in each)) if each else chance)
    return tuple(told)


def _drift(planned: Planned, fan: Fan) -> Finding:
    """How far off the lay the middle of the fan is; what would bring it back."""
    tolerance = planned.case.practice.tolerance_deg
    low, middle, high = fan.off_deg
    text = "fall.drift.top_comes_lie"
    use = abs(middle) / tolerance
    change = phrase("fall.drift.change")
    if use >= 1:
        change = phrase("fall.drift.aim_off", off=abs(middle), side=phrase("side.right" if middle > 0 else "side.left"))
    told = Told(phrase(text, middle=middle, low=low, high=high), change)
    limit, compared = Limit("fall.drift", Group.LANDING, "lay"), (abs(middle), tolerance, Kind.ANGLE)
    # Never worse than to watch: what a drift does is judged by what it hits.
    found = against(limit, min(use, 1.0), compared, told, watch_from=1.0, indicative=True)
    return changed(found, margin=margin_of(use))


def _targets(planned: Planned, fan: Fan) -> Finding:
    """The costliest thing that some of the falls hit, with its chance."""
    site = planned.case.site
    told = [hit for hit in hit_chances(planned, fan) if hit[2].share >= TOLD_FROM[hit[1]]]
    if not told:
        if not site.obstacles and site.looked != "yes":
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
    found = changed(
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
        unit=Kind.RATIO,
        chance=chance.share,
    )
    return as_fact(found) if cost == Cost.NUISANCE else found


def _hangs(fan: Fan) -> list[Finding]:
    """How often it hangs in a neighbour, where it does at all."""
    share = fan.hangs.share
    if share == 0:
        return []
    level, sentence = level_of_chance(share, 0.0), phrase("fall.hangs.likely", chance=share)
    found = stated(Limit("fall.hangs", Group.LANDING, "lay"), level, sentence, "fall.hangs.change", indicative=True)
    return [changed(found, value=share, limit=STOP_ABOVE, unit=Kind.RATIO, chance=share)]


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


def hit_chances(planned: Planned, fan: Fan) -> tuple[tuple[str, str, Chance], ...]:
    """(name, cost, chance) of all that may be hit and costs something, the costliest first, then the likeliest."""
    things, order = planned.case.site.obstacles, tuple(TOLD_FROM)
    named = [(called(things[chance.index]), things[chance.index].cost, chance) for chance in fan.hits]
    return tuple(
        sorted((hit for hit in named if hit[1] in order), key=lambda hit: (order.index(hit[1]), -hit[2].share))
    )
