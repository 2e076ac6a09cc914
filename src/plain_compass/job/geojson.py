"""The site as GeoJSON, and back: obstacles, spot heights and trees.

Coordinates are longitude and latitude, as the format has it, or local metres east and north of the job's own origin
where the member ``plain_compass`` says ``"coordinates": "local metres"``. Longitude and latitude want an origin: the
job's own, or the member's ``"origin": [longitude, latitude]``. Properties of a feature: ``kind``, ``name``, ``cost``,
``height_m``, ``radius_m``, ``base_m``; unknown ones are passed over. A spot height is a Point of that kind with
``height_m`` or a third coordinate.
"""

from __future__ import annotations

import json
import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from ..core.base.errors import PlainCompassError
from ..core.base.frozen import dataclass
from ..core.base.paths import with_value
from ..core.base.quantity import check_ranges
from ..core.design.checks import check_obstacle
from ..core.site.site import COSTS, KINDS, USUAL, Obstacle, Place, Site, SpotHeight
from .document import Job
from .fields import quantity_at
from .language import tr
from .projection import Origin, origin_of
from .site_edits import MOST_OBSTACLES, MOST_SPOTS, check_clear_of
from .stamp import stamp

GEOMETRY = {"spot": "Point", "line": "LineString", "area": "Polygon"}
SHAPES = {geometry: shape for shape, geometry in GEOMETRY.items()}
LOCAL, POSITIONS = "local metres", "longitude and latitude"
SPOT, OWN = "spot height", "this job's tree"
NUMBERS = ("height_m", "radius_m", "base_m")
TALL = ("tree", "save", "wall", "roof", "wire", "bank")
"""Kinds whose height decides something."""
DECIMALS = 3
"""Millimetres."""
LARGEST = 1e30
"""Beyond this it is no place."""


class GeoJsonError(PlainCompassError, ValueError):
    """A file that is no site; the text names it and the feature."""


@dataclass(frozen=True, slots=True)
class Imported:
    """A site read from GeoJSON.

    Attributes:
        obstacles, spots: what could be taken.
        skipped: a sentence for each feature that could not, with its number.
        assumed: a sentence for each that was taken with a height it does not state.
        origin: what the file states as its origin; None where it states none.
    """

    obstacles: tuple[Obstacle, ...]
    skipped: tuple[str, ...]
    spots: tuple[SpotHeight, ...] = ()
    origin: Origin | None = None
    assumed: tuple[str, ...] = ()


def wanted_origin(site: Site, *, positions: bool) -> Origin | None:
    """The origin to write longitude and latitude about; None for local metres.

    Raises GeoJsonError when positions are wanted and the job states no origin.
    """
    origin = origin_of(site) if positions else None
    if positions and origin is None:
        raise GeoJsonError(
            tr("The job states no origin, so there is no longitude and latitude; type it on the tree sheet.")
        )
    return origin


def coordinates_of(place: Place | SpotHeight, origin: Origin | None) -> list[float]:
    """A place as the format has it."""
    if origin is None:
        return [round(place.east_m, DECIMALS), round(place.north_m, DECIMALS)]
    return [round(degrees, 9) for degrees in origin.position(place.east_m, place.north_m)]


def site_geojson(job: Job, *, positions: bool = False) -> str:
    """The job's obstacles, spot heights and trees as a FeatureCollection.

    Args:
        positions: write longitude and latitude about the job's origin instead of local metres.

    Raises GeoJsonError when positions are wanted and the job states no origin.
    """
    origin = wanted_origin(job.site, positions=positions)

    def pair(place: Place | SpotHeight) -> list[float]:
        return coordinates_of(place, origin)

    features = [_feature(obstacle, pair) for obstacle in job.site.obstacles]
    features += [
        {
            "type": "Feature",
            "properties": {"kind": SPOT, "height_m": spot.height_m},
            "geometry": {"type": "Point", "coordinates": [*pair(spot), spot.height_m]},
        }
        for spot in job.site.spots
    ]
    features += [
        {
            "type": "Feature",
            "id": plan.id,
            "properties": {"kind": OWN, "name": plan.id, "lay_deg": plan.cut.lay_deg},
            "geometry": {"type": "Point", "coordinates": pair(plan.at)},
        }
        for plan in job.trees
    ]
    system = LOCAL if origin is None else POSITIONS
    about: dict[str, Any] = {"coordinates": system, "site": job.site.name, **stamp(job.practice)}
    if origin is not None:
        about["origin"] = [origin.longitude_deg, origin.latitude_deg]
    whole = {"type": "FeatureCollection", "plain_compass": about, "features": features}
    return json.dumps(whole, indent=2, ensure_ascii=False, allow_nan=False) + "\n"


