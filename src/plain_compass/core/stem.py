"""The stem as a body of revolution: taper, mass, centre, inertia, all in closed form."""

from __future__ import annotations

import math

from .body import Body
from .frames import to_tree
from .tree import Lean, Trunk


def profile_ratio(height_m: float, reference_m: float, tree_height_m: float, exponent: float) -> float:
    """Diameter at a height over the diameter at the reference height: ((H-h)/(H-h_ref))^p.

    Source: the power-law taper of forest mensuration; p = 1 is a cone, 0.7 suits conifers.
    """
    return float(((tree_height_m - height_m) / (tree_height_m - reference_m)) ** exponent)


def stem_body(
    trunk: Trunk, lean: Lean, *, cut_m: float, height_m: float, lay_deg: float, exponent: float, density_kg_m3: float
) -> Body:
    """The stem above the cut.

    With x = H - h and u = H - h_cut the section area goes as x^(2p), so that volume is A u^(2p+1)/(2p+1),
    the centre stands u/(2p+2) above the cut and the mean of (h - h_cut)^2 is
    u^2 (2p+1) (1/(2p+1) - 2/(2p+2) + 1/(2p+3)). The same mean places a parabolic sweep sideways.
    """
    p = exponent
    above = height_m - cut_m
    cross = trunk.cross_diameter_m or trunk.diameter_m
    area_scale = math.pi / 4 * trunk.diameter_m * cross / (height_m - trunk.at_m) ** (2 * p)
    mass = density_kg_m3 * area_scale * above ** (2 * p + 1) / (2 * p + 1)
    up = above / (2 * p + 2)
    mean_square = (2 * p + 1) * (1 / (2 * p + 1) - 2 / (2 * p + 2) + 1 / (2 * p + 3))
    lean_f, lean_l = to_tree(lean.bearing_deg, math.tan(math.radians(lean.angle_deg)) * up, lay_deg)
    sweep_f, sweep_l = to_tree(lean.sweep_bearing_deg, lean.sweep_m * mean_square, lay_deg)
    return Body(mass, up, lean_f + sweep_f, lean_l + sweep_l, mass * mean_square * above**2)


def axis_at(lean: Lean, height_m: float, *, cut_m: float, tree_height_m: float, lay_deg: float) -> tuple[float, float]:
    """(forward_m, left_m) of the stem's axis at a height, from the pith at the cut: lean plus parabolic sweep."""
    above = height_m - cut_m
    lean_f, lean_l = to_tree(lean.bearing_deg, math.tan(math.radians(lean.angle_deg)) * above, lay_deg)
    share = max(above, 0.0) / (tree_height_m - cut_m)
    sweep_f, sweep_l = to_tree(lean.sweep_bearing_deg, lean.sweep_m * share**2, lay_deg)
    return lean_f + sweep_f, lean_l + sweep_l
