"""What the drawings of the standing tree are handed beside the assessment: spreads and what follows from them."""

from __future__ import annotations

from dataclasses import field

from ....core.advice.centre import CentreSpread
from ....core.base.frozen import dataclass


@dataclass(frozen=True, slots=True)
class Surveyed:
    """Spreads of one tree.

    Attributes:
        spreads: spread of each measured input by path.
        centre: where the centre of mass is, and how well that is known.
        worst: path of the input most worth measuring better; empty when not reckoned or none.
        readings: (value, left out) of the raw readings by path.
        leans: (angle, bearing, left out) of the raw lean readings.
    """

    spreads: dict[str, float]
    centre: CentreSpread
    worst: str = ""
    readings: dict[str, tuple[tuple[float, bool], ...]] = field(default_factory=dict)
    leans: tuple[tuple[float, float, bool], ...] = ()

    def spread(self, path: str) -> float:
        """Spread of one input; nothing where it has none."""
        return self.spreads.get(path, 0.0)
