"""How well the centre of mass is known: the ellipse of its spread, seen from above."""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np

from ..base.errors import InputError
from ..base.frozen import dataclass
from ..base.polygon import Array
from ..mechanics.mass import tree_mass
from ..plan.case import Case
from ..tree.moved import moved

STEP = 0.25
"""Part of a spread by which an input is moved for its derivative."""


@dataclass(frozen=True, slots=True)
class CentreSpread:
    """Where the centre of mass is, and its one-spread ellipse from above.

    Attributes:
        forward_m, left_m, up_m: centre of mass from the pith at the cut.
        forward_spread_m, left_spread_m, up_spread_m: spread along each axis.
        long_m, short_m: half axes of the ellipse from above.
        turn_deg: angle of its long axis from forward towards left.
    """

    forward_m: float
    left_m: float
    up_m: float
    forward_spread_m: float
    left_spread_m: float
    up_spread_m: float
    long_m: float
    short_m: float
    turn_deg: float


def centre_spread(case: Case, spreads: Mapping[str, float]) -> CentreSpread:
    """Pass the spreads of the tree's measurements on to its centre of mass, to first order.

    Args:
        spreads: spread by dotted path from the case, such as ``tree.lean.angle_deg``.

    Source: law of propagation of uncertainty, inputs uncorrelated; half axes are the roots of the covariance's
    eigenvalues.
    """
    base = _centre(case, None, 0.0)
    covariance = np.zeros((3, 3))
    for path, spread in spreads.items():
        gain = _gain(case, base, path, spread)
        covariance += np.outer(gain, gain)
    values, vectors = np.linalg.eigh(covariance[:2, :2])
    along, left, up = (math.sqrt(max(float(covariance[i, i]), 0.0)) for i in range(3))
    return CentreSpread(
        forward_m=float(base[0]),
        left_m=float(base[1]),
        up_m=float(base[2]),
        forward_spread_m=along,
        left_spread_m=left,
        up_spread_m=up,
        long_m=math.sqrt(max(float(values[1]), 0.0)),
        short_m=math.sqrt(max(float(values[0]), 0.0)),
        turn_deg=math.degrees(math.atan2(float(vectors[1, 1]), float(vectors[0, 1]))),
    )


def _gain(case: Case, base: Array, path: str, spread: float) -> Array:
    """How far one spread of an input moves the centre, shape (3,); by a small step up, or down where up will not do."""
    for step in (STEP, -STEP):
        try:
            return (_centre(case, path, step * spread) - base) / step
        except InputError:
            continue
    return np.zeros(3)


def _centre(case: Case, path: str | None, change: float) -> Array:
    tree = case.tree
    if path is not None:
        tree = moved(tree, path.removeprefix("tree."), change)
    mass = tree_mass(tree, case.wood, case.cut, case.constants)
    return np.array([mass.com_forward_m, mass.com_left_m, mass.com_up_m])
