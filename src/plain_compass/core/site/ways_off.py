"""Tracks by which timber leaves, and which way a stem points to the nearest."""

from __future__ import annotations

import math

import numpy as np

from ..base.frames import bearing_of, full_turn_deg
from ..base.kept import kept
from .site import Place, Site

NEAR_M = 60.0
"""Farther than that no stem is turned for a track."""
LEAST_M = 0.5
"""Nearer than that it stands on it: no way of lying is better than another."""


@kept("nearest track", 1024)
def _track_from(site: Site, at: Place) -> tuple[float, float] | None:
    """(bearing, metres) of the nearest track; None where there is none near."""
    best = (0.0, NEAR_M)
    for each in site.obstacles:
        if each.kind != "track" or len(each.points) < 2:
            continue
        points = np.array([(point.east_m - at.east_m, point.north_m - at.north_m) for point in each.points])
        along = np.diff(points, axis=0)
        shares = -(points[:-1] * along).sum(axis=1) / np.maximum((along**2).sum(axis=1), 1e-12)
        near = points[:-1] + np.clip(shares, 0.0, 1.0)[:, None] * along
        far = np.hypot(*near.T)
        first = int(far.argmin())
        if far[first] < best[1]:
            best = full_turn_deg(bearing_of(*near[first])), float(far[first])
    return best if best[1] < NEAR_M else None


def butt_to_way(site: Site, at: Place, lay_deg: float) -> float | None:
    """How far a stem on a lay points its butt to the nearest track, from 1 to -1; None where none is near."""
    track = _track_from(site, at)
    if track is None or track[1] < LEAST_M:
        return None
    return -math.cos(math.radians(lay_deg - track[0]))