def _feature(obstacle: Obstacle, pair: Callable[[Place], list[float]]) -> dict[str, Any]:
    pairs = [pair(point) for point in obstacle.points]
    coordinates: Any = {"spot": pairs[0], "line": pairs, "area": [[*pairs, pairs[0]]]}[obstacle.shape]
    told = {name: getattr(obstacle, name) for name in ("kind", "name", "cost", "overhead", *NUMBERS)}
    return {
        "type": "Feature",
        "properties": told,
        "geometry": {"type": GEOMETRY[obstacle.shape], "coordinates": coordinates},
    }


def import_geojson(text: str, name: str, job: Job) -> Imported:
    """Obstacles and spot heights from a FeatureCollection; what cannot be taken is skipped with a sentence.

    Args:
        job: whose origin longitude and latitude are taken from, and on whose trees nothing may be set.

    Raises GeoJsonError when the file as a whole is no site, or is in longitude and latitude without an origin.
    """
    whole = _read(text, name)
    about = whole.get("plain_compass")
    about = about if isinstance(about, dict) else {}
    stated, origin = _stated(about, name), None
    if about.get("coordinates") != LOCAL:
        origin = origin_of(job.site) or stated
        if origin is None:
            raise GeoJsonError(
                tr(
                    "{name} is in longitude and latitude, and neither it nor the job states an origin; "
                    'type the origin on the tree sheet, or say in the file “plain_compass”: {{"origin": '
                    "[longitude, latitude]}}.",
                    name=name,
                )
            )
    taken: list[Obstacle] = []
    spots: dict[tuple[float, float], SpotHeight] = {}
    skipped: list[str] = []
    assumed: list[str] = []
    for number, feature in enumerate(whole["features"], start=1):
        if len(taken) >= MOST_OBSTACLES or len(spots) >= MOST_SPOTS:
            rest = len(whole["features"]) - number + 1
            skipped.append(
                tr(
                    "{rest} features from number {number} on: a site holds {most_obstacles}.",
                    rest=rest,
                    number=number,
                    most_obstacles=MOST_OBSTACLES,
                )
            )
            break
        try:
            made = _taken(feature, origin)
            if isinstance(made, Obstacle):
                check_clear_of(made, job)
        except (PlainCompassError, ValueError, TypeError, KeyError, IndexError) as error:
            skipped.append(tr("Feature {number}: {why}.", number=number, why=_why(error)))
            continue
        if isinstance(made, Obstacle):
            taken.append(made)
            if made.kind in TALL and "height_m" not in _told(feature):
                what = tr("{kinds} without height_m", kinds=KINDS[made.kind])
                assumed.append(
                    tr(
                        "Feature {number}: {what}, taken as {height_m:g} m high; measure it.",
                        number=number,
                        what=what,
                        height_m=made.height_m,
                    )
                )
        elif made is not None:
            spots.setdefault((round(made.east_m, 2), round(made.north_m, 2)), made)
    return Imported(tuple(taken), tuple(skipped), tuple(spots.values()), stated, tuple(assumed))


def _read(text: str, name: str) -> dict[str, Any]:
    try:
        whole = json.loads(text)
    except (ValueError, RecursionError):
        raise GeoJsonError(tr("{name} is not JSON; accepted: a GeoJSON FeatureCollection.", name=name)) from None
    if not isinstance(whole, dict) or not isinstance(whole.get("features"), list):
        raise GeoJsonError(tr("{name} has no features; accepted: a GeoJSON FeatureCollection.", name=name))
    return whole


def _stated(about: dict[str, Any], name: str) -> Origin | None:
    """The origin a file states."""
    pair = about.get("origin")
    if pair is None:
        return None
    try:
        longitude, latitude = (_number(value, "origin") for value in pair)
        quantity_at("site.origin_east_deg").check("origin", longitude)
        quantity_at("site.origin_north_deg").check("origin", latitude)
    except (PlainCompassError, ValueError, TypeError):
        raise GeoJsonError(
            tr("{name} states the origin {pair!r}; accepted: [longitude, latitude] in degrees.", name=name, pair=pair)
        ) from None
    return Origin(longitude, latitude)


