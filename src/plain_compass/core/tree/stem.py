"""The stem as a body of revolution: taper, mass, centre, inertia, all in closed form."""

from __future__ import annotations

import math

import numpy as np

from ..base.frames import to_tree
from ..base.polygon import Array
from .body import AboveCut, Body, taper
from .tree import Lean, Trunk


def profile_ratio(height_m: float, reference_m: float, tree_height_m: float, exponent: float) -> float:
    """Diameter at a height over the diameter at the reference height: ((H-h)/(H-h_ref))^p.

    Source: the power-law taper of forest mensuration; p = 1 is a cone, 0.7 suits conifers.
    """
    return float(((tree_height_m - height_m) / (tree_height_m - reference_m)) ** exponent)


def diameters_m(trunk: Trunk, heights_m: Array, tree_height_m: float, exponent: float) -> Array:
    """Diameter over bark at heights, shape as given, by the same taper; without the butt's swell."""
    share = np.clip((tree_height_m - heights_m) / (tree_height_m - trunk.at_m), 0.0, None)
    found: Array = trunk.diameter_m * share**exponent
    return found


def stem_body(trunk: Trunk, lean: Lean, over: AboveCut, *, exponent: float, density_kg_m3: float) -> Body:
    """The stem above the cut, by the closed forms of its taper. Their mean square places a parabolic sweep sideways."""
    cut_m, height_m, lay_deg = over.cut_m, over.height_m, over.lay_deg
    form, above = taper(exponent), height_m - cut_m
    cross = trunk.cross_diameter_m or trunk.diameter_m
    base_m2 = math.pi / 4 * trunk.diameter_m * cross * profile_ratio(cut_m, trunk.at_m, height_m, exponent) ** 2
    mass = density_kg_m3 * base_m2 * above * form.volume
    up = above * form.centre
    lean_f, lean_l = to_tree(lean.bearing_deg, math.tan(math.radians(lean.angle_deg)) * up, lay_deg)
    sweep_f, sweep_l = to_tree(lean.sweep_bearing_deg, lean.sweep_m * form.mean_square, lay_deg)
    return Body(mass, up, lean_f + sweep_f, lean_l + sweep_l, mass * form.mean_square * above**2)


def axis_at(lean: Lean, height_m: float, *, cut_m: float, tree_height_m: float, lay_deg: float) -> tuple[float, float]:
    """(forward_m, left_m) of the stem's axis at a height, from the pith at the cut: lean plus parabolic sweep."""
    above = height_m - cut_m
    lean_f, lean_l = to_tree(lean.bearing_deg, math.tan(math.radians(lean.angle_deg)) * above, lay_deg)
    share = max(above, 0.0) / (tree_height_m - cut_m)
    sweep_f, sweep_l = to_tree(lean.sweep_bearing_deg, lean.sweep_m * share**2, lay_deg)
    return lean_f + sweep_f, lean_l + sweep_l
