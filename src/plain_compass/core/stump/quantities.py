"""Every quantity that stumps teach something of: the fact it is read from, what was shipped, what is known now."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.quantity import Kind
from ..tree.wood import SPLITTING_CLASSES, SUPPLENESS_CLASSES
from .factors import PRIOR, RECORD_SPREAD, Factor, factor_of, split_factor_of
from .facts import NAMES
from .hand import AIM, BLOWS, HEIGHT, LEAN, LEFT, LIFT, RIGHT, SPLIT, TIME, Used
from .learning import Learned, learned

DEPTH, STEP = "depth", "step"
OUTLIER = 3.5
"""Deviations from the median, in its own scaled median deviation, past which a record is marked."""
LEAST_MARKED = 5
"""Fewer records have no pattern from which one could stand out."""
SCALED = 1.4826
"""Median deviation of a normal variable -> its standard deviation."""
_PRIOR = RECORD_SPREAD / math.sqrt(PRIOR)
"""Spread of the logarithm of a factor that nothing is known of."""
LEAST_SLOPE = 0.05
"""A record that hardly follows its constant tells nothing of it."""


@dataclass(frozen=True, slots=True, eq=False)
class Records:
    """What a log says: a row an entry, in the order in which they were taken in.

    Attributes:
        numbers: of the entries, shape (n,); days as text, by row.
        facts: by the order of ``facts.NAMES``, not a number where there is none, shape (n, facts).
        kinds: number of the kind of tree and of measuring of each, shape (n,).
        classes: ``splits``, ``supple``, ``height_by``, ``lean_by`` -> which it is, by the number of the kind.
        left_out: quantity -> numbers of entries that are not to count for it.
    """

    numbers: NDArray[np.int64]
    days: Sequence[str]
    facts: Array
    kinds: NDArray[np.intp]
    classes: Mapping[str, Sequence[str]]
    left_out: Mapping[str, frozenset[int]]

    def fact(self, name: str) -> Array:
        """One of the facts, shape (n,)."""
        found: Array = self.facts[:, NAMES.index(name)]
        return found

    def first(self, count: int) -> Records:
        """Only the first of them."""
        return replace(
            self,
            numbers=self.numbers[:count],
            days=self.days[:count],
            facts=self.facts[:count],
            kinds=self.kinds[:count],
        )


@dataclass(frozen=True, slots=True)
class Shipped:
    """What is taken where nothing is known, in the quantity's own unit.

    Attributes:
        aim_deg, depth_m, step_m: spreads.
        hinge_m, hinge_share: at either end of the hinge the larger of this and of this share of its thickness.
        height: spread as a share, by way; lean_deg: by way.
    """

    aim_deg: float
    depth_m: float
    step_m: float
    hinge_m: float
    hinge_share: float
    height: float
    lean_deg: Mapping[str, float]


@dataclass(frozen=True, slots=True, eq=False)
class Known:
    """One quantity and what is known of it.

    Attributes:
        key: as in ``hand.Used``; kind: how its values are shown.
        values: of every record that says something of it, shape (n,); rows: which rows of the records these are.
        out: which of them are left out; marked: which stand out from the others, shapes (n,).
        shipped: spread of what is shipped; of a factor that of its logarithm.
        normal: posterior of a quantity that scatters about its mean; factor: of a factor. One of them is None.
    """

    key: str
    kind: Kind
    values: Array
    rows: NDArray[np.intp]
    out: NDArray[np.bool_]
    marked: NDArray[np.bool_]
    shipped: float
    normal: Learned | None = None
    factor: Factor | None = None

    @property
    def count(self) -> int:
        """Records that count."""
        return int((~self.out).sum())

    def used(self, faller: str) -> Used:
        """As it would be used in plans."""
        if self.normal is not None:
            return Used(self.key, faller, self.count, self.normal.mean, self.normal.next_spread)
        assert self.factor is not None
        return Used(self.key, faller, self.count, self.factor.value, 0.0)


def known_of(records: Records, shipped: Shipped) -> tuple[Known, ...]:
    """Every quantity that the records say something of, and the cutter's own even where they say nothing."""
    thick = records.fact("thick_m")
    thick_m = float(np.nanmean(thick)) if np.isfinite(thick).any() else shipped.hinge_m / shipped.hinge_share
    hinge_m = max(shipped.hinge_m, shipped.hinge_share * thick_m)
    found = [
        _normal(records, AIM, Kind.ASIDE, records.fact("aim_deg"), shipped.aim_deg),
        _normal(records, LEFT, Kind.FINE_LENGTH, records.fact("left_m"), hinge_m),
        _normal(records, RIGHT, Kind.FINE_LENGTH, records.fact("right_m"), hinge_m),
        _normal(records, DEPTH, Kind.FINE_LENGTH, records.fact("depth_m"), shipped.depth_m),
        _normal(records, STEP, Kind.FINE_LENGTH, records.fact("step_m"), shipped.step_m),
    ]
    for way in _there(records, "height_by", "height_share"):
        values = _only(records, "height_by", way, records.fact("height_share"))
        found.append(_normal(records, f"{HEIGHT}:{way}", Kind.RATIO, values, shipped.height))
    for way in _there(records, "lean_by", "lean_deg"):
        values = _only(records, "lean_by", way, records.fact("lean_deg"))
        spread = shipped.lean_deg.get(way, shipped.lean_deg["unknown"])
        found.append(_normal(records, f"{LEAN}:{way}", Kind.ANGLE, values, spread))
    found += [_factor(records, BLOWS, "blows_ln"), _factor(records, TIME, "time_ln")]
    found += [_lift(records, each) for each in SUPPLENESS_CLASSES if each in _there(records, "supple", "lift_ln")]
    found += [_split(records, each) for each in SPLITTING_CLASSES if each in _there(records, "splits", "split_ln")]
    return tuple(found)


