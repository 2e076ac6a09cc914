"""Girth and diameter, over and under bark, and stems that are not round."""

from __future__ import annotations

import math

from ..base.errors import InputError
from ..base.quantity import Kind
from .estimate import Estimate, Reading, propagated, require_positive


def diameter_from_girth(girth_m: Reading) -> Estimate:
    """Diameter of a round stem from its girth. On a stem that is not round it comes out a little large."""
    require_positive("girth", girth_m.value, "girth")
    return propagated(lambda girth: girth / math.pi, {"girth": girth_m})


def girth_from_diameter(diameter_m: Reading) -> Estimate:
    """Girth of a round stem from its diameter."""
    require_positive("diameter", diameter_m.value, "girth")
    return propagated(lambda diameter: diameter * math.pi, {"diameter": diameter_m})


def under_bark(diameter_m: Reading, bark_m: Reading) -> Estimate:
    """Diameter of the wood: bark is taken off on both sides. Raises InputError when bark would fill the stem."""
    require_positive("diameter", diameter_m.value, "girth")
    if not 0 <= bark_m.value < diameter_m.value / 2:
        raise InputError("bark", bark_m.value, kind=Kind.LENGTH, low=0.0, high=diameter_m.value / 2)
    return propagated(lambda diameter, bark: diameter - 2 * bark, {"diameter": diameter_m, "bark": bark_m})


def mean_diameter(first_m: Reading, second_m: Reading) -> Estimate:
    """One diameter for two at right angles: that of the circle of the same area as their ellipse."""
    require_positive("first", first_m.value, "girth")
    require_positive("second", second_m.value, "girth")
    return propagated(lambda first, second: math.sqrt(first * second), {"first": first_m, "second": second_m})


def ellipse_girth_m(first_m: float, second_m: float) -> float:
    """Girth of an elliptical stem from two diameters. Source: Ramanujan's second approximation."""
    a, b = first_m / 2, second_m / 2
    h = ((a - b) / (a + b)) ** 2
    return math.pi * (a + b) * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h)))
