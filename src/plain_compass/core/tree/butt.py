"""Buttresses of a lobed butt, as measured. Frozen; ``section`` turns them into an outline."""

from __future__ import annotations

from ..base.frozen import dataclass
from ..base.quantity import Kind, bearing, choice, quantity


@dataclass(frozen=True, slots=True)
class Lobe:
    """One buttress: a raised cosine standing out from the round stem, running out upwards."""

    bearing_deg: float = bearing("towards", "Bearing from the pith to the middle of the buttress.")
    projection_m: float = quantity(
        0.06,
        kind=Kind.LENGTH,
        low=0.0,
        high=1.5,
        label="stands out",
        step=0.005,
        help="How far the buttress stands out from the round stem, at the height of the butt tape.",
    )
    width_m: float = quantity(
        0.3,
        kind=Kind.LENGTH,
        low=0.05,
        high=2.0,
        label="width",
        step=0.01,
        help="Width of the buttress where it leaves the round stem, along the bark.",
    )
    top_m: float = quantity(
        1.0,
        kind=Kind.SPAN,
        low=0.1,
        high=6.0,
        label="runs out at",
        step=0.05,
        help="Height above ground at which the buttress has run out into the stem.",
    )
    state: str = choice(
        "standing",
        {"standing": "standing", "trimmed": "trimmed flush first"},
        "buttress",
        "A trimmed buttress is cut away flush with the round stem before the [face] is begun.",
    )


def standing_m(lobe: Lobe, height_m: float, taped_at_m: float) -> float:
    """How far a buttress stands out at a height: in proportion to what is left below its run-out.

    Below the tape it grows on, at most to twice what was measured there.
    """
    if lobe.top_m <= taped_at_m:
        return lobe.projection_m if height_m <= taped_at_m else 0.0
    share = (lobe.top_m - height_m) / (lobe.top_m - taped_at_m)
    return lobe.projection_m * min(max(share, 0.0), 2.0)
