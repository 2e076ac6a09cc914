"""Where a felled tree lies as far as it was read, metres east and north of its stump."""

from __future__ import annotations

import math

from ....core.base.frozen import dataclass
from ....core.plan.case import Case
from ....core.stump.as_cut import AsCut, miss_deg


@dataclass(frozen=True, slots=True)
class Lies:
    """Where top and butt lie, (east, north) from the stump, and whether that was read."""

    top_m: tuple[float, float]
    butt_m: tuple[float, float]
    top_read: bool
    butt_read: bool


def lies_of(planned: Case, as_cut: AsCut) -> Lies:
    """Where it lies; on its lay, and on its stump, where nobody said."""
    long_m = planned.tree.height_m - planned.cut.height_m
    missed = miss_deg(planned.cut, as_cut, long_m)
    away = long_m if as_cut.top_m is None else as_cut.top_m
    butt = (0.0, 0.0) if as_cut.butt_m is None else _place(as_cut.butt_deg or 0.0, as_cut.butt_m)
    top = _place(planned.cut.lay_deg - (missed or 0.0), away)
    return Lies(top, butt, missed is not None, as_cut.butt_m is not None)


def _place(bearing_deg: float, away_m: float) -> tuple[float, float]:
    turn = math.radians(bearing_deg)
    return away_m * math.sin(turn), away_m * math.cos(turn)
