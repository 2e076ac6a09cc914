"""Findings from the ground: what lies under the lay, what catches the tree, the ways out, who must be kept away."""

from __future__ import annotations

import math

from ..base.phrase import escaped, listed, phrase
from ..plan.case import Case, Parts
from ..plan.reach import DEAR, behind, better_side, called, caught, lying
from ..site.hang_up import gap_m
from ..site.landing import hits_on
from ..site.ways_out import STEEP_DEG, people_inside, ways_out
from .findings import Finding, stated, unknown

WATCH_FROM = 0.4
"""Share of the energy of the fall taken by a neighbour from which a hang-up is to be watched for."""
SPARE_TOLD_m = 6.0
"""A neighbour passed farther off than this is not spoken of."""
TEARS_FREE_DEG = 60.0
"""A crown grown into its neighbour comes free when it falls within this of the tangle."""


def ground_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """What the site plan says about this lay. Without a plan nothing is known, and it is said so."""
    if not case.site.obstacles:
        return (
            unknown(
                "way_out.not_judged",
                "way_out",
                "Ways out are not judged: nothing is drawn on the ground yet.",
                "Clear two paths back and away before the saw starts.",
            ),
            unknown(
                "landing.not_judged",
                "landing",
                "The landing is not judged: nothing is drawn on the ground yet.",
                "Walk the lay to where the top will be, and look up.",
            ),
        )
    return (
        _targets(case),
        *_miss(case, parts),
        *_hang_up(case, parts),
        *_tangled(case),
        _ways(case),
        _stand(case, parts),
        *_people(case),
    )


def _site(
    id: str, group: str, level: str, text: str, change: str, *, indicative: bool = False, **values: tuple[float, str]
) -> Finding:
    sentence = phrase(text, **values)
    return stated(id, group, level, sentence, change, source="site", indicative=indicative, mark="lay")


def _targets(case: Case) -> Finding:
    hits = hits_on(case.site, case.at, lying(case), case.cut.lay_deg)
    costly = [hit for hit in hits if hit.obstacle.cost != "none"]
    if not costly:
        return _site(
            "landing.targets",
            "landing",
            "clear",
            "Nothing that is drawn lies under the tree on this lay.",
            "Walk it all the same: the plan holds what was drawn.",
        )
    worst = costly[0]
    level = {"never": "stop", "matters": "watch", "nuisance": "watch"}[worst.obstacle.cost]
    words = {"never": "which must never be hit", "matters": "which matters", "nuisance": "a nuisance"}
    more = f", and {len(costly) - 1} more" if len(costly) > 1 else ""
    name = escaped(called(worst.obstacle))
    return _site(
        "landing.targets",
        "landing",
        level,
        f"Under the tree, {{at}} from the stump: {name}, {words[worst.obstacle.cost]}{more}.",
        "Another lay; the rose shows which bearings are free of it.",
        at=(worst.at_m, "span"),
    )


def _miss(case: Case, parts: Parts) -> list[Finding]:
    """Where a miss would cost something, wedges alone are not enough."""
    if parts.balance.moment_forward_Nm >= 0 or not parts.wedging.wanted or parts.rigging is not None:
        return []
    at_risk = [case.site.obstacles[index] for index in behind(case, case.cut.lay_deg)]
    dear = [each for each in at_risk if each.cost in DEAR]
    if not dear:
        return []
    worst = next((each for each in dear if each.cost == "never"), dear[0])
    name = escaped(called(worst))
    return [
        _site(
            "landing.miss",
            "landing",
            "stop" if worst.cost == "never" else "watch",
            f"A tree that sits back instead of going would reach {name}: wedges alone are not enough here.",
            "A rope or a machine beside the wedges, or a lay that does not need them.",
        )
    ]


def _hang_up(case: Case, parts: Parts) -> list[Finding]:
    catches = caught(case, parts.mass)
    if not catches:
        return _gap(case)
    worst = catches[0]
    level = "stop" if worst.use > 1 or worst.on_stem else "watch" if worst.use > WATCH_FROM else "clear"
    name = escaped(called(worst.obstacle))
    share = "all" if worst.use > 1 else "{share}"
    text = (
        f"The crown meets {name} {{at}} up, at {{tilt}} of tilt; breaking through takes {share} of the energy it has."
    )
    if worst.on_stem:
        text = f"The stem comes down on the stem of {name} at {{tilt}} of tilt: it hangs there or breaks."
    return [
        _site(
            "landing.hang_up",
            "landing",
            level,
            text,
            "A gap that takes the crown, or the neighbour first; a hung tree is for those qualified.",
            indicative=True,
            tilt=(worst.tilt_deg, "angle"),
            at=(worst.at_m, "span"),
            share=(min(worst.use, 1.0), "ratio"),
        )
    ]


