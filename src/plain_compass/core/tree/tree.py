"""The measured tree: what a person can tape, pace, sight or sound. Frozen; nothing here computes."""

from __future__ import annotations

from dataclasses import field

from ..base.frozen import dataclass
from ..base.hashing import hashed_once
from ..base.quantity import Kind, bearing, choice, quantity
from .around import Around
from .butt import Lobe
from .limbs import Fork, Limb
from .soundness import Defect, Sounding

BREAST_HEIGHT_M = 1.3
"""Where a trunk is taped (forestry convention)."""

LEAN_METHODS = {"eye": "by eye", "plumb": "plumb line", "clinometer": "clinometer", "unknown": "not judged"}
DECAY_KINDS = {
    "unknown": "not sounded yet",
    "none": "sounded, none found",
    "cavity": "round cavity",
    "shell": "sound shell by bearing",
}


@dataclass(frozen=True, slots=True)
class Trunk:
    """Diameters over bark and the bark itself."""

    diameter_m: float = quantity(
        0.40,
        kind=Kind.GIRTH,
        low=0.05,
        high=4.0,
        label="diameter",
        step=0.01,
        help="Diameter over bark where it was taped, usually at breast height; a girth divided by pi.",
    )
    at_m: float = quantity(
        BREAST_HEIGHT_M,
        kind=Kind.SPAN,
        low=0.1,
        high=5.0,
        label="taped at",
        step=0.1,
        help="Height above ground at which the diameter was taped.",
    )
    cross_diameter_m: float | None = quantity(
        None,
        kind=Kind.GIRTH,
        low=0.05,
        high=4.0,
        label="second diameter",
        step=0.01,
        optional=True,
        help="Diameter at right angles to the first, for a stem that is not round; empty when round.",
    )
    diameter_bearing_deg: float = bearing(
        "first diameter lies along",
        "Bearing along which the first diameter was measured; matters only with a second diameter.",
    )
    butt_diameter_m: float | None = quantity(
        None,
        kind=Kind.GIRTH,
        low=0.05,
        high=4.0,
        label="diameter at the butt",
        step=0.01,
        optional=True,
        help="Diameter over bark near the cut, taped round buttresses and all; empty to take it from the stem's taper.",
    )
    butt_at_m: float = quantity(
        0.4,
        kind=Kind.SPAN,
        low=0.0,
        high=3.0,
        label="butt taped at",
        step=0.05,
        help="Height above ground at which the butt was taped.",
    )
    bark_m: float = quantity(
        0.01,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.15,
        label="bark",
        step=0.001,
        help="Thickness of the bark at the cut; the wood begins inside it.",
    )


@dataclass(frozen=True, slots=True)
class CrownReading:
    """One crown edge, paced from the stem base."""

    bearing_deg: float = bearing("bearing", "Bearing from the stem base along which the crown edge was paced.")
    radius_m: float = quantity(
        3.0,
        kind=Kind.SPAN,
        low=0.0,
        high=40.0,
        label="crown edge",
        step=0.25,
        help="Distance from the stem base to the edge of the crown.",
    )
    state: str = choice(
        "live",
        {"live": "live", "dead": "dead", "missing": "missing"},
        "sector",
        "Whether the crown on this side, half way to the next edges, is live, dead or gone.",
    )


@dataclass(frozen=True, slots=True)
class Crown:
    """Where the crown begins and how far it reaches."""

    base_m: float = quantity(
        6.0,
        kind=Kind.SPAN,
        low=0.0,
        high=120.0,
        label="crown base",
        step=0.25,
        help="Height above ground of the lowest live crown.",
    )
    readings: tuple[CrownReading, ...] = tuple(CrownReading(bearing, 3.0) for bearing in (0.0, 90.0, 180.0, 270.0))
    leaf: str = choice(
        "bare",
        {"bare": "out of leaf", "leaf": "in leaf"},
        "leaf",
        "Leaves add weight; conifers are always taken in leaf.",
    )
    load: str = choice(
        "dry",
        {"dry": "dry", "wet": "wet", "snow": "snow on it", "ice": "ice on it"},
        "crown carries",
        "Rain, snow or ice add weight to the crown (indicative).",
    )
    added_kg: float | None = quantity(
        None,
        kind=Kind.MASS,
        low=0.0,
        high=20_000.0,
        label="added weight",
        step=10.0,
        optional=True,
        help="What rain, snow or ice weigh on this crown, in kilograms, where it is known better than by a word.",
    )


