"""What is told of a tree that wedges must bring over: the hinge that would go, and the driving table."""

from __future__ import annotations

import numpy as np

from ..base.frozen import changed
from ..mechanics.driving import DrivenTo, driving_table
from ..mechanics.hinge import led_m
from ..mechanics.thinning import Folding, Thinning, thinned
from ..tree.timber import break_base_deg
from .case import Case, Parts

NONE_THINNED = 0.98
"""Share of its thickness from which a hinge is told as it is."""


def thinning_of(case: Case, parts: Parts) -> Thinning:
    """The thinner hinge on which the tree goes on the way that is told; nothing where that thins none."""
    plan = parts.wedge_plan
    if not (parts.needs_wedges and parts.wedging.seats and plan.thins):
        return Thinning(None)
    cut, constants, mass = case.cut, case.constants, parts.mass
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
    arm_m = plan.arm_m - parts.hinge.thickness_m * (1.0 - plan.share) / 2
    found = thinned(of, (np.array([plan.have_m]), np.array([arm_m])), case.practice.hinge_least_m, constants)
    if found.to_m is not None and found.to_m > NONE_THINNED * parts.hinge.reach_m:
        return Thinning(None)
    too_far = found.to_m is not None and found.to_m < plan.share * parts.hinge.reach_m - 1e-4
    return changed(found, refused="least") if too_far and not found.refused else found


def thin_share(case: Case, parts: Parts) -> float:
    """Share of its thickness that is left of the hinge when the tree goes on the way that is told; 1 as it is cut."""
    to_m = thinning_of(case, parts).allowed_m
    return 1.0 if to_m is None else min(max(to_m / max(parts.hinge.reach_m, 1e-4), parts.wedge_plan.share), 1.0)


def driving_of(case: Case, parts: Parts) -> tuple[DrivenTo, ...]:
    """How far the top should have moved at each lift, up to the one at which it goes on the way that is told."""
    plan = parts.wedge_plan
    if not parts.wedging.wanted or not parts.wedging.seats:
        return ()
    return driving_table(min(plan.lift_m, plan.have_m), plan.arm_m, case.tree.height_m - case.cut.height_m)