def _gap(case: Case) -> list[Finding]:
    """The crown goes through beside somebody: how much there is to spare."""
    found = gap_m(case.site, case.at, lying(case), case.cut.lay_deg)
    if found is None or found[1] > SPARE_TOLD_m:
        return []
    name = escaped(called(case.site.obstacles[found[0]]))
    spare = found[1]
    level = "watch" if spare < lying(case).length_m * math.tan(math.radians(case.practice.tolerance_deg)) else "clear"
    text = f"The gap takes the crown with {{spare}} to spare beside {name}."
    if spare < 0:
        text = f"The crown passes over {name}, which stands {{spare}} into its way."
    return [
        _site(
            "landing.hang_up",
            "landing",
            level,
            text,
            "A lay in the middle of the gap.",
            indicative=True,
            spare=(abs(spare), "span"),
        )
    ]


def _tangled(case: Case) -> list[Finding]:
    around = case.tree.around
    if around.tangled != "yes":
        return []
    off = abs((around.tangled_deg - case.cut.lay_deg + 180.0) % 360.0 - 180.0)
    away = off > TEARS_FREE_DEG
    how = "it must tear free: it may hang, turn on the stump or bring the other's wood down"
    if not away:
        how = "it falls into the tangle: it may lodge there"
    return [
        _site(
            "landing.tangled",
            "landing",
            "stop" if away else "watch",
            f"The crown is grown together with the next one towards {{at}}, and {how}.",
            "Free it first, by those qualified to climb or with a machine.",
            at=(around.tangled_deg, "bearing"),
        )
    ]


def _ways(case: Case) -> Finding:
    left, right = ways_out(case.site, case.at, case.cut.lay_deg)
    free = [way for way in (left, right) if way.free]
    if len(free) == 2:
        unseen = sorted({index for way in free for index in way.under_unseen})
        text = "Both ways out, {left} and {right}, are free of what is drawn."
        if unseen:
            names = listed([escaped(called(case.site.obstacles[index])) for index in unseen])
            text = f"The ways out, {{left}} and {{right}}, lead under {names}, and nobody has looked what hangs there."
        return _site(
            "way_out.paths",
            "way_out",
            "unknown" if unseen else "clear",
            text,
            "Look up into what they lead under; clear them of brush before the saw starts.",
            left=(left.bearing_deg, "bearing"),
            right=(right.bearing_deg, "bearing"),
        )
    shut = next(way for way in (left, right) if not way.free)
    if shut.blocked_by is not None:
        name = escaped(called(case.site.obstacles[shut.blocked_by]))
        why = f"{name} stands in it"
    elif shut.under_dead:
        why = f"it leads under the dead wood of {escaped(called(case.site.obstacles[shut.under_dead[0]]))}"
    else:
        why = f"it is steeper than {STEEP_DEG:.0f} degrees"
    lead = "One way out" if free else "Neither way out is free: the one"
    return _site(
        "way_out.paths",
        "way_out",
        "watch" if free else "stop",
        f"{lead} towards {{at}} is not free: {why}." if free else f"{lead} towards {{at}} is barred, {why}.",
        "Clear it, or another lay; never across the back of the stump.",
        at=(shut.bearing_deg, "bearing"),
    )


def _stand(case: Case, parts: Parts) -> Finding:
    best, other = better_side(case, parts)
    reasons = {
        "its way out is barred": best.way_free and not other.way_free,
        "it is downhill": other.downhill and not best.downhill,
        "the side weight hangs over it": other.under_weight and not best.under_weight,
    }
    why = listed([words for words, holds in reasons.items() if holds] or ["nothing speaks against either side"])
    tail = f"; of the other, {why}" if any(reasons.values()) else f"; {why}"
    bad = [w for w, holds in (("its way out is barred", not best.way_free), ("it is downhill", best.downhill)) if holds]
    level = "stop" if not best.way_free else "watch" if bad or best.under_weight else "clear"
    text = f"For the [back cut] stand on the {best.side}, looking along the lay{tail}."
    if bad:
        text = f"Neither side of the stump is good to stand on for the [back cut]: of the {best.side}, {listed(bad)}."
    change = "Never straight behind the stump, never below it; leave across neither."
    return _site("way_out.stand", "way_out", level, text, change)


def _people(case: Case) -> list[Finding]:
    inside = people_inside(case.site, case.at, case.tree.height_m)
    if not inside:
        return []
    names = listed([escaped(called(case.site.obstacles[index])) for index in inside])
    return [
        _site(
            "way_out.people",
            "way_out",
            "watch",
            f"Inside the kept-away zone of {{zone}}, to be closed: {names}.",
            "Close them and post somebody before the saw starts.",
            zone=(case.site.kept_away_lengths * case.tree.height_m, "span"),
        )
    ]
