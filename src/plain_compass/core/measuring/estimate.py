"""Values with a spread: how spread passes through a formula, and how several readings become one."""

from __future__ import annotations

import math
import statistics
from collections.abc import Callable, Mapping

from ..base.errors import InputError
from ..base.frozen import dataclass

RELATIVE_STEP = 1e-5
"""Step of the central difference: its error and that of rounding are alike small here."""
OUTLIER_SPREADS = 3.0
"""A reading further from the others than three spreads is a slip, not scatter."""
MAD_TO_SPREAD = 1.4826
"""Median absolute deviation of a normal sample times this is its standard deviation."""


@dataclass(frozen=True, slots=True)
class Reading:
    """One measured input of a formula: its value and its spread (one standard deviation), same unit."""

    value: float
    spread: float


@dataclass(frozen=True, slots=True)
class Estimate:
    """A result with its spread.

    Attributes:
        value, spread: in the unit of what is measured; the spread is one standard deviation.
        shares: for each input by name, the share of the variance that comes from it; they add up to 1.
    """

    value: float
    spread: float
    shares: tuple[tuple[str, float], ...] = ()

    @property
    def driver(self) -> str:
        """The input whose better measuring would help most; empty when nothing is spread."""
        return max(self.shares, key=lambda share: share[1])[0] if self.shares and self.spread > 0 else ""


def propagated(formula: Callable[..., float], inputs: Mapping[str, Reading]) -> Estimate:
    """Pass the spreads of independent inputs through a formula, to first order.

    The derivative by each input is a central difference. Source: law of propagation of uncertainty (the
    first-order rule of the Guide to the Expression of Uncertainty in Measurement), inputs uncorrelated.

    Raises InputError when the formula has no finite value there.
    """
    values = {name: each.value for name, each in inputs.items()}
    value = formula(**values)
    if not math.isfinite(value):
        raise InputError(next(iter(inputs)), next(iter(values.values())), reason="these readings give no finite result")
    parts: list[tuple[str, float]] = []
    for name, each in inputs.items():
        step = max(abs(each.value), 1.0) * RELATIVE_STEP
        above, below = (formula(**(values | {name: each.value + s})) for s in (step, -step))
        parts.append((name, ((above - below) / (2 * step) * each.spread) ** 2))
    variance = sum(part for _, part in parts)
    shares = tuple((name, part / variance if variance > 0 else 0.0) for name, part in parts)
    return Estimate(value, math.sqrt(variance), shares)


@dataclass(frozen=True, slots=True)
class Averaged:
    """Several readings of one thing.

    Attributes:
        estimate: the weighted mean of the readings that agree.
        outliers: positions of the readings left out, for showing.
    """

    estimate: Estimate
    outliers: tuple[int, ...]


def averaged(readings: tuple[Reading, ...]) -> Averaged:
    """Average readings by the inverse of their variance, leaving out what stands far off the others.

    A reading is an outlier when it is further from the median than three of the larger of its own spread and
    the readings' common spread (median absolute deviation); with fewer than three readings none is. The spread of
    the mean is the larger of what the readings' own spreads give and what their scatter gives.

    Raises InputError when there is no reading.
    """
    if not readings:
        raise InputError("readings", "empty", reason="there is nothing to average")
    values = [reading.value for reading in readings]
    middle = statistics.median(values)
    common = MAD_TO_SPREAD * statistics.median(abs(value - middle) for value in values)
    outliers = tuple(
        index
        for index, reading in enumerate(readings)
        if len(readings) >= 3 and abs(reading.value - middle) > OUTLIER_SPREADS * max(reading.spread, common)
    )
    kept = [reading for index, reading in enumerate(readings) if index not in outliers]
    return Averaged(weighted_mean(kept), outliers)


def weighted_mean(kept: list[Reading]) -> Estimate:
    """Mean by the inverse of the variance; readings without spread count alone."""
    if any(reading.spread <= 0 for reading in kept):
        exact = [reading.value for reading in kept if reading.spread <= 0]
        return Estimate(
            statistics.fmean(exact), statistics.stdev(exact) / math.sqrt(len(exact)) if len(exact) > 1 else 0.0
        )
    weights = [reading.spread**-2 for reading in kept]
    total = sum(weights)
    mean = sum(weight * reading.value for weight, reading in zip(weights, kept, strict=True)) / total
    scatter = sum(w * (reading.value - mean) ** 2 for w, reading in zip(weights, kept, strict=True))
    birge = math.sqrt(max(scatter / (len(kept) - 1), 1.0)) if len(kept) > 1 else 1.0
    return Estimate(mean, birge / math.sqrt(total))


def require_positive(name: str, value: float, kind: str) -> None:
    """Raise InputError, naming the input, unless it is a finite length greater than nothing."""
    if not (math.isfinite(value) and value > 0):
        raise InputError(name, value, kind=kind, low=0.001, reason="it must be a length greater than nothing")


def tan_deg(angle_deg: float) -> float:
    """Tangent of an angle in degrees."""
    return math.tan(math.radians(angle_deg))