def _why(error: Exception) -> str:
    if isinstance(error, KeyError):
        return tr("it has no {key}", key=error.args[0])
    return str(error).rstrip(".")


def _told(feature: dict[str, Any]) -> dict[str, Any]:
    """The properties of a feature; ValueError where they are something else."""
    told = feature.get("properties") or {}
    if not isinstance(told, dict):
        raise ValueError(tr("its properties are {told} and no object", told=str(told)[:40]))
    return told


def _taken(feature: Any, origin: Origin | None) -> Obstacle | SpotHeight | None:
    """One feature as an obstacle or a spot height; None for a tree of the job itself."""
    if not isinstance(feature, dict) or not isinstance(feature.get("geometry"), dict):
        raise ValueError(tr("it is no feature with a geometry"))
    told = _told(feature)
    kind = told.get("kind", "rock")
    if kind == OWN:
        return None
    if kind == SPOT:
        return _spot(feature, origin)
    if not isinstance(kind, str) or kind not in KINDS:
        raise ValueError(tr("kind {kind!r} is not one of {names}", kind=str(kind)[:40], names=", ".join(KINDS)))
    shape, points = _shape(feature["geometry"], origin)
    cost, _, radius, height = USUAL[kind]
    made = Obstacle(kind, str(told.get("name") or ""), told.get("cost", cost), shape, points, radius, height)
    if not isinstance(made.cost, str) or made.cost not in COSTS:
        raise ValueError(tr("cost {cost!r} is not one of {names}", cost=made.cost, names=", ".join(COSTS)))
    made = replace(made, overhead=told.get("overhead", "unknown"))
    for key in NUMBERS:
        if key in told:
            made = with_value(made, key, _number(told[key], key))
    check_ranges(made, "obstacle")
    check_obstacle(made, "points")
    return made


def _spot(feature: dict[str, Any], origin: Origin | None) -> SpotHeight:
    shape, points = _shape(feature["geometry"], origin)
    if shape != "spot":
        raise ValueError(tr("a spot height is a Point"))
    at = feature["geometry"]["coordinates"]
    told = _told(feature)
    if "height_m" not in told and len(at) < 3:
        raise ValueError(tr("it has no height_m and no third coordinate"))
    height = _number(told["height_m"] if "height_m" in told else at[2], "height_m")
    made = SpotHeight(points[0].east_m, points[0].north_m, height)
    check_ranges(made, "spot height")
    return made


def _shape(geometry: dict[str, Any], origin: Origin | None) -> tuple[str, tuple[Place, ...]]:
    shape = SHAPES.get(geometry.get("type", ""))
    if shape is None:
        raise ValueError(
            tr("geometry {geometry!r} is not one of {names}", geometry=geometry.get("type"), names=", ".join(SHAPES))
        )
    coordinates = geometry["coordinates"]
    pairs = [coordinates] if shape == "spot" else coordinates if shape == "line" else coordinates[0]
    points = tuple(_place(pair, origin) for pair in pairs)
    if shape == "area" and len(points) > 1 and points[0] == points[-1]:
        points = points[:-1]
    return shape, points


def _place(pair: Any, origin: Origin | None) -> Place:
    first, second = ("east", "north") if origin is None else ("longitude", "latitude")
    one, other = _number(pair[0], first), _number(pair[1], second)
    if origin is not None:
        one, other = origin.metres(one, other)
    return Place(round(one, DECIMALS), round(other, DECIMALS))


def _brief(value: Any) -> str:
    """What a file holds, short enough for a sentence; a number of thousands of digits cannot even be written out."""
    if isinstance(value, int) and abs(value) > LARGEST:
        return tr("a number without end")
    return repr(value)[:40]


def _number(value: Any, name: str) -> float:
    number = isinstance(value, (int, float)) and not isinstance(value, bool)
    # A whole number too large for a float raises before it could be compared.
    if not number or abs(value) > LARGEST or not math.isfinite(value):
        raise ValueError(tr("{name} is {given} and no number", name=name, given=_brief(value)))
    return float(value)


def with_imported(job: Job, found: Imported) -> Job:
    """The job with what was read in place of its own obstacles and spot heights, and its origin where it had none.

    A file without spot heights leaves the job's own.
    """
    site: Site = replace(job.site, obstacles=found.obstacles, spots=found.spots or job.site.spots)
    if found.origin is not None and origin_of(site) is None:
        site = replace(site, origin_east_deg=found.origin.longitude_deg, origin_north_deg=found.origin.latitude_deg)
    return replace(job, site=site)
