"""Rigid parts of a tree, placed from the pith at the cut, and how they add up."""

from __future__ import annotations

from dataclasses import dataclass


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
