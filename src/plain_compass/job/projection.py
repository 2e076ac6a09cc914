"""Longitude and latitude to metres about a stated origin, and back, by a transverse Mercator projection of PROJ's."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import TYPE_CHECKING

from ..core.base.errors import PlainCompassError
from ..core.base.frozen import dataclass
from ..core.site.site import Site
from .language import tr

if TYPE_CHECKING:
    from pyproj import Proj

REACH_m = 3000.0
"""How far from the origin a site reaches; within it the projection is true to a few millimetres."""


class ProjectionError(PlainCompassError, ValueError):
    """A position that is none, or is too far away; the text says which and what is likely wrong."""


@dataclass(frozen=True, slots=True)
class Origin:
    """Where on the earth the job's origin lies, on the ellipsoid of satellite positioning."""

    longitude_deg: float
    latitude_deg: float

    def metres(self, longitude_deg: float, latitude_deg: float) -> tuple[float, float]:
        """(east_m, north_m) of a position. Raises ProjectionError when it is no position of this site."""
        if not abs(longitude_deg) <= 180.0 or not abs(latitude_deg) <= 90.0:
            raise ProjectionError(
                tr(
                    "longitude {longitude_deg:g}, latitude {latitude_deg:g} is no place on the earth; "
                    "longitude comes first",
                    longitude_deg=longitude_deg,
                    latitude_deg=latitude_deg,
                )
            )
        east, north = self._metres(longitude_deg, latitude_deg)
        if math.hypot(east, north) <= REACH_m:
            return east, north
        swapped = abs(longitude_deg) <= 90.0 and math.hypot(*self._metres(latitude_deg, longitude_deg)) <= REACH_m
        why = tr("; longitude and latitude look swapped") if swapped else ""
        raise ProjectionError(
            tr(
                "it lies {far:.0f} km from the origin; accepted: up to {reach_m:.0f} km{why}",
                far=math.hypot(east, north) / 1000,
                reach_m=REACH_m / 1000,
                why=why,
            )
        )

    def _metres(self, longitude_deg: float, latitude_deg: float) -> tuple[float, float]:
        east, north = _projection(self)(longitude_deg, latitude_deg)
        return (float(east), float(north)) if math.isfinite(east) and math.isfinite(north) else (math.inf, math.inf)

    def position(self, east_m: float, north_m: float) -> tuple[float, float]:
        """(longitude, latitude) in degrees of a place on the site."""
        longitude, latitude = _projection(self)(east_m, north_m, inverse=True)
        return float(longitude), float(latitude)


@lru_cache(maxsize=8)
def _projection(origin: Origin) -> Proj:
    # Imported here: only maps in longitude and latitude want it, and it costs a fifth of the start-up.
    from pyproj import Proj

    return Proj(proj="tmerc", lon_0=origin.longitude_deg, lat_0=origin.latitude_deg, k=1.0, ellps="WGS84", units="m")


def origin_of(site: Site) -> Origin | None:
    """The origin a site states; None where it states none."""
    if site.origin_east_deg is None or site.origin_north_deg is None:
        return None
    return Origin(site.origin_east_deg, site.origin_north_deg)
