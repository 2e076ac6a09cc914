"""Findings from the ground: what lies under the lay, what catches the tree, the ways out, who must be kept away."""

from __future__ import annotations

import math

from ..base.frames import half_turn_deg
from ..base.kept import kept
from ..base.levels import Group, Level
from ..base.phrase import Value, phrase
from ..mechanics.mass import Mass
from ..plan.case import Case, Standing
from ..plan.reach import DEAR, behind, better_side, called, caught, lying
from ..site.hang_up import Catch, gap_m
from ..site.landing import Footprint, hits_on
from ..site.site import Cost, Place, Site
from ..site.ways_out import STEEP_DEG, Ways, ways_out
from ..tree.around import Around
from .findings import Finding, Limit, as_fact, stated, unknown

WATCH_FROM = 0.4
"""Share of the energy of the fall taken by a neighbour from which a hang-up is to be watched for."""
SPARE_TOLD_m = 6.0
"""A neighbour passed farther off than this is not spoken of."""
TEARS_FREE_DEG = 60.0
"""A crown grown into its neighbour comes free when it falls within this of the tangle."""


def ground_findings(case: Case, parts: Standing) -> tuple[Finding, ...]:
    """What the site plan says about this lay. Without a plan nothing is known, and it is said so."""
    if not case.site.obstacles and case.site.looked != "yes":
        return (
            unknown(
                "way_out.not_judged", Group.WAY_OUT, "way_out.not_judged.ways_out_judged", "way_out.not_judged.change"
            ),
            unknown(
                "landing.not_judged",
                Group.LANDING,
                "landing.not_judged.landing_judged_nothing",
                "landing.not_judged.change",
            ),
            *tangled_findings(case),
        )
    return (
        targets_finding(case),
        *_miss(case, parts),
        *hang_up_findings(case, parts.mass),
        *tangled_findings(case),
        ways_finding(case),
        _stand(case, parts),
    )


def _site(
    id: str, group: Group, level: Level, text: str, change: str, *, indicative: bool = False, **values: Value
) -> Finding:
    sentence = phrase(text, **values)
    return stated(Limit(id, group, "lay"), level, sentence, change, source="site", indicative=indicative)


def targets_finding(case: Case) -> Finding:
    """What lies under the tree on its lay."""
    return _targets(case.site, case.at, lying(case), case.cut.lay_deg)


@kept("findings of the ground", 64)
def _targets(site: Site, at: Place, footprint: Footprint, lay_deg: float) -> Finding:
    hits = hits_on(site, at, footprint, lay_deg)
    costly = [hit for hit in hits if hit.obstacle.cost != Cost.NONE]
    if not costly:
        return _site(
            "landing.targets",
            Group.LANDING,
            Level.CLEAR,
            "landing.targets.nothing_drawn_lies",
            "landing.targets.clear_change",
        )
    worst = costly[0]
    level = Level.STOP if worst.obstacle.cost == Cost.NEVER else Level.WATCH
    found = _site(
        "landing.targets",
        Group.LANDING,
        level,
        "landing.targets.under_more" if len(costly) > 1 else "landing.targets.under",
        "landing.targets.change",
        at=worst.at_m,
        name=called(worst.obstacle),
        cost=phrase(f"cost.{worst.obstacle.cost}"),
        more=len(costly) - 1,
    )
    # A nuisance is a price one may pay.
    return as_fact(found) if worst.obstacle.cost == Cost.NUISANCE else found


def _miss(case: Case, parts: Standing) -> list[Finding]:
    """Where a miss would cost something, wedges alone are not enough."""
    if parts.balance.moment_forward_Nm >= 0 or not parts.needs_wedges or parts.rigging is not None:
        return []
    at_risk = [case.site.obstacles[index] for index in behind(case, case.cut.lay_deg)]
    dear = [each for each in at_risk if each.cost in DEAR]
    if not dear:
        return []
    worst = next((each for each in dear if each.cost == Cost.NEVER), dear[0])
    return [
        _site(
            "landing.miss",
            Group.LANDING,
            Level.STOP if worst.cost == Cost.NEVER else Level.WATCH,
            "landing.miss.would_reach" if worst.cost == Cost.NEVER else "landing.miss.may_reach",
            "landing.miss.change",
            name=called(worst),
        )
    ]


def hang_up_level(worst: Catch) -> Level:
    """What the neighbour that takes most of the fall means."""
    if worst.use > 1 or worst.on_stem:
        return Level.STOP
    return Level.WATCH if worst.use > WATCH_FROM else Level.CLEAR


def hang_up_findings(case: Case, mass: Mass) -> list[Finding]:
    """What catches the crown, or the neighbour it passes nearest to."""
    catches = caught(case, mass)
    if not catches:
        return list(_gap(case.site, case.at, lying(case), case.cut.lay_deg))
    worst = catches[0]
    level = hang_up_level(worst)
    text = "landing.hang_up.takes_all" if worst.use > 1 else "landing.hang_up.takes"
    if worst.on_stem:
        text = "landing.hang_up.stem_on_stem"
    return [
        _site(
            "landing.hang_up",
            Group.LANDING,
            level,
            text,
            "landing.hang_up.change",
            indicative=True,
            tilt=worst.tilt_deg,
            at=worst.at_m,
            share=min(worst.use, 1.0),
            name=called(worst.obstacle),
        )
    ]