def after_each(known: Known, most: int) -> list[Learned]:
    """What was known of a quantity after each of its newest records; nothing of a factor."""
    if known.normal is None:
        return []
    count = len(known.values)
    upto = range(max(count - most, 0) + 1, count + 1)
    return [learned(known.values[:end][~known.out[:end]], 0.0, known.shipped) for end in upto]


def _there(records: Records, column: str, fact: str) -> tuple[str, ...]:
    """Classes of which some record says something, in order."""
    there = np.unique(records.kinds[np.isfinite(records.fact(fact))]).tolist()
    return tuple(sorted({records.classes[column][kind] for kind in there}))


def _only(records: Records, column: str, wanted: str, values: Array) -> Array:
    is_wanted = np.array([each == wanted for each in records.classes[column]], dtype=np.bool_)
    found: Array = np.where(is_wanted[records.kinds], values, np.nan)
    return found


def _picked(records: Records, key: str, values: Array) -> tuple[Array, NDArray[np.intp], NDArray[np.bool_]]:
    """(values, their rows, which of them are left out)."""
    rows = np.flatnonzero(np.isfinite(values))
    left = records.left_out.get(key, frozenset())
    out = np.isin(records.numbers[rows], list(left)) if left else np.zeros(len(rows), dtype=np.bool_)
    return values[rows], rows, out


def _marked(values: Array) -> NDArray[np.bool_]:
    """Which records stand out, by the median and its deviation, which no single record can move."""
    if len(values) < LEAST_MARKED:
        return np.zeros(len(values), dtype=np.bool_)
    away = np.abs(values - np.median(values))
    scale = SCALED * float(np.median(away))
    return np.asarray(away > OUTLIER * scale) if scale > 0 else np.zeros(len(values), dtype=np.bool_)


def _normal(records: Records, key: str, kind: Kind, values: Array, shipped: float) -> Known:
    said, rows, out = _picked(records, key, values)
    return Known(key, kind, said, rows, out, _marked(said), shipped, normal=learned(said[~out], 0.0, shipped))


def _factor(records: Records, key: str, fact: str) -> Known:
    """A factor of which every record tells the logarithm itself."""
    said, rows, out = _picked(records, key, records.fact(fact))
    return Known(key, Kind.NUMBER, said, rows, out, _marked(said), _PRIOR, factor=factor_of(said[~out]))


def _lift(records: Records, supple: str) -> Known:
    slopes = records.fact("lift_slope")
    telling = np.where(np.abs(slopes) >= LEAST_SLOPE, _only(records, "supple", supple, records.fact("lift_ln")), np.nan)
    said, rows, out = _picked(records, f"{LIFT}:{supple}", telling)
    found = factor_of(said[~out], slopes[rows][~out])
    return Known(f"{LIFT}:{supple}", Kind.NUMBER, said / slopes[rows], rows, out, _marked(said), _PRIOR, factor=found)


def _split(records: Records, splits: str) -> Known:
    values = _only(records, "splits", splits, records.fact("split_ln"))
    key = f"{SPLIT}:{splits}"
    said, rows, out = _picked(records, key, values)
    found = split_factor_of(said[~out], records.fact("split")[rows][~out])
    return Known(key, Kind.NUMBER, said, rows, out, np.zeros(len(said), dtype=np.bool_), _PRIOR, factor=found)
