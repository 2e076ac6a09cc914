"""The wind finding: how much of what the plan can bear the wind takes, and at which speed it stops working."""

from __future__ import annotations

import math
from dataclasses import replace

from ..base.levels import Group
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..mechanics.wedge import tipping_tilt_deg
from ..plan.case import Case, Parts
from ..site.wind import speed_for_force_m_s
from .findings import Finding, Limit, Told, against, unknown


def wind_finding(case: Case, parts: Parts) -> Finding:
    """Wind against the wedges' spare lift (or the tree's own forward moment), and sideways against the hinge.

    A wind that blows onto the lay is not counted as help: it may drop.
    """
    site = case.site
    if site.wind_m_s is None:
        return unknown(
            "balance.wind_not_judged",
            Group.BALANCE,
            "balance.wind_not_judged.wind_been_judged",
            "balance.wind_not_judged.change",
        )
    gust = parts.gust
    area, arm, in_leaf, force = gust.area_m2, gust.arm_m, gust.in_leaf, gust.force_N
    shares = [
        (max(gust.against, 0.0), _spare_back_Nm(case, parts)),
        (abs(gust.aside_left), parts.strength.side_capacity_Nm),
    ]
    per_newton = max(
        share * arm / spare if spare > 0 else (math.inf if share > 1e-9 else 0.0) for share, spare in shares
    )
    use = force * per_newton if force > 0 else 0.0
    most = math.inf
    if per_newton > 0:
        most = (
            speed_for_force_m_s(1 / per_newton, area, site.gust_ratio, in_leaf=in_leaf)
            if per_newton < math.inf
            else 0.0
        )
    text = "balance.wind.wind_takes_plan"
    if most == math.inf:
        text = "balance.wind.wind_stop_plan"
    values = {"speed": site.wind_m_s, "wind_from": site.wind_from_deg, "use": use}
    values["most"] = min(most, 99.0)
    return against(
        Limit("balance.wind", Group.BALANCE, "centre"),
        use,
        (site.wind_m_s, min(most, 99.0), Kind.SPEED),
        Told(phrase(text, **values), phrase("balance.wind.change")),
        indicative=True,
    )


def _spare_back_Nm(case: Case, parts: Parts) -> float:
    """Moment from ahead that the plan could take in a calm: the wedges' spare lift, or what is ahead of the hinge."""
    gust, wedging = parts.gust, parts.wedging
    calm = parts.balance.moment_forward_Nm + gust.force_N * gust.arm_m * max(gust.against, 0.0)
    still = replace(parts.balance, moment_forward_Nm=calm)
    tilt = tipping_tilt_deg(still, parts.mass, case.constants)
    if not wedging.wanted:
        return max(calm, 0.0)
    spare = [seat.available_m / seat.arm_m - math.tan(math.radians(tilt)) for seat in wedging.seats if seat.arm_m > 0]
    return parts.mass.toppling_Nm * math.tan(max(min(spare), 0.0)) if spare else 0.0
