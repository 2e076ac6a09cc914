"""The crown from above, (forward, left) in metres from the stem's base, the lay up the page."""

from __future__ import annotations

import math

import numpy as np

from ....core.assess import Assessment
from ....core.base.frames import full_turn_deg, half_turn_deg, rotated, to_tree
from ....core.base.frozen import dataclass
from ....core.base.polygon import Array
from ....core.tree.crown import crown_outline


@dataclass(frozen=True, slots=True, eq=False)
class CrownShapes:
    """What stands over the stump.

    Attributes:
        outline: crown edge, shape (360, 2); reach_m: its furthest point from the base.
        sectors: (state, outline from the base) of every part that is not live.
        second_top: end of a second stem; None without one.
        pith: the pith at the cut from the base.
    """

    outline: Array
    reach_m: float
    sectors: tuple[tuple[str, Array], ...]
    second_top: tuple[float, float] | None
    pith: tuple[float, float]


def crown_shapes(result: Assessment) -> CrownShapes:
    """Make them."""
    tree, cut = result.case.tree, result.case.cut
    outline = crown_on_lay(result)
    top = None
    if tree.fork.kind == "second":
        reach = math.tan(math.radians(tree.fork.lean_deg)) * (tree.fork.top_m - tree.fork.height_m)
        top = to_tree(tree.fork.bearing_deg, reach, cut.gun_deg)
    leaned = math.tan(math.radians(tree.lean.angle_deg)) * cut.height_m
    return CrownShapes(
        outline=outline,
        reach_m=float(np.hypot(*outline.T).max()),
        sectors=_sectors(result, outline),
        second_top=top,
        pith=to_tree(tree.lean.bearing_deg, leaned, cut.gun_deg),
    )


def crown_on_lay(result: Assessment) -> Array:
    """Crown edge from the stem base in the tree's frame, shape (360, 2)."""
    readings = result.case.tree.crown.readings
    return rotated(crown_outline(readings), readings[0].bearing_deg, result.case.cut.gun_deg)


def _sectors(result: Assessment, outline: Array) -> tuple[tuple[str, Array], ...]:
    """Each point of the edge belongs to the reading nearest in bearing; every part in order round the base."""
    readings, lay = result.case.tree.crown.readings, result.case.cut.gun_deg
    if all(reading.state == "live" for reading in readings):
        return ()
    bearing = lay - np.degrees(np.arctan2(outline[:, 1], outline[:, 0]))
    at = np.array([reading.bearing_deg for reading in readings])
    nearest = np.abs(half_turn_deg(bearing[:, None] - at[None, :])).argmin(axis=1)
    found = []
    for index, reading in enumerate(readings):
        edge = outline[nearest == index]
        if reading.state == "live" or len(edge) < 2:
            continue
        turn = lay - np.degrees(np.arctan2(edge[:, 1], edge[:, 0])) - reading.bearing_deg + 180
        found.append((reading.state, np.vstack([[[0.0, 0.0]], edge[np.argsort(full_turn_deg(turn))]])))
    return tuple(found)
