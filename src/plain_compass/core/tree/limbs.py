"""Heavy single limbs and second stems, as measured; and the mass each adds."""

from __future__ import annotations

import math

from ..base.frames import to_tree
from ..base.frozen import dataclass
from ..base.quantity import Kind, bearing, choice, quantity
from .body import AboveCut, Body, taper

UNIONS = {
    "unknown": "union not looked at",
    "wide": "wide, U-shaped",
    "tight": "tight, bark between",
    "cracked": "cracked or opening",
}


@dataclass(frozen=True, slots=True)
class Limb:
    """One limb too heavy to count as part of an even crown."""

    bearing_deg: float = bearing("towards", "Bearing in which the limb reaches out.")
    height_m: float = quantity(
        6.0,
        kind=Kind.SPAN,
        low=0.5,
        high=100.0,
        label="limb at",
        step=0.25,
        help="Height above ground at which the limb leaves the stem.",
    )
    diameter_m: float = quantity(
        0.15,
        kind=Kind.GIRTH,
        low=0.02,
        high=1.5,
        label="limb thickness",
        step=0.01,
        help="Diameter of the limb near the stem.",
    )
    length_m: float = quantity(
        4.0, kind=Kind.SPAN, low=0.5, high=30.0, label="limb length", step=0.25, help="How far the limb reaches out."
    )


@dataclass(frozen=True, slots=True)
class Fork:
    """A second stem that leaves the first: a fork, or a twin from near the ground."""

    kind: str = choice(
        "none", {"none": "one stem", "second": "second stem"}, "stems", "A fork or twin adds a second stem."
    )
    union: str = choice(
        "unknown",
        UNIONS,
        "union",
        "A tight union holds bark instead of wood and may split; a cracked one is splitting.",
    )
    height_m: float = quantity(
        2.0,
        kind=Kind.SPAN,
        low=0.0,
        high=60.0,
        label="fork at",
        step=0.1,
        help="Height above ground at which the second stem leaves the first.",
    )
    diameter_m: float = quantity(
        0.2,
        kind=Kind.GIRTH,
        low=0.02,
        high=3.0,
        label="second stem",
        step=0.01,
        help="Diameter of the second stem over bark, just above the fork.",
    )
    top_m: float = quantity(
        12.0,
        kind=Kind.SPAN,
        low=1.0,
        high=120.0,
        label="its top at",
        step=0.25,
        help="Height above ground of the second stem's top.",
    )
    lean_deg: float = quantity(
        5.0,
        kind=Kind.ANGLE,
        low=0.0,
        high=60.0,
        label="it leans",
        step=0.5,
        help="Angle of the second stem from vertical.",
    )
    bearing_deg: float = bearing("towards", "Bearing towards which the second stem leans.")


def limb_body(limb: Limb, over: AboveCut, at_m: tuple[float, float], *, density: float) -> Body:
    """A limb as a paraboloid lying level: half a cylinder's mass, its centre a third of the way out.

    Its side branches are reckoned into that shape (indicative).

    Args:
        at_m: (forward, left) of the stem's axis at the limb's height, from the pith at the cut.
        density: green density in kg/m3.
    """
    mass = density * math.pi / 8 * limb.diameter_m**2 * limb.length_m
    forward, left = to_tree(limb.bearing_deg, limb.length_m / 3, over.lay_deg)
    up = limb.height_m - over.cut_m
    return Body(mass, up, at_m[0] + forward, at_m[1] + left, mass * up**2)


def second_stem(fork: Fork, over: AboveCut, at_m: tuple[float, float], *, exponent: float, density: float) -> Body:
    """The second stem from its fork to its top, tapering as the first does; see ``stem.stem_body``.

    Args:
        at_m: (forward, left) of the fork, from the pith at the cut.
        density: green density in kg/m3.
    """
    form, above = taper(exponent), fork.top_m - fork.height_m
    mass = density * math.pi / 4 * fork.diameter_m**2 * above * form.volume
    centre = above * form.centre
    forward, left = to_tree(fork.bearing_deg, math.tan(math.radians(fork.lean_deg)) * centre, over.lay_deg)
    base = fork.height_m - over.cut_m
    second = mass * (base**2 + 2 * base * centre + form.mean_square * above**2)
    return Body(mass, base + centre, at_m[0] + forward, at_m[1] + left, second)
