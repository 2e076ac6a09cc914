"""The designed cut: frozen inputs with their bounds."""

from __future__ import annotations

from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.quantity import Kind, choice, quantity
from ..site.landing import ALOFT_FROM_m
from ..site.ways_out import FARTHEST_LAY_DEG, NEAREST_LAY_DEG, Ways
from .traits import BackTraits, FaceTraits, HingeTraits

FACE_FORMS: dict[str, str] = {}
HINGE_FORMS: dict[str, str] = {}
BACK_FORMS: dict[str, str] = {}
"""Forms that can be chosen, key -> words; each is put here by its own file in ``cuts``."""
SIDES = {"left": "left", "right": "right"}
GOES_ON = {
    "wedges": "drive the wedges that are placed",
    "stack": "a second wedge on the first",
    "thin": "the [hinge] thinned a little",
    "all": "a jack, where one is carried",
}
"""How far one goes on where the tree holds, in the order of the craft; each with all that comes before it."""


HIGHEST_m = 60.0
"""Where any cut ends."""


@dataclass(frozen=True)
class Face:
    """The notch on the side the tree is to go. Heights count from the apex, where roof and floor meet."""

    form: str = choice("conventional", FACE_FORMS, "[face] form", "Which of the two [face] cuts slopes.")
    depth_m: float = quantity(
        0.08,
        kind=Kind.LENGTH,
        low=0.005,
        high=2.0,
        label="[face] depth",
        step=0.005,
        help="From the front of the wood back to the apex, along the lay; %D counts the wood's own depth.",
    )
    roof_deg: float = quantity(
        70.0,
        kind=Kind.ANGLE,
        low=5.0,
        high=90.0,
        label="roof",
        step=1.0,
        help="Slope of the upper [face] cut above level.",
    )
    floor_deg: float = quantity(
        20.0,
        kind=Kind.ANGLE,
        low=0.0,
        high=70.0,
        label="floor",
        step=1.0,
        help="Slope of the lower [face] cut below level.",
    )
    overcut_m: float = quantity(
        0.0,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.5,
        label="[overcut]",
        step=0.005,
        help="How far one [face] cut runs past the other at the apex; it shuts early. Zero when they meet.",
    )
    apart_m: float = quantity(
        0.0,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.2,
        label="ends apart",
        step=0.005,
        help="How far apart in height roof and floor end, where they were sawn past each other. Zero when they meet.",
    )
    block_m: float = quantity(
        0.05,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.4,
        label="blocked-out gap",
        step=0.005,
        help="Height of the block taken out at the apex, so that the [face] shuts later.",
    )
    snipe_left_m: float = quantity(
        0.05,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.6,
        label="snipe left",
        step=0.005,
        help="How far the snipe begins from the [back cut]'s line, left; unequal ends turn the butt.",
    )
    snipe_right_m: float = quantity(
        0.05,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.6,
        label="snipe right",
        step=0.005,
        help="How far the snipe begins from the [back cut]'s line, right.",
    )

    @property
    def traits(self) -> FaceTraits:
        """What its form is like."""
        return FACES[self.form]

    @property
    def angles_deg(self) -> tuple[float, float]:
        """(roof, floor) as this form uses them: a level cut counts as zero."""
        slopes = self.traits.slopes
        return self.roof_deg if "roof" in slopes else 0.0, self.floor_deg if "floor" in slopes else 0.0


@dataclass(frozen=True)
class Hinge:
    """Thickness of the wood left standing, at its two ends; linear between."""

    left_m: float = quantity(
        0.04,
        kind=Kind.LENGTH,
        low=0.0,
        high=1.0,
        label="[hinge] left",
        step=0.0025,
        help="Thickness of the [hinge] at its left end, looking along the lay.",
    )
    right_m: float = quantity(
        0.04,
        kind=Kind.LENGTH,
        low=0.0,
        high=1.0,
        label="[hinge] right",
        step=0.0025,
        help="Thickness of the [hinge] at its right end, looking along the lay.",
    )
    middle_m: float = quantity(
        0.0,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.5,
        label="thick in the middle",
        step=0.005,
        help="Wood left over in the middle of the [hinge], behind the line of its ends: cuts that did not meet.",
    )
    form: str = choice("strip", HINGE_FORMS, "[hinge] form", "A plain strip, or one worked on for a reason.")
    side: str = choice("left", SIDES, "worked side", "The end that is lengthened, or relieved.")
    nip_m: float = quantity(
        0.0,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.3,
        label="corner nips",
        step=0.005,
        help="Wood taken off both ends of the [hinge], against splitting and torn roots; it gives up steering.",
    )
    heart_m: float = quantity(
        0.1,
        kind=Kind.LENGTH,
        low=0.0,
        high=1.0,
        label="heart bore",
        step=0.01,
        help="Width of the bore through the middle of the [hinge], from the [face].",
    )
    lengthen_m: float = quantity(
        0.15,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.6,
        label="corner lengthened",
        step=0.01,
        help="Height over which the corner's fibres are cut free, so that they bend further.",
    )
    relief_ratio: float = quantity(
        0.3,
        kind=Kind.RATIO,
        low=0.0,
        high=0.7,
        label="relieved",
        step=0.05,
        help="Share of the [hinge]'s length that is cut away on the lean side.",
    )

    @property
    def traits(self) -> HingeTraits[Hinge]:
        """What its form is like."""
        return HINGES[self.form]

    @property
    def mean_m(self) -> float:
        """Thickness half way between its ends."""
        return (self.left_m + self.right_m) / 2


