"""Ropes: real mechanical advantage leg by leg, the pull a tree needs, and what a redirect carries."""

from __future__ import annotations

import math

SHEAVES = {"bearing": 0.95, "bushed": 0.80, "karabiner": 0.60}
"""Efficiency of a half turn round a bearing pulley, a plain-bushed pulley, a karabiner or shackle."""
BARK_FRICTION = 0.25
"""Friction of a rope round bark (handbooks: 0.2 to 0.4; the low end, since it helps)."""


def advantage_simple(legs: int, efficiency: float) -> float:
    """Real advantage of an n:1 simple system: 1 + e + e^2 + ... over the legs at the load."""
    return sum(efficiency**leg for leg in range(legs))


def advantage_three_on_two(efficiency: float) -> float:
    """A 3:1 pulling on a 2:1: both advantages multiplied."""
    return advantage_simple(2, efficiency) * advantage_simple(3, efficiency)


def bark_efficiency(turn_rad: float) -> float:
    """What is left of a pull led round bark by an angle: the belt equation, e^(-mu beta)."""
    return math.exp(-BARK_FRICTION * turn_rad)


def redirect_load_N(tension_N: float, between_deg: float, efficiency: float = 1.0) -> float:
    """Load on a redirect whose two legs stand ``between_deg`` apart; strength is checked with efficiency 1."""
    cos = math.cos(math.radians(between_deg))
    return tension_N * math.sqrt(1 + efficiency**2 + 2 * efficiency * cos)


def pull_needed_N(moment_Nm: float, attached_m: float, anchor_m: float, off_lay_deg: float = 0.0) -> float:
    """Pull along the rope that gives a moment about the hinge.

    Args:
        attached_m: height of the attachment above the hinge.
        anchor_m: level distance from the stump to the anchor, which stands at the hinge's height.
        off_lay_deg: how far the anchor stands off the lay; its side part does no work.

    The rope points down by atan(attached/anchor); only its level part along the lay turns the tree.
    """
    lever = attached_m * math.cos(math.atan2(attached_m, anchor_m)) * math.cos(math.radians(off_lay_deg))
    return moment_Nm / lever if lever > 0 else math.inf
