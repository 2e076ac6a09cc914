"""Ways of measuring by name: what each wants typed, how well that is known, and what it answers."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from ..core.base.frozen import dataclass
from ..core.measuring import girth, height, lean
from ..core.measuring.estimate import Estimate, Reading, propagated, require_positive, tan_deg
from .language import tr, tr_mark

EYE = "lean class"
"""Kind of a wanted word that stands for a lean judged by eye."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """One thing to type for a way of measuring.

    Attributes:
        kind: what it measures.
        spread: (table, way) in ``spreads.toml`` that says how well it is known unless that is typed too.
        default: text taken when it is left out; empty when it must be given.
    """

    kind: str
    spread: tuple[str, str]
    default: str = ""


@dataclass(frozen=True, slots=True)
class Answer:
    """One result: its name with unit, its kind, and the estimate."""

    name: str
    kind: str
    estimate: Estimate


@dataclass(frozen=True, slots=True)
class Method:
    """One way of measuring one thing.

    Attributes:
        wants: what to type, by name.
        answer: from readings by name to the answers; the first is the one that is kept.
        how: how it is done, in a sentence.
    """

    wants: Mapping[str, Wanted]
    answer: Callable[[Mapping[str, Reading]], tuple[Answer, ...]]
    how: str


BY_HAND = {"typed": tr_mark("typed"), "paced": tr_mark("paced")}
"""How a value came that was put in without one of the ways."""


def thing_name(thing: str) -> str:
    """What is measured, as a person reads it."""
    return tr(thing.capitalize())


def way_name(way: str) -> str:
    """A way of measuring, as a person reads it; a value may also be typed, or paced."""
    return tr(BY_HAND.get(way) or way.replace("-", " "))


def input_name(name: str) -> str:
    """What is typed for a way of measuring, as a person reads it."""
    return tr(name.replace("-2", ", second place").replace("-", " "))


TAPE, HAND = ("length", "tape"), ("length", "hand")
DISTANCE, ANGLE, BEARING = ("distance", "tape"), ("angle_deg", "clinometer"), ("bearing_deg", "compass")
AT = Wanted("bearing", BEARING, "0")
TEN = Wanted("span", ("tree", "height"), "10 m")
"""Height over which a lean is told as an offset."""


def _height(estimate: Estimate) -> tuple[Answer, ...]:
    return (Answer("height_m", "span", estimate),)


def _lean(found: lean.LeanEstimate, height_m: Reading) -> tuple[Answer, ...]:
    """Angle and bearing, and the same as fallers say it: how far the top of that height stands out."""
    require_positive("height", height_m.value, "span")
    angle = Reading(found.angle_deg.value, found.angle_deg.spread)
    offset = propagated(lambda lean, height: height * tan_deg(lean), {"lean": angle, "height": height_m})
    return (
        Answer("lean_deg", "angle", found.angle_deg),
        Answer("bearing_deg", "bearing", found.bearing_deg),
        Answer("top_offset_m", "span", offset),
    )


def _two_sightings(r: Mapping[str, Reading]) -> tuple[Answer, ...]:
    places = [height.Sighting(r[f"distance{n}"], r[f"top{n}"], r[f"base{n}"], r[f"aside{n}"]) for n in ("", "-2")]
    found = height.leaning_top(*places)
    toward = (
        Answer("toward_first_m", "span", found.toward_first_m),
        Answer("toward_second_m", "span", found.toward_second_m),
    )
    return Answer("height_m", "span", found.height_m), *toward


def _room(r: Mapping[str, Reading]) -> tuple[Answer, ...]:
    require_positive("room", r["room"].value, "span")
    cut = height.cut_height_for_room_m(r["height"].value, r["room"].value)
    return (Answer("cut_height_m", "span", Estimate(cut, r["height"].spread if cut > 0 else 0.0)),)


HEIGHT = {
    "clinometer": Method(
        {
            "distance": Wanted("span", DISTANCE),
            "top": Wanted("angle", ANGLE),
            "base": Wanted("angle", ANGLE),
            "slope": Wanted("angle", ANGLE, "0"),
        },
        lambda r: _height(height.height_by_clinometer(r["distance"], r["top"], r["base"], r["slope"])),
        tr("Stand a tree's length off. Sight top and base; below level is negative. Angles in degrees or %."),
    ),
    "stick": Method(
        {"distance": Wanted("span", DISTANCE), "stick": Wanted("length", HAND), "reach": Wanted("length", HAND)},
        lambda r: _height(height.height_by_stick(r["distance"], r["stick"], r["reach"])),
        tr("Hold a stick upright at arm's reach; step back until it just covers the tree from base to top."),
    ),
    "shadow": Method(
        {"shadow": Wanted("span", DISTANCE), "stick": Wanted("length", TAPE), "stick-shadow": Wanted("length", HAND)},
        lambda r: _height(height.height_by_shadow(r["shadow"], r["stick"], r["stick-shadow"])),
        tr("On level ground: the tree's shadow, an upright stick, and the stick's shadow at the same time."),
    ),
    "two-sightings": Method(
        {
            f"{name}{place}": Wanted(kind, spread, default)
            for place in ("", "-2")
            for name, kind, spread, default in (
                ("distance", "span", DISTANCE, ""),
                ("top", "angle", ANGLE, ""),
                ("base", "angle", ANGLE, ""),
                ("aside", "angle", ANGLE, "0"),
            )
        },
        _two_sightings,
        tr("A leaning tree: sight from two places at right angles; aside: how far the top stands towards the other."),
    ),
}

LEAN = {
    "plumb": Method(
        {"offset": Wanted("length", HAND), "drop": Wanted("span", TAPE), "bearing": AT, "height": TEN},
        lambda r: _lean(lean.lean_by_plumb(r["offset"], r["drop"], r["bearing"]), r["height"]),
        tr("Hang a line beside the stem, square to the lean: how far the stem leaves it over the line's drop."),
    ),
    "faces": Method(
        {"first": Wanted("angle", ANGLE), "second": Wanted("angle", ANGLE), "bearing": AT, "height": TEN},
        lambda r: _lean(lean.lean_by_faces(r["first"], r["second"], r["bearing"].value), r["height"]),
        tr("Hold the clinometer on the stem along a bearing, then along the bearing a quarter turn right of it."),
    ),
    "sighting": Method(
        {
            "first": Wanted("span", ("length", "sighted")),
            "second": Wanted("span", ("length", "sighted")),
            "height": Wanted("span", DISTANCE),
            "bearing": AT,
        },
        lambda r: _lean(lean.lean_by_sighting(r["first"], r["second"], r["height"], r["bearing"].value), r["height"]),
        tr("From two places at right angles, against a hung line: how far the top stands off the base."),
    ),
    "eye": Method(
        {"class": Wanted(EYE, ("", "")), "bearing": AT, "height": TEN},
        lambda r: _lean(
            lean.lean_by_eye(lean.EyeClass("", r["class"].value, r["class"].spread), r["bearing"]), r["height"]
        ),
        tr("By eye: upright, slight, marked or strong. Its spread is large."),
    ),
}

GIRTH = {
    "tape": Method(
        {"girth": Wanted("length", TAPE)},
        lambda r: (Answer("diameter_m", "length", girth.diameter_from_girth(r["girth"])),),
        tr("Pull the tape level and tight at breast height; round buttresses it measures their hull."),
    ),
    "calliper": Method(
        {"diameter": Wanted("length", TAPE)},
        lambda r: (Answer("girth_m", "length", girth.girth_from_diameter(r["diameter"])),),
        tr("One diameter, and the girth it would have."),
    ),
    "two-diameters": Method(
        {"first": Wanted("length", TAPE), "second": Wanted("length", TAPE)},
        lambda r: (Answer("diameter_m", "length", girth.mean_diameter(r["first"], r["second"])),),
        tr("Two diameters at right angles: that of the circle of the same area."),
    ),
    "under-bark": Method(
        {"diameter": Wanted("length", TAPE), "bark": Wanted("length", HAND)},
        lambda r: (Answer("wood_m", "length", girth.under_bark(r["diameter"], r["bark"])),),
        tr("What is left of a diameter under bark on both sides."),
    ),
}

METHODS: dict[str, dict[str, Method]] = {
    "height": HEIGHT,
    "lean": LEAN,
    "girth": GIRTH,
    "sweep": {
        "middle": Method(
            {"middle": Wanted("span", ("length", "sighted"))},
            lambda r: (Answer("sweep_m", "span", lean.sweep_from_middle_m(r["middle"])),),
            tr("Sight up the lower stem: how far it stands off that line half way up; the top, four times that."),
        )
    },
    "room": {
        "top": Method(
            {"height": Wanted("span", ("tree", "height")), "room": Wanted("span", DISTANCE)},
            _room,
            tr("How high the cut must be for the top to lie within the room there is."),
        )
    },
}
KEPT = {
    "height_m": "tree.height_m",
    "lean_deg": "lean",
    "diameter_m": "tree.trunk.diameter_m",
    "sweep_m": "tree.lean.sweep_m",
}
"""Name of a way's first answer -> what it is kept as; an answer that is not here is only told."""
