"""The wind finding: how much of what the plan can bear the wind takes, and at which speed it stops working."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from .findings import Finding, against, phrase, unknown
from .wind import silhouette_m2, speed_for_force_m_s, wind_force_N

if TYPE_CHECKING:
    from .plan import Case, Parts


def wind_finding(case: Case, parts: Parts) -> Finding:
    """Wind against the wedges' spare lift (or the tree's own forward moment), and sideways against the hinge.

    A wind that blows onto the lay is not counted as help: it may drop.
    """
    site = case.site
    if site.wind_m_s is None:
        return unknown(
            "balance.wind_not_judged",
            "balance",
            "The wind has not been judged.",
            "Feel it at the top: look at the crowns, not at the ground.",
        )
    conifer = case.wood.group == "conifer"
    area = silhouette_m2(case.tree, is_conifer=conifer)
    in_leaf = conifer or case.tree.crown.leaf == "leaf"
    crown = case.tree.crown
    arm = crown.base_m + 0.5 * (case.tree.height_m - crown.base_m) - case.cut.height_m
    turn = math.radians(site.wind_from_deg + 180.0 - case.cut.lay_deg)
    shares = [
        (max(-math.cos(turn), 0.0), _spare_back_Nm(parts)),
        (abs(math.sin(turn)), parts.strength.side_capacity_Nm),
    ]
    per_newton = max(
        share * arm / spare if spare > 0 else (math.inf if share > 1e-9 else 0.0) for share, spare in shares
    )
    force = wind_force_N(area, site.wind_m_s, site.gust_ratio, in_leaf=in_leaf)
    use = force * per_newton if force > 0 else 0.0
    most = math.inf
    if per_newton > 0:
        most = (
            speed_for_force_m_s(1 / per_newton, area, site.gust_ratio, in_leaf=in_leaf)
            if per_newton < math.inf
            else 0.0
        )
    text = "A wind of {speed} from {wind_from} takes {use} of what the plan can bear; at {most} it stops working."
    if most == math.inf:
        text = "A wind of {speed} from {wind_from} does not stop this plan at any strength a person works in."
    values = {"speed": (site.wind_m_s, "speed"), "wind_from": (site.wind_from_deg, "bearing"), "use": (use, "ratio")}
    values["most"] = (min(most, 99.0), "speed")
    return against(
        "balance.wind",
        "balance",
        use,
        (site.wind_m_s, min(most, 99.0), "speed"),
        phrase(text, **values),
        phrase("Another day, a lay with the wind behind it, or a rope set high."),
        indicative=True,
        mark="centre",
    )


def _spare_back_Nm(parts: Parts) -> float:
    """Moment from ahead that the plan can still take: the wedges' spare lift, or the tree's own weight ahead."""
    wedging = parts.wedging
    if not wedging.wanted:
        return max(parts.balance.moment_forward_Nm, 0.0)
    spare = [max(seat.available_m - seat.lift_m, 0.0) / seat.arm_m for seat in wedging.seats if seat.arm_m > 0]
    return parts.mass.toppling_Nm * math.tan(min(spare)) if spare else 0.0
