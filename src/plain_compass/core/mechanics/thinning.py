"""A hinge that holds too long: how thin it must be for the wedges at hand, and how thin it may be made.

Thinning ends where the hinge is half of what it was, at the practice's least, or where the side weight would take it
(judgement): ``thinnest_shares``.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import limited
from ..tree.timber import Timbers
from ..tree.wood import Indicative
from .hinge import HingeGeometry, HingeStrength, break_angles_deg
from .law import HingeLaw, Tipping, spare_Nm
from .stump import Stumps
from .use import CURVE_TILTS_DEG, HingeUse

THIN_SHARE = 0.5
"""Share of its thickness below which nobody thins a hinge on a standing tree (judgement)."""
THIN_SIDE_USE = 0.9
"""Most of a thinned hinge that the side weight may take."""
SHARES: Array = np.linspace(0.05, 1.0, 40)
"""Thicknesses that are tried, over the one there is; thinner it is cut through. Tried again between the last that goes
and the first that holds."""


@dataclass(frozen=True)
class Thinning:
    """What thinning would do.

    Attributes:
        to_m: thickness, between that of its ends, at which the tree goes with the wedges there are; none where thinning
            does not do it.
        refused: why it may not be thinned so far: ``side`` where it could not carry the side weight, ``least`` where
            the practice leaves more; empty where it may.
    """

    to_m: float | None
    refused: str = ""

    @property
    def allowed_m(self) -> float | None:
        """Thickness to which it may be thinned; none where thinning does not do it, or something speaks against it."""
        return None if self.refused else self.to_m


class Folding(NamedTuple):
    """One hinge as it folds, in plain numbers.

    Attributes:
        geometry, strength, use: of the hinge as it is.
        tipping: m g Z of the bent stem, m g X and what else pulls, in Nm.
        weight_N: of the tree.
        step_m, diameter_m, base_deg: as of ``break_angles_deg``.
        until_deg: tilt up to which the hinge is needed, or the face shuts.
    """

    geometry: HingeGeometry
    strength: HingeStrength
    use: HingeUse
    tipping: tuple[float, float, float]
    weight_N: float
    step_m: float
    diameter_m: float
    base_deg: float
    until_deg: float


def thinned(of: Folding, wedges: tuple[Array, Array], least_m: float, constants: Indicative) -> Thinning:
    """Largest thickness at which the tree goes where its wedges can bring it.

    The hinge is thinned from behind, its line of fold moving forward with it, away from the wedges.

    Args:
        wedges: (lift they have, arm of each), shapes (s,).
        least_m: thinnest hinge of the practice.
    """
    share, shares = 0.0, SHARES
    for _ in range(2):
        law, load, brought = _thinner(of, shares, wedges, constants)
        from_rad = np.maximum(brought - np.radians(constants.tip_margin_deg), 0.0)
        goes = spare_Nm(law, load, from_rad) > 0
        if not goes[0]:
            return Thinning(None)
        last = len(shares) - 1 if goes.all() else int(goes.argmin()) - 1
        share, above = float(shares[last]), float(shares[min(last + 1, len(shares) - 1)])
        shares = np.linspace(share, above, len(SHARES))
    to_m = share * of.geometry.reach_m
    return Thinning(to_m, _refused(of, share, to_m, least_m, constants))


def _thinner(
    of: Folding, shares: Array, wedges: tuple[Array, Array], constants: Indicative
) -> tuple[HingeLaw, Tipping, Array]:
    """The law of hinges of these shares of the thickness, what tips the tree on them, and where wedges bring it."""
    strength, thick = of.strength, of.geometry.thickness_m
    factor = constants.hinge_length_factor
    shorter = (factor * thick + of.step_m) / (factor * thick * shares + of.step_m)
    toppling, ahead, steady = of.tipping
    ones = np.ones(len(shares))
    law = HingeLaw(
        stiffness_Nm=strength.holding * strength.stiffness_Nm * shares**3 * shorter,
        peak_Nm=strength.holding * strength.peak_Nm * shares**2,
        break_rad=np.radians(_breaks_deg(of, shares, constants)),
        peaks_at=strength.peaks_at * ones,
        softens_over=strength.softens_over * ones,
        tail=strength.tail * ones,
    )
    forward_m = thick * (1.0 - shares) / 2
    lifts, arms = wedges
    brought = np.arctan((lifts / (arms + forward_m[:, None])).min(axis=1))
    return law, Tipping(toppling * ones, ahead - of.weight_N * forward_m, steady * ones), brought


def _breaks_deg(of: Folding, shares: Array, constants: Indicative) -> Array:
    thick = of.geometry.thickness_m * shares
    return break_angles_deg(thick, of.step_m, of.diameter_m, of.base_deg, constants)


def _refused(of: Folding, share: float, to_m: float, least_m: float, constants: Indicative) -> str:
    fibres = (CURVE_TILTS_DEG / of.strength.break_angle_deg) ** 2
    thinner = (CURVE_TILTS_DEG / float(_breaks_deg(of, np.array([share]), constants)[0])) ** 2
    side = (of.use.use - fibres) / share + thinner
    if float(side[of.until_deg >= CURVE_TILTS_DEG].max(initial=0.0)) >= 1.0:
        return "side"
    return "least" if to_m < least_m else ""


class Thinnest(NamedTuple):
    """B hinges thinned as far as they may be.

    Attributes:
        share: of their thickness, 1 where they may not be thinned, shape (B,).
        forward_m: how far that moves the line they fold about.
        law, load: how they resist then, and what tips the trees over them.
    """

    share: Array
    forward_m: Array
    law: HingeLaw
    load: Tipping


def thinnest_shares(stumps: Stumps, use: HingeUse[Array], least_m: Array) -> Array:
    """Share of its thickness to which each hinge may be thinned, 1 where it may not, shape (B,).

    What the side weight takes grows as the hinge gets thinner, what its folding takes does not: so that
    takes/share + folds stays within ``THIN_SIDE_USE``.

    Args:
        least_m: the thinnest end each practice leaves.
    """
    designs = stumps.designs
    thin = np.minimum(designs.left_m, designs.right_m)
    last = np.minimum(stumps.face.closing_angle_deg, use.needed_tilt_deg)
    folds = np.minimum((last / stumps.strength.break_angle_deg) ** 2, THIN_SIDE_USE - 0.05)
    takes = np.maximum(use.side_utilisation - folds, 0.0)
    share = np.maximum(takes / (THIN_SIDE_USE - folds), THIN_SHARE)
    return limited(np.maximum(share, least_m / np.maximum(thin, 1e-4)), 0.0, 1.0)


def thinned_hinges(stumps: Stumps, timbers: Timbers, load: Tipping, share: Array, weight_N: Array) -> Thinnest:
    """The law of hinges thinned from behind to a share of their thickness, and what tips the trees over them.

    K goes as t^3 over the fibre's length, M_u as t^2; the line of fold moves forward by half of what is taken away.
    """
    strength, thick, step, constants = (
        stumps.strength,
        stumps.hinge.thickness_m,
        stumps.designs.step_m,
        timbers.constants,
    )
    factor, law = constants.hinge_length_factor, strength.holding_law
    shorter = (factor * thick + step) / np.maximum(factor * thick * share + step, 1e-6)
    base, diameter = timbers.break_base_deg, stumps.sections.diameter_m
    thinner = HingeLaw(
        stiffness_Nm=law.stiffness_Nm * share**3 * shorter,
        peak_Nm=law.peak_Nm * share**2,
        break_rad=np.radians(break_angles_deg(thick * share, step, diameter, base, constants)),
        peaks_at=law.peaks_at,
        softens_over=law.softens_over,
        tail=law.tail,
    )
    forward = thick * (1.0 - share) / 2
    return Thinnest(share, forward, thinner, load._replace(ahead_Nm=load.ahead_Nm - weight_N * forward))
