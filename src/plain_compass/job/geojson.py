"""The site as GeoJSON, and back: obstacles and trees in metres east and north of the job's own origin.

Coordinates are local metres, as the member ``plain_compass`` with ``"coordinates": "local metres"`` says; a file in
longitude and latitude is refused by a sentence, since no projection is stated that could be trusted. Properties of a
feature: ``kind``, ``name``, ``cost``, ``height_m``, ``radius_m``, ``base_m``; unknown ones are passed over.
"""

from __future__ import annotations

import json
import math
from dataclasses import dataclass, replace
from typing import Any

from ..core.checks import check_obstacle
from ..core.errors import InputError, PlainCompassError
from ..core.paths import with_value
from ..core.quantity import check_ranges
from ..core.site import COSTS, KINDS, USUAL, Obstacle, Place, Site
from .document import Job
from .site_edits import MOST_OBSTACLES

GEOMETRY = {"spot": "Point", "line": "LineString", "area": "Polygon"}
SHAPES = {geometry: shape for shape, geometry in GEOMETRY.items()}
LOCAL = "local metres"
NUMBERS = ("height_m", "radius_m", "base_m")
DECIMALS = 3


class GeoJsonError(PlainCompassError, ValueError):
    """A file that is no site; the text names it and the feature."""


@dataclass(frozen=True, slots=True)
class Imported:
    """A site read from GeoJSON.

    Attributes:
        obstacles: what could be taken.
        skipped: a sentence for each feature that could not, with its number.
    """

    obstacles: tuple[Obstacle, ...]
    skipped: tuple[str, ...]


def site_geojson(job: Job) -> str:
    """The job's obstacles and trees as a FeatureCollection."""
    features = [_feature(obstacle) for obstacle in job.site.obstacles]
    features += [
        {
            "type": "Feature",
            "id": plan.id,
            "properties": {"kind": "this job's tree", "name": plan.id, "lay_deg": plan.cut.lay_deg},
            "geometry": {"type": "Point", "coordinates": _pair(plan.at)},
        }
        for plan in job.trees
    ]
    about = {"coordinates": LOCAL, "site": job.site.name}
    whole = {"type": "FeatureCollection", "plain_compass": about, "features": features}
    return json.dumps(whole, indent=2, ensure_ascii=False, allow_nan=False) + "\n"


def _pair(place: Place) -> list[float]:
    return [round(place.east_m, DECIMALS), round(place.north_m, DECIMALS)]


def _feature(obstacle: Obstacle) -> dict[str, Any]:
    pairs = [_pair(point) for point in obstacle.points]
    coordinates: Any = {"spot": pairs[0], "line": pairs, "area": [[*pairs, pairs[0]]]}[obstacle.shape]
    told = {name: getattr(obstacle, name) for name in ("kind", "name", "cost", *NUMBERS)}
    return {
        "type": "Feature",
        "properties": told,
        "geometry": {"type": GEOMETRY[obstacle.shape], "coordinates": coordinates},
    }


def import_geojson(text: str, name: str) -> Imported:
    """Obstacles from a FeatureCollection in local metres; what cannot be taken is skipped with a sentence.

    Raises GeoJsonError when the file as a whole is no site.
    """
    try:
        whole = json.loads(text)
    except (ValueError, RecursionError):
        raise GeoJsonError(f"{name} is not JSON; accepted: a GeoJSON FeatureCollection.") from None
    if not isinstance(whole, dict) or not isinstance(whole.get("features"), list):
        raise GeoJsonError(f"{name} has no features; accepted: a GeoJSON FeatureCollection.")
    about = whole.get("plain_compass")
    if not isinstance(about, dict) or about.get("coordinates") != LOCAL:
        raise GeoJsonError(
            f"{name} does not say that its coordinates are metres; accepted: “plain_compass”: "
            f'{{"coordinates": "{LOCAL}"}}. Longitude and latitude are not read.'
        )
    taken: list[Obstacle] = []
    skipped: list[str] = []
    for number, feature in enumerate(whole["features"], start=1):
        if len(taken) >= MOST_OBSTACLES:
            rest = len(whole["features"]) - number + 1
            skipped.append(f"{rest} features from number {number} on: a site holds {MOST_OBSTACLES}.")
            break
        try:
            made = _obstacle(feature)
        except (InputError, ValueError, TypeError, KeyError) as error:
            skipped.append(f"Feature {number}: {_why(error)}.")
        else:
            taken += [made] if made is not None else []
    return Imported(tuple(taken), tuple(skipped))


def _why(error: Exception) -> str:
    if isinstance(error, KeyError):
        return f"it has no {error.args[0]}"
    return str(error).rstrip(".")


def _obstacle(feature: Any) -> Obstacle | None:
    """One feature as an obstacle; None for a tree of the job itself."""
    if not isinstance(feature, dict) or not isinstance(feature.get("geometry"), dict):
        raise ValueError("it is no feature with a geometry")
    told = feature.get("properties") or {}
    kind = told.get("kind", "rock") if isinstance(told, dict) else "rock"
    if kind == "this job's tree":
        return None
    if kind not in KINDS:
        raise ValueError(f"kind {kind!r} is not one of {', '.join(KINDS)}")
    shape, points = _shape(feature["geometry"])
    cost, _, radius, height = USUAL[kind]
    made = Obstacle(kind, str(told.get("name") or ""), told.get("cost", cost), shape, points, radius, height)
    if made.cost not in COSTS:
        raise ValueError(f"cost {made.cost!r} is not one of {', '.join(COSTS)}")
    for key in NUMBERS:
        if key in told:
            made = with_value(made, key, _number(told[key], key))
    check_ranges(made, "obstacle")
    check_obstacle(made, "points")
    return made


def _shape(geometry: dict[str, Any]) -> tuple[str, tuple[Place, ...]]:
    shape = SHAPES.get(geometry.get("type", ""))
    if shape is None:
        raise ValueError(f"geometry {geometry.get('type')!r} is not one of {', '.join(SHAPES)}")
    coordinates = geometry["coordinates"]
    pairs = [coordinates] if shape == "spot" else coordinates if shape == "line" else coordinates[0]
    points = tuple(Place(_number(pair[0], "east"), _number(pair[1], "north")) for pair in pairs)
    if shape == "area" and len(points) > 1 and points[0] == points[-1]:
        points = points[:-1]
    return shape, points


def _number(value: Any, name: str) -> float:
    if isinstance(value, bool) or not isinstance(value, (int, float)) or not math.isfinite(value):
        raise ValueError(f"{name} is {value!r} and no number")
    return float(value)


def with_imported(job: Job, found: Imported) -> Job:
    """The job with the obstacles in place of its own."""
    site: Site = replace(job.site, obstacles=found.obstacles)
    return replace(job, site=site)
