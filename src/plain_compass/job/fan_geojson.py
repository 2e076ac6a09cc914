"""The fan of likely falls as GeoJSON."""

from __future__ import annotations

import json
import math

from ..core.assess import Assessment
from ..core.fall.fan import Fan
from ..core.site.site import Place
from .document import Job, TreePlan
from .fall import fan_outline
from .geojson import LOCAL, POSITIONS, coordinates_of, wanted_origin
from .stamp import stamp


def fan_geojson(job: Job, plan: TreePlan, result: Assessment, fan: Fan, *, positions: bool = False) -> str:
    """The fan and the middle of it as a FeatureCollection, in local metres or longitude and latitude.

    Raises GeoJsonError when positions are wanted and the job states no origin.
    """
    origin = wanted_origin(job.site, positions=positions)

    def pair(east: float, north: float) -> list[float]:
        return coordinates_of(Place(plan.at.east_m + east, plan.at.north_m + north), origin)

    lay = result.case.cut.lay_deg
    outline = fan_outline(fan, lay)
    turn = math.radians(lay - fan.off_deg[1])
    middle = [(0.0, 0.0), (fan.reach_m[1] * math.sin(turn), fan.reach_m[1] * math.cos(turn))]
    about = {"tree": plan.id, "lay_deg": lay, "samples": len(fan.samples), "indicative": True}
    features = [
        {
            "type": "Feature",
            "properties": {"kind": "fan", "share": 0.9, **about},
            "geometry": {"type": "Polygon", "coordinates": [[pair(*p) for p in (*outline, outline[0])]]},
        },
        {
            "type": "Feature",
            "properties": {"kind": "middle of the fan", **about},
            "geometry": {"type": "LineString", "coordinates": [pair(*p) for p in middle]},
        },
    ]
    told = {"coordinates": LOCAL if origin is None else POSITIONS, **stamp(job.practice)}
    whole = {"type": "FeatureCollection", "plain_compass": told, "features": features}
    return json.dumps(whole, indent=2, ensure_ascii=False, allow_nan=False) + "\n"
