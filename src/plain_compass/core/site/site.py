"""The place: what stands and lies round the trees, in metres east and north of the job's own origin. Frozen."""

from __future__ import annotations

from enum import StrEnum

from ..base.frozen import dataclass
from ..base.hashing import hashed_once
from ..base.quantity import Kind, bearing, choice, name, quantity
from ..tree.around import SEEN

KINDS = {
    "tree": "neighbour tree",
    "save": "tree to save",
    "fence": "fence",
    "wall": "wall",
    "track": "track or path",
    "water": "water",
    "roof": "roof",
    "wire": "wire",
    "rock": "rock",
    "stump": "stump",
    "bank": "bank",
    "soft": "soft ground",
    "people": "people area",
    "stack": "stack of timber",
}


class Cost(StrEnum):
    """What it would cost to hit an obstacle, from least to most."""

    NONE = "none"
    NUISANCE = "nuisance"
    MATTERS = "matters"
    NEVER = "never"


COSTS: dict[str, str] = {
    Cost.NONE: "costs nothing",
    Cost.NUISANCE: "a nuisance",
    Cost.MATTERS: "matters",
    Cost.NEVER: "must never be hit",
}
SHAPES = {"spot": "spot", "line": "line", "area": "area"}
LOOKED = {"no": "not looked at", "yes": "looked at: what is not drawn is not there"}
USUAL = {
    "tree": ("none", "spot", 2.5, 15.0),
    "save": ("matters", "spot", 3.0, 15.0),
    "fence": ("nuisance", "line", 0.1, 1.2),
    "wall": ("matters", "line", 0.3, 1.5),
    "track": ("nuisance", "line", 1.2, 0.0),
    "water": ("nuisance", "line", 1.0, 0.0),
    "roof": ("never", "area", 0.1, 4.0),
    "wire": ("never", "line", 0.5, 7.0),
    "rock": ("nuisance", "spot", 0.8, 0.8),
    "stump": ("nuisance", "spot", 0.4, 0.4),
    "bank": ("nuisance", "line", 0.8, 1.0),
    "soft": ("none", "area", 0.1, 0.0),
    "people": ("never", "area", 0.1, 0.0),
    "stack": ("matters", "area", 0.1, 1.5),
}
"""Kind -> what a new one begins as: cost, shape, half width or radius in metres, height in metres."""


@dataclass(frozen=True, slots=True)
class Place:
    """A point on the site plan."""

    east_m: float = quantity(
        0.0, kind=Kind.SPAN, low=-3000.0, high=3000.0, label="east", step=0.5, help="Metres east of the job's origin."
    )
    north_m: float = quantity(
        0.0, kind=Kind.SPAN, low=-3000.0, high=3000.0, label="north", step=0.5, help="Metres north of the job's origin."
    )


@hashed_once
@dataclass(frozen=True)
class Obstacle:
    """One thing that may be hit, may catch the tree, or stands in a way out."""

    kind: str = choice("rock", KINDS, "what", "What stands or lies there.")
    name: str = name("", "name")
    cost: str = choice("nuisance", COSTS, "to hit it", "What it would cost to hit it; rules which help is demanded.")
    shape: str = choice("spot", SHAPES, "drawn as", "A spot with a radius, a line with a half width, or an area.")
    points: tuple[Place, ...] = (Place(),)
    radius_m: float = quantity(
        0.5,
        kind=Kind.SPAN,
        low=0.0,
        high=40.0,
        label="radius",
        step=0.1,
        help="Radius of a spot or of a crown; half the width of a line.",
    )
    height_m: float = quantity(
        1.0, kind=Kind.SPAN, low=0.0, high=120.0, label="height", step=0.25, help="Its top above the ground."
    )
    base_m: float = quantity(
        0.0,
        kind=Kind.SPAN,
        low=0.0,
        high=120.0,
        label="crown base",
        step=0.25,
        help="Height of a neighbour's lowest live crown.",
    )
    overhead: str = choice(
        "unknown", SEEN, "dead wood above", "Dead or hung wood in a neighbour's crown, over those who pass under it."
    )


@dataclass(frozen=True, slots=True)
class SpotHeight:
    """The height of the ground at one place, over any datum that is the same for all."""

    east_m: float = quantity(
        0.0, kind=Kind.SPAN, low=-3000.0, high=3000.0, label="east", step=0.5, help="Metres east of the job's origin."
    )
    north_m: float = quantity(
        0.0, kind=Kind.SPAN, low=-3000.0, high=3000.0, label="north", step=0.5, help="Metres north of the job's origin."
    )
    height_m: float = quantity(
        0.0,
        kind=Kind.SPAN,
        low=-500.0,
        high=9000.0,
        label="ground height",
        step=0.1,
        help="Height of the ground there, over any datum that is the same for all spots.",
    )


@hashed_once
@dataclass(frozen=True)
class Site:
    """The place: shape of the ground, wind, obstacles, and the site's own rule on people."""

    name: str = name("", "name")
    kept_away_lengths: float = quantity(
        2.0,
        kind=Kind.RATIO,
        low=1.5,
        high=5.0,
        label="people kept away",
        step=0.5,
        help="Tree lengths within which nobody else may be; the site's own rule if it is larger.",
    )
    slope_deg: float = quantity(
        0.0, kind=Kind.ANGLE, low=0.0, high=60.0, label="slope", step=1.0, help="Slope of the ground round the tree."
    )
    downhill_deg: float = bearing("downhill towards", "Bearing in which the ground falls.")
    wind_m_s: float | None = quantity(
        None,
        kind=Kind.SPEED,
        low=0.0,
        high=40.0,
        label="wind",
        step=0.5,
        optional=True,
        help="Mean speed of the wind at the crowns; empty when not judged.",
    )
    wind_from_deg: float = bearing("wind from", "Bearing the wind blows from.")
    gust_ratio: float = quantity(
        1.6, kind=Kind.RATIO, low=1.0, high=3.0, label="gusts", step=0.1, help="Gusts over the mean speed of the wind."
    )
    looked: str = choice(
        "no", LOOKED, "ground looked at", "Whether what is not drawn is not there, and the ground as even as its slope."
    )
    obstacles: tuple[Obstacle, ...] = ()
    spots: tuple[SpotHeight, ...] = ()
    origin_east_deg: float | None = quantity(
        None,
        kind=Kind.DEGREES,
        low=-180.0,
        high=180.0,
        label="origin, longitude",
        step=0.0001,
        optional=True,
        help="Longitude of the job's origin, east positive; wanted only for maps in longitude and latitude.",
    )
    origin_north_deg: float | None = quantity(
        None,
        kind=Kind.DEGREES,
        low=-85.0,
        high=85.0,
        label="origin, latitude",
        step=0.0001,
        optional=True,
        help="Latitude of the job's origin, north positive; wanted only for maps in longitude and latitude.",
    )