@kept("findings of the ground", 64)
def _gap(site: Site, at: Place, footprint: Footprint, lay_deg: float) -> tuple[Finding, ...]:
    """The crown goes through beside somebody: how much there is to spare."""
    found = gap_m(site, at, footprint, lay_deg)
    if found is None or found[1] > SPARE_TOLD_m:
        return ()
    spare = found[1]
    near = footprint.length_m * math.tan(math.radians(footprint.spread_deg))
    level = Level.WATCH if spare < near else Level.CLEAR
    text = "landing.hang_up.gap_takes" if spare >= 0 else "landing.hang_up.passes_over"
    return (
        _site(
            "landing.hang_up",
            Group.LANDING,
            level,
            text,
            "landing.hang_up.gap_change",
            indicative=True,
            spare=abs(spare),
            name=called(site.obstacles[found[0]]),
        ),
    )


def tears_free(around: Around, lay_deg: float) -> bool:
    """Whether a crown that has grown into another must tear itself free on a lay."""
    off = abs(half_turn_deg(around.tangled_deg - lay_deg))
    return around.tangled == "yes" and off > TEARS_FREE_DEG


def tangled_findings(case: Case) -> list[Finding]:
    """A crown that has grown into its neighbour."""
    around = case.tree.around
    if around.tangled != "yes":
        return []
    away = tears_free(around, case.cut.lay_deg)
    pulls = [
        _site(f"{group}.tangled", limit, Level.WATCH, f"{group}.tangled.loads", "landing.tangled.change")
        for group, limit in (("hinge", Group.HINGE), ("split", Group.SPLIT), ("way_out", Group.WAY_OUT))
    ]
    itself = _site(
        "landing.tangled",
        Group.LANDING,
        Level.STOP if away else Level.WATCH,
        "landing.tangled.must_tear_free" if away else "landing.tangled.falls_into_it",
        "landing.tangled.change",
        at=around.tangled_deg,
    )
    return [itself, *pulls]


def ways_finding(case: Case) -> Finding:
    """Whether both ways out can be walked."""
    return _ways(case.site, case.at, case.cut.lay_deg, case.cut.ways)


@kept("findings of the ground", 64)
def _ways(site: Site, at: Place, lay_deg: float, ways: Ways) -> Finding:
    left, right = ways_out(site, at, lay_deg, ways)
    free = [way for way in (left, right) if way.free]
    if len(free) == 2:
        unseen = sorted({index for way in free for index in way.under_unseen})
        return _site(
            "way_out.paths",
            Group.WAY_OUT,
            Level.UNKNOWN if unseen else Level.CLEAR,
            "way_out.paths.under_unseen" if unseen else "way_out.paths.both_free",
            "way_out.paths.clear_change",
            left=left.bearing_deg,
            right=right.bearing_deg,
            names=tuple(called(site.obstacles[index]) for index in unseen),
        )
    shut = next(way for way in (left, right) if not way.free)
    if shut.blocked_by is not None:
        why = phrase("way_out.paths.stands_in", name=called(site.obstacles[shut.blocked_by]))
    elif shut.under_dead:
        why = phrase("way_out.paths.under_dead", name=called(site.obstacles[shut.under_dead[0]]))
    else:
        why = phrase("way_out.paths.too_steep", slope=STEEP_DEG)
    return _site(
        "way_out.paths",
        Group.WAY_OUT,
        Level.WATCH if free else Level.STOP,
        "way_out.paths.one_barred" if free else "way_out.paths.both_barred",
        "way_out.paths.change",
        at=shut.bearing_deg,
        why=why,
    )


def _stand(case: Case, parts: Standing) -> Finding:
    best, other = better_side(case, parts)
    reasons = (
        ("way_out.stand.barred", best.way_free and not other.way_free),
        ("way_out.stand.downhill", other.downhill and not best.downhill),
        ("way_out.stand.under_weight", other.under_weight and not best.under_weight),
    )
    why = tuple(phrase(words) for words, holds in reasons if holds)
    bad = tuple(
        phrase(words)
        for words, holds in (("way_out.stand.barred", not best.way_free), ("way_out.stand.downhill", best.downhill))
        if holds
    )
    level = Level.STOP if not best.way_free else Level.WATCH if bad or best.under_weight else Level.CLEAR
    text = "way_out.stand.neither" if bad else "way_out.stand.better" if why else "way_out.stand.either"
    side = phrase(f"side.{best.side}")
    return _site("way_out.stand", Group.WAY_OUT, level, text, "way_out.stand.change", side=side, why=bad or why)
