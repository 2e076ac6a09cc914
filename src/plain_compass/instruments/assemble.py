"""From lines of instruments to readings of the tree: what each sample, or several together, measures."""

from __future__ import annotations

import math
from dataclasses import replace

from ..core.base.errors import InputError
from ..core.base.frozen import dataclass
from ..core.measuring.estimate import Reading
from ..core.measuring.height import height_by_clinometer
from ..core.measuring.probe import sound_depth
from ..job.readings import SHELL, WIND, Taken
from ..job.spreads import spreads
from .protocol import Sample

TOP_FROM_DEG = 12.0
"""An angle whose line does not say what it is aimed at is taken for the top from this far above level."""


@dataclass(frozen=True, slots=True)
class _Sighting:
    """What has come in towards one height: the last distance, top and base not yet used."""

    distance: Sample | None = None
    top: Sample | None = None
    base: Sample | None = None


class Assembler:
    """Samples in, readings out. A height wants a distance and two angles, in any order."""

    def __init__(self) -> None:
        self._sighting = _Sighting()
        self.probe_bearing_deg = 0.0

    def add(self, sample: Sample, at: str = "") -> Taken | None:
        """The reading a sample completes; None while it is only part of one.

        Raises InputError when the parts make no sense together; they are dropped then.
        """
        if sample.kind == "girth":
            share = float(spreads()["length"]["tape"])
            diameter = sample.value / math.pi
            return _taken("tree.trunk.diameter_m", sample, (diameter,), (share * diameter,), at)
        if sample.kind == "wind":
            return _taken(WIND, sample, (sample.value,), (float(spreads()["wind_m_s"]["windmeter"]),), at)
        if sample.kind == "profile":
            depth = sound_depth(sample.depths_m, sample.resistance)
            spread = max(depth.spread, float(spreads()["tree"]["probe"]) * depth.value)
            return _taken(SHELL, sample, (self.probe_bearing_deg, depth.value), (0.0, spread), at)
        return self._sighted(sample, at)

    def _sighted(self, sample: Sample, at: str) -> Taken | None:
        self._sighting = replace(self._sighting, **{_aim(sample): sample})
        s = self._sighting
        if s.distance is None or s.top is None or s.base is None:
            return None
        self._sighting = _Sighting()
        angle = float(spreads()["angle_deg"]["clinometer"])
        laser = float(spreads()["distance"]["laser"])
        height = height_by_clinometer(
            Reading(s.distance.value, laser * s.distance.value),
            Reading(s.top.value, angle),
            Reading(s.base.value, angle),
            Reading(0.0, 0.0),
        )
        if not 0 < height.value < 150:
            raise InputError("height", height.value, kind="span", low=0.0, high=150.0)
        raw = "\n".join(part.raw for part in (s.distance, s.top, s.base))
        return Taken("tree.height_m", s.top.device, (height.value,), (height.spread,), raw, at)


def _aim(sample: Sample) -> str:
    """``distance``, ``top`` or ``base``: as the line says, or by how far above level it is."""
    if sample.kind == "distance":
        return "distance"
    if sample.aim in ("top", "base"):
        return sample.aim
    return "top" if sample.value >= TOP_FROM_DEG else "base"


def _taken(what: str, sample: Sample, values: tuple[float, ...], spread: tuple[float, ...], at: str) -> Taken:
    return Taken(what, sample.device, values, spread, sample.raw, at)
