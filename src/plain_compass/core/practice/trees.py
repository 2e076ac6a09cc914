"""Made-up trees to look at: a seed and a level give one, harder levels what hides the truth from the eye."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from ..base.frames import full_turn_deg, half_turn_deg
from ..base.frozen import dataclass
from ..tree.around import ABOVE, LEAVE, LIFE, Around
from ..tree.limbs import Fork
from ..tree.tree import Crown, CrownReading, Decay, Lean, Tree, Trunk
from ..tree.wood import Wood

SECTORS_DEG = tuple(45.0 * n for n in range(8))
"""Bearings at which a made-up crown is paced: eight, so that one side can be another's."""
CROWN_MIDDLE = 0.4
"""Where the middle of a crown stands, from its base to its top."""
NOTHING: dict[str, Any] = {**dict.fromkeys((*ABOVE, *LIFE), "no"), **dict.fromkeys(LEAVE, "yes")}
ANSWERED = Around(**NOTHING)
"""All asked and looked at, nothing there: practice is about the tree."""


@dataclass(frozen=True, slots=True)
class Allowed:
    """What a level allows.

    Attributes:
        lean_deg: least and most lean; one_sided: how far a crown stands off its stem, as a share of its radius.
        sweep_share: bow of the stem as a share of its height; forks, dead: chances of a second stem, of a dead side.
    """

    lean_deg: tuple[float, float]
    one_sided: tuple[float, float]
    sweep_share: float = 0.0
    forks: float = 0.0
    dead: float = 0.0


BY_LEVEL = {
    1: Allowed((2.0, 8.0), (0.0, 0.15)),
    2: Allowed((1.0, 8.0), (0.1, 0.5), sweep_share=0.02),
    3: Allowed((0.0, 10.0), (0.2, 0.7), sweep_share=0.04, forks=0.25, dead=0.35),
}
"""Level -> what it allows; nothing else is ever drawn."""


def made_tree(woods: Sequence[Wood], level: int, random: np.random.Generator) -> Tree:
    """A standing tree, everything about it answered."""
    allowed = BY_LEVEL[level]
    wood = woods[int(random.integers(len(woods)))]
    diameter = round(float(random.uniform(0.22, 0.65)), 2)
    # Slender while young, stout when old.
    height = round(36.0 * (1.0 - math.exp(-3.2 * diameter)) * float(random.uniform(0.75, 1.15)), 1)
    base = round(height * float(random.uniform(0.2, 0.5)), 1)
    lean = Lean(
        round(float(random.uniform(*allowed.lean_deg)), 1),
        full_turn_deg(float(round(random.uniform(0.0, 360.0)))),
        "plumb",
        round(height * float(random.uniform(0.0, allowed.sweep_share)), 2),
        full_turn_deg(float(round(random.uniform(0.0, 360.0)))),
    )
    return Tree(
        species=wood.key,
        height_m=height,
        trunk=Trunk(diameter_m=diameter, bark_m=round(0.03 * diameter, 3)),
        crown=Crown(base_m=base, readings=_edges(wood, height, base, lean, allowed, random)),
        lean=lean,
        fork=_fork(diameter, height, base, allowed, random),
        decay=Decay(kind="none"),
        crack="none",
        around=ANSWERED,
    )


def _edges(
    wood: Wood, height: float, base: float, lean: Lean, allowed: Allowed, random: np.random.Generator
) -> tuple[CrownReading, ...]:
    """A crown that stands off its stem to one side, over a foot that the lean has left behind, a little ragged."""
    wide = (0.10 if wood.group == "conifer" else 0.18) * height * float(random.uniform(0.8, 1.2))
    off, side = wide * float(random.uniform(*allowed.one_sided)), float(random.uniform(0.0, 360.0))
    leaned = (base + CROWN_MIDDLE * (height - base)) * math.tan(math.radians(lean.angle_deg))
    is_dead = random.random() < allowed.dead
    dead_deg = SECTORS_DEG[int(random.integers(len(SECTORS_DEG)))]
    found = []
    for bearing in SECTORS_DEG:
        radius = wide * float(random.uniform(0.95, 1.05))
        radius += off * math.cos(math.radians(bearing - side))
        radius += leaned * math.cos(math.radians(bearing - lean.bearing_deg))
        state = "dead" if is_dead and abs(half_turn_deg(bearing - dead_deg)) <= SECTORS_DEG[1] else "live"
        found.append(CrownReading(bearing, max(round(radius, 2), 0.3), state))
    return tuple(found)


def _fork(diameter: float, height: float, base: float, allowed: Allowed, random: np.random.Generator) -> Fork:
    drawn = [float(random.uniform(0.0, 1.0)) for _ in range(4)]
    if drawn[0] >= allowed.forks:
        return Fork()
    return replace(
        Fork(),
        kind="second",
        union="wide",
        height_m=round(base * (0.5 + 0.5 * drawn[1]), 1),
        diameter_m=round(diameter * (0.35 + 0.2 * drawn[2]), 2),
        bearing_deg=full_turn_deg(float(round(360.0 * drawn[3]))),
        lean_deg=12.0,
        top_m=round(height * 0.85, 1),
    )
