"""What is told of a tree that wedges must bring over: a thinner hinge that would go, and the driving table."""

from __future__ import annotations

import math

import numpy as np

from ..mechanics.driving import DrivenTo, driving_table
from ..mechanics.hinge import led_m
from ..mechanics.thinning import Folding, Thinning, thinned
from ..tree.timber import break_base_deg
from .case import Case, Parts


def thinning_of(case: Case, parts: Parts) -> Thinning:
    """The thinner hinge on which the tree goes with the wedges that are placed; nothing where it goes as it is."""
    seats = parts.wedging.seats
    bring = min((math.atan(seat.available_m / seat.arm_m) for seat in seats), default=0.0)
    if not seats or parts.wedging.tilt_deg <= math.degrees(bring):
        return Thinning(None)
    cut, constants = case.cut, case.constants
    mass = parts.mass
    of = Folding(
        geometry=parts.hinge,
        strength=parts.strength,
        use=parts.use,
        tipping=(mass.bent_toppling_Nm, mass.weight_N * led_m(mass, parts.hinge)[0], parts.loads.forward_Nm),
        weight_N=mass.weight_N,
        step_m=cut.back.step_m,
        diameter_m=parts.section.diameter_m,
        base_deg=break_base_deg(case.tree, case.wood, constants),
        until_deg=min(parts.face.closing_angle_deg, parts.use.needed_tilt_deg),
    )
    wedges = np.array([(seat.available_m, seat.arm_m) for seat in seats]).T
    return thinned(of, (wedges[0], wedges[1]), case.practice.hinge_least_m, constants)


def driving_of(case: Case, parts: Parts) -> tuple[DrivenTo, ...]:
    """How far the top should have moved at each lift of the seat that is shortest of lift."""
    shortest = parts.wedging.shortest
    if not parts.wedging.wanted or shortest is None:
        return ()
    return driving_table(shortest.lift_m, shortest.arm_m, case.tree.height_m - case.cut.height_m)
