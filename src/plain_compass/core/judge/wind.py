"""The wind finding: how much of what the plan can bear the wind takes, and at which speed it stops working."""

from __future__ import annotations

import math
from collections.abc import Callable

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..base.quantity import Kind
from ..plan.case import Case, Parts
from ..site.wind import speed_for_force_m_s
from .findings import Finding, Limit, Told, as_fact, stated, unknown
from .limits import Uses, judged

CHANGE = "balance.wind.change"


def wind_finding(case: Case, parts: Parts, uses: Uses, takes: Callable[[], float]) -> Finding:
    """Wind against the wedges' spare lift (or the tree's own forward moment), and sideways against the hinge.

    A wind that blows onto the lay is not counted as help: it may drop.

    Args:
        takes: share of what the plan can bear that one newton takes; asked only where the wind has been judged.
    """
    site = case.site
    if site.wind_m_s is None:
        return unknown(
            "balance.wind_not_judged",
            Group.BALANCE,
            "balance.wind_not_judged.wind_been_judged",
            "balance.wind_not_judged.change",
        )
    if "balance.wind" not in uses:
        calm = stated(Limit("balance.wind", Group.BALANCE, "centre"), Level.CLEAR, phrase("balance.wind.calm"), CHANGE)
        return as_fact(calm)
    gust = parts.gust
    area, in_leaf = gust.area_m2, gust.in_leaf
    use, per_newton = uses["balance.wind"], takes()
    most = math.inf
    if per_newton > 0:
        most = speed_for_force_m_s(1 / per_newton, area, in_leaf=in_leaf) if per_newton < math.inf else 0.0
    text = "balance.wind.wind_takes_plan"
    if most == math.inf:
        text = "balance.wind.wind_stop_plan"
    values = {"speed": site.wind_m_s, "wind_from": site.wind_from_deg, "use": use}
    values["most"] = min(most, 99.0)
    return judged(
        Limit("balance.wind", Group.BALANCE, "centre"),
        uses,
        (site.wind_m_s, min(most, 99.0), Kind.SPEED),
        Told(phrase(text, **values), phrase(CHANGE)),
        indicative=True,
    )
