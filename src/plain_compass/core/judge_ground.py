"""Findings from the ground: what lies under the lay, what catches the tree, the ways out, who must be kept away."""

from __future__ import annotations

from typing import TYPE_CHECKING

from .findings import Finding, listed, phrase, stated, unknown
from .landing import Catch, Footprint, catches_on, footprint_of, hits_on
from .site import KINDS, Obstacle
from .ways_out import STEEP_DEG, people_inside, ways_out

if TYPE_CHECKING:
    from .balance import Mass
    from .plan import Case, Parts

HANGS_BELOW_DEG, WATCH_BELOW_DEG = 45.0, 70.0
"""Tilt under which a tree that meets a crown has too little energy to come through (indicative)."""


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
    return (_targets(case), *_hang_up(case, parts), _ways(case), *_people(case))


def called(obstacle: Obstacle) -> str:
    """What a person calls an obstacle."""
    return obstacle.name or KINDS[obstacle.kind]


def lying(case: Case) -> Footprint:
    """What the tree of a case covers when it lies."""
    return footprint_of(case.tree, case.cut.height_m, case.practice.tolerance_deg)


def caught(case: Case, mass: Mass) -> tuple[Catch, ...]:
    """Neighbours that the tree of a case meets on its way down, the earliest met first."""
    return catches_on(case.site, case.at, lying(case), case.cut.lay_deg, weight_N=mass.weight_N, com_up_m=mass.com_up_m)


def _site(
    id: str, group: str, level: str, text: str, change: str, *, indicative: bool = False, **values: tuple[float, str]
) -> Finding:
    sentence = phrase(text, **values)
    return stated(id, group, level, sentence, change, source="site", indicative=indicative, mark="lay")


def _escaped(name: str) -> str:
    """A person's own words inside a template."""
    return name.replace("{", "(").replace("}", ")").replace("[", "(").replace("]", ")")


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
    name = _escaped(called(worst.obstacle))
    return _site(
        "landing.targets",
        "landing",
        level,
        f"Under the tree, {{at}} from the stump: {name}, {words[worst.obstacle.cost]}{more}.",
        "Another lay; the rose shows which bearings are free of it.",
        at=(worst.at_m, "span"),
    )


def _hang_up(case: Case, parts: Parts) -> list[Finding]:
    catches = caught(case, parts.mass)
    if not catches:
        return []
    first = catches[0]
    level = "stop" if first.tilt_deg < HANGS_BELOW_DEG else "watch" if first.tilt_deg < WATCH_BELOW_DEG else "clear"
    name = _escaped(called(first.obstacle))
    return [
        _site(
            "landing.hang_up",
            "landing",
            level,
            f"The crown meets {name} at {{tilt}} of tilt, with {{share}} of its width; early on it may hang there.",
            "A gap that takes the crown, or the neighbour first; a hung tree is for those qualified.",
            indicative=True,
            tilt=(first.tilt_deg, "angle"),
            share=(first.overlap, "ratio"),
        )
    ]


def _ways(case: Case) -> Finding:
    left, right = ways_out(case.site, case.at, case.cut.lay_deg)
    free = [way for way in (left, right) if way.free]
    if len(free) == 2:
        return _site(
            "way_out.paths",
            "way_out",
            "clear",
            "Both ways out, {left} and {right}, are free of what is drawn.",
            "Clear them of brush before the saw starts.",
            left=(left.bearing_deg, "bearing"),
            right=(right.bearing_deg, "bearing"),
        )
    shut = next(way for way in (left, right) if not way.free)
    if shut.blocked_by is not None:
        name = _escaped(called(case.site.obstacles[shut.blocked_by]))
        why = f"{name} stands in it"
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


def _people(case: Case) -> list[Finding]:
    inside = people_inside(case.site, case.at, case.tree.height_m)
    if not inside:
        return []
    names = listed([_escaped(called(case.site.obstacles[index])) for index in inside])
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
