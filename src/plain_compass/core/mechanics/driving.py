"""What is to be seen while wedges are driven: how far the top should have moved at each lift."""

from __future__ import annotations

import numpy as np

from ..base.frozen import dataclass

EVERY_m = 0.005
"""Lift between two lines of the table: a stretch one sees on the wedge."""
MOST_LINES = 12
"""Lines of the table; a long way is told in longer stretches."""


@dataclass(frozen=True, slots=True)
class DrivenTo:
    """One line of the table: a wedge's lift, and how far the top should have moved for it."""

    lift_m: float
    top_m: float


def driving_table(lift_m: float, arm_m: float, height_m: float) -> tuple[DrivenTo, ...]:
    """Lifts up to the one at which the tree should have gone; past the last without its going it is a stop.

    A stiff stem on its hinge moves its top by height over arm for every lift.

    Args:
        lift_m, arm_m: of the seat that lifts least for its arm.
        height_m: of the top over the hinge.
    """
    if lift_m <= 0 or arm_m <= 0:
        return ()
    every = EVERY_m * max(np.ceil(lift_m / EVERY_m / MOST_LINES), 1.0)
    lifts = [*np.arange(every, lift_m - every / 4, every).tolist(), lift_m]
    return tuple(DrivenTo(lift, height_m * lift / arm_m) for lift in lifts)
