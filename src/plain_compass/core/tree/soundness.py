"""Signs of rot and other defects, as found by sounding and looking. Frozen."""

from __future__ import annotations

from ..base.frozen import dataclass
from ..base.quantity import Kind, bearing, choice, quantity

SOUNDS = {"unknown": "not sounded", "sound": "sound", "dull": "dull", "hollow": "hollow"}
DEFECTS = {
    "bracket": "fungal bracket",
    "crack": "crack or seam",
    "wound": "old wound",
    "stain": "stain",
    "metal": "metal suspected",
}


@dataclass(frozen=True, slots=True)
class Sounding:
    """How the butt sounds under the hammer on one side, half way to its neighbours."""

    bearing_deg: float = bearing("sounded at", "Bearing of the side that was struck, seen from the pith.")
    sound: str = choice("unknown", SOUNDS, "sounds", "Sound wood rings; rot is dull; a cavity is hollow.")


@dataclass(frozen=True, slots=True)
class Defect:
    """One thing seen on the stem."""

    kind: str = choice("bracket", DEFECTS, "seen", "What was seen on the stem.")
    bearing_deg: float = bearing("on the side", "Bearing of the side on which it was seen.")
    height_m: float = quantity(
        0.5, kind=Kind.SPAN, low=0.0, high=60.0, label="at", step=0.1, help="Height above ground of its middle."
    )
    length_m: float = quantity(
        0.2,
        kind=Kind.SPAN,
        low=0.0,
        high=40.0,
        label="long",
        step=0.1,
        help="Length along the stem, from top to bottom.",
    )


def beside_cut(defect: Defect, cut_m: float, reach_m: float) -> bool:
    """Whether a defect lies within reach of the cut's height."""
    return abs(defect.height_m - cut_m) <= defect.length_m / 2 + reach_m