@dataclass(frozen=True)
class BackCut:
    """The cut from the other side that leaves the hinge."""

    form: str = choice("plain", BACK_FORMS, "[back cut]", "Cut straight in from behind, or bored and released last.")
    step_m: float = quantity(
        0.03,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.3,
        label="step",
        step=0.005,
        help="Height of the [back cut] above the apex; zero is level.",
    )
    strap_m: float = quantity(
        0.05,
        kind=Kind.LENGTH,
        low=0.005,
        high=1.0,
        label="[strap]",
        step=0.005,
        help="Wood left at the back by a bored cut along the lay; width of a rib, corner or post.",
    )
    side: str = choice("left", SIDES, "kept side", "The corner that is kept, or the side that is cut last.")
    lower_m: float = quantity(
        0.04,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.3,
        label="lower cut",
        step=0.005,
        help="How far below the bored cut the one is that lets the tree go.",
    )
    slot_m: float = quantity(
        0.12,
        kind=Kind.LENGTH,
        low=0.02,
        high=0.6,
        label="slot width",
        step=0.01,
        help="Width of the slot through the middle of the stem.",
    )
    slot_length_m: float = quantity(
        0.8, kind=Kind.LENGTH, low=0.2, high=3.0, label="slot length", step=0.05, help="Height of the slot up the stem."
    )

    shaved: str = choice("no", {"no": "bark left on", "yes": "bark shaved off"}, "bark", "Bark eats the bar's reach.")

    @property
    def traits(self) -> BackTraits[BackCut]:
        """What its form is like."""
        return BACKS[self.form]

    @property
    def kept_m(self) -> float:
        """How far forward the wood that is kept at the back reaches."""
        return self.traits.kept_straps * self.strap_m

    @property
    def strapped(self) -> bool:
        """Whether a strap is left right across the back."""
        return self.traits.strapped

    @property
    def held(self) -> bool:
        """Whether wood is left behind that holds the tree until it is let go."""
        return self.traits.held


FACES: dict[str, FaceTraits] = {}
HINGES: dict[str, HingeTraits[Hinge]] = {}
BACKS: dict[str, BackTraits[BackCut]] = {}


def register(key: str, traits: FaceTraits | HingeTraits[Hinge] | BackTraits[BackCut]) -> None:
    """Make a form known by its key; a later one of the same key takes its place."""
    if isinstance(traits, FaceTraits):
        FACES[key], FACE_FORMS[key] = traits, traits.label
    elif isinstance(traits, HingeTraits):
        HINGES[key], HINGE_FORMS[key] = traits, traits.label
    else:
        BACKS[key], BACK_FORMS[key] = traits, traits.label


@dataclass(frozen=True, slots=True)
class WedgeSeat:
    """Where one wedge goes in, round the back of the stump."""

    at_deg: float = quantity(
        0.0,
        kind=Kind.OFFSET_ANGLE,
        low=-80.0,
        high=80.0,
        label="wedge",
        step=5.0,
        help="Angle round the stump from straight behind, left positive.",
    )
    stacked: int = quantity(
        1,
        kind=Kind.COUNT,
        low=1,
        high=2,
        label="wedges in the seat",
        step=1,
        help="One wedge, or two laid on each other.",
    )


def _way(side: str) -> float | None:
    found: float | None = quantity(
        None,
        kind=Kind.ANGLE,
        low=NEAREST_LAY_DEG,
        high=FARTHEST_LAY_DEG,
        label=f"way out {side}",
        step=5.0,
        optional=True,
        help=f"Angle from the lay to the {side} way out; empty for the free one nearest to 135°.",
    )
    return found


@dataclass(frozen=True)
class Cut:
    """The whole design for one tree. ``read`` names the specialist forms whose statement was read for it."""

    lay_deg: float = quantity(
        0.0, kind=Kind.BEARING, low=0.0, high=360.0, label="lay", step=1.0, help="Bearing on which the tree is to lie."
    )
    aim_off_deg: float = quantity(
        0.0,
        kind=Kind.OFFSET_ANGLE,
        low=-30.0,
        high=30.0,
        label="aim off",
        step=1.0,
        help="How far left of the lay the [face] is cut, so that a tree that drifts comes to lie on it.",
    )
    height_m: float = quantity(
        0.3,
        kind=Kind.LENGTH,
        low=0.02,
        high=HIGHEST_m,
        label="cut height",
        step=0.01,
        help="Height of the apex above the ground; past 3 m it is work aloft, for those trained to climb.",
    )
    way_left_deg: float | None = _way("left")
    way_right_deg: float | None = _way("right")
    face: Face = Face()
    hinge: Hinge = Hinge()
    back: BackCut = BackCut()
    wedges: tuple[WedgeSeat, ...] = ()
    read: str = ""
    goes_on: str = choice(
        "all",
        GOES_ON,
        "if it still holds",
        "How far you go where the wedges alone do not bring it over; the plan is judged by it.",
    )
    aloft: str = choice(
        "no",
        {"no": "not read", "read": "read, and trained for it"},
        "work aloft",
        "Cutting a standing stem past 3 m up is for those trained to climb and cut from rope or basket, with a second "
        "climber who can bring them down, an anchor that the cut does not touch, and everybody out from under.",
    )

    @property
    def ways(self) -> Ways:
        """The ways out as a person has set them."""
        return Ways(self.way_left_deg, self.way_right_deg)

    @property
    def is_aloft(self) -> bool:
        """Whether it stands so high that what is cut off falls from there, and the stem is left standing."""
        return self.height_m > ALOFT_FROM_m

    @property
    def gun_deg(self) -> float:
        """Bearing the [face] is really cut to: the lay, or beside it by what is aimed off."""
        return full_turn_deg(self.lay_deg - self.aim_off_deg) if self.aim_off_deg else self.lay_deg

    @property
    def forms(self) -> dict[str, str]:
        """Which form each part of it has, in the order in which they are made."""
        return {"face": self.face.form, "hinge": self.hinge.form, "back": self.back.form}