@dataclass(frozen=True, slots=True)
class Lean:
    """Lean of the lower stem and how it was judged; sweep is the bow of the stem above it."""

    angle_deg: float = quantity(
        0.0, kind=Kind.ANGLE, low=0.0, high=60.0, label="lean", step=0.5, help="Angle of the stem from vertical."
    )
    bearing_deg: float = bearing("leans towards", "Bearing towards which the tree leans.")
    method: str = choice("unknown", LEAN_METHODS, "judged", "How the lean was judged; sets its spread.")
    sweep_m: float = quantity(
        0.0,
        kind=Kind.SPAN,
        low=0.0,
        high=10.0,
        label="sweep",
        step=0.1,
        help="How far the top stands out from the line of the lower stem.",
    )
    sweep_bearing_deg: float = bearing("sweeps towards", "Bearing towards which the top bows.")


@dataclass(frozen=True, slots=True)
class ShellReading:
    """Sound wood met before rot, probed inwards at one bearing."""

    bearing_deg: float = bearing("bearing", "Bearing of the probe hole, seen from the pith.")
    sound_m: float = quantity(
        0.1,
        kind=Kind.LENGTH,
        low=0.0,
        high=2.0,
        label="sound shell",
        step=0.005,
        help="Depth of sound wood from the inside of the bark to the first rot.",
    )


@dataclass(frozen=True, slots=True)
class Decay:
    """Rot at the cut. ``unknown`` is a state of its own and never counts as sound."""

    kind: str = choice("unknown", DECAY_KINDS, "rot at the cut", "What sounding or probing found at cut height.")
    offset_m: float = quantity(
        0.0,
        kind=Kind.LENGTH,
        low=0.0,
        high=2.0,
        label="cavity off the pith",
        step=0.01,
        help="Distance from the pith to the middle of the cavity.",
    )
    bearing_deg: float = bearing("cavity lies towards", "Bearing from the pith to the middle of the cavity.")
    radius_m: float = quantity(
        0.05, kind=Kind.LENGTH, low=0.0, high=2.0, label="cavity radius", step=0.005, help="Radius of the cavity."
    )
    shell: tuple[ShellReading, ...] = ()
    at_m: float = quantity(
        0.4,
        kind=Kind.SPAN,
        low=0.0,
        high=6.0,
        label="probed at",
        step=0.05,
        help="Height above ground at which the rot was measured.",
    )
    top_m: float | None = quantity(
        None,
        kind=Kind.SPAN,
        low=0.05,
        high=40.0,
        label="rot ends at",
        step=0.1,
        optional=True,
        help="Height above ground at which the rot has run out; empty when not known, then it is taken to go on.",
    )
    soundings: tuple[Sounding, ...] = ()


@dataclass(frozen=True, slots=True)
class Measured:
    """A mass or centre known from weighing or pulling; each overrides what the shape gives."""

    mass_kg: float | None = quantity(
        None,
        kind=Kind.MASS,
        low=1.0,
        high=200_000.0,
        label="mass",
        step=10.0,
        optional=True,
        help="Mass above the cut, in kilograms.",
    )
    com_up_m: float | None = quantity(
        None,
        kind=Kind.SPAN,
        low=0.1,
        high=80.0,
        label="centre above the cut",
        step=0.25,
        optional=True,
        help="Height of the centre of mass above the cut.",
    )
    com_offset_m: float | None = quantity(
        None,
        kind=Kind.SPAN,
        low=0.0,
        high=20.0,
        label="centre off the pith",
        step=0.05,
        optional=True,
        help="Horizontal distance of the centre of mass from the pith at the cut.",
    )
    com_bearing_deg: float = bearing("centre lies towards", "Bearing from the pith to the centre of mass.")


@hashed_once
@dataclass(frozen=True)
class Tree:
    """One standing tree as measured.

    Attributes:
        stand_ins: paths of what has not been measured and only stands here so that the tree can be drawn.
    """

    species: str = "unknown-broadleaf"
    height_m: float = quantity(
        15.0,
        kind=Kind.SPAN,
        low=1.5,
        high=120.0,
        label="height",
        step=0.5,
        help="Height of the tree from ground to top.",
    )
    trunk: Trunk = field(default_factory=Trunk)
    crown: Crown = field(default_factory=Crown)
    lean: Lean = field(default_factory=Lean)
    lobes: tuple[Lobe, ...] = ()
    fork: Fork = field(default_factory=Fork)
    limbs: tuple[Limb, ...] = ()
    decay: Decay = field(default_factory=Decay)
    condition: str = choice(
        "live",
        {"live": "live, green", "dead": "dead or dry", "frozen sapwood": "frozen sapwood", "frozen": "frozen through"},
        "wood",
        "Dead or dry wood is weaker; frozen wood is no weaker, but both bend less before they part and split sooner.",
    )
    crack: str = choice(
        "unknown",
        {"unknown": "not looked for yet", "none": "looked, none found", "present": "crack, seam or frost"},
        "cracks",
        "An old crack, seam or frozen wood halves the resistance to splitting.",
    )
    defects: tuple[Defect, ...] = ()
    around: Around = field(default_factory=Around)
    measured: Measured = field(default_factory=Measured)
    stand_ins: tuple[str, ...] = ()
