"""Rigid parts of a tree, placed from the pith at the cut, and how they add up."""

from __future__ import annotations

from ..base.frozen import dataclass


@dataclass(frozen=True, slots=True)
class Body:
    """A rigid part of the tree, placed from the pith at the cut.

    Attributes:
        mass_kg: mass.
        up_m, forward_m, left_m: centre of mass above the cut, along the lay and left of it.
        second_up_kg_m2: integral of mass times height above the cut squared.
    """

    mass_kg: float
    up_m: float
    forward_m: float
    left_m: float
    second_up_kg_m2: float


@dataclass(frozen=True, slots=True)
class AboveCut:
    """From where the tree above the cut is looked at: what is placed, is placed from the pith there, along this lay.

    Attributes:
        cut_m, height_m: heights of the cut and of the top over the ground.
        lay_deg: bearing that is forward.
    """

    cut_m: float
    height_m: float
    lay_deg: float


def together(*bodies: Body) -> Body:
    """Several bodies as one; at least one must have mass."""
    mass = sum(body.mass_kg for body in bodies)
    return Body(
        mass,
        sum(body.mass_kg * body.up_m for body in bodies) / mass,
        sum(body.mass_kg * body.forward_m for body in bodies) / mass,
        sum(body.mass_kg * body.left_m for body in bodies) / mass,
        sum(body.second_up_kg_m2 for body in bodies),
    )


@dataclass(frozen=True, slots=True)
class Taper:
    """A stem whose section goes as the distance from its top to the power 2p, in shares of its length and base.

    Attributes:
        volume: its volume over base area times length.
        centre: height of its centre over its length.
        mean_square: mean of the squared height, by mass, over the length squared.
    """

    volume: float
    centre: float
    mean_square: float


def taper(exponent: float) -> Taper:
    """Closed forms of the power-law taper, p = 1 a cone: 1/(2p+1), 1/(2p+2) and the mean of (1 - x)^2 over x^(2p)."""
    p = exponent
    mean_square = (2 * p + 1) * (1 / (2 * p + 1) - 2 / (2 * p + 2) + 1 / (2 * p + 3))
    return Taper(1 / (2 * p + 1), 1 / (2 * p + 2), mean_square)
