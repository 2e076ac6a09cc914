"""What a plan tells beforehand, kept to be held against what happened."""

from __future__ import annotations

import math

from ..assess import Assessment
from ..base.frozen import dataclass
from ..base.quantity import Kind, quantity
from ..fall.fan import Fan
from ..fall.nominal import NominalFall
from .as_cut import AsCut


def _told(kind: Kind, low: float, high: float, label: str) -> float | None:
    found: float | None = quantity(None, kind=kind, low=low, high=high, label=label, optional=True, help=label)
    return found


@dataclass(frozen=True, slots=True)
class Told:
    """What a plan told of its fall; None where it told nothing.

    Attributes:
        low_deg, middle_deg, high_deg: edges of the fan that hold nine in ten, and its middle, left of the lay.
        splits, sits_back, hangs, lost_early: chances.
        hits: chance that anything of the site is hit.
        blows, lift_m: of the wedges (indicative).
    """

    low_deg: float | None = _told(Kind.ASIDE, -180.0, 180.0, "right edge of the fan")
    middle_deg: float | None = _told(Kind.ASIDE, -180.0, 180.0, "middle of the fan")
    high_deg: float | None = _told(Kind.ASIDE, -180.0, 180.0, "left edge of the fan")
    splits: float | None = _told(Kind.CHANCE, 0.0, 1.0, "chance of splitting")
    sits_back: float | None = _told(Kind.CHANCE, 0.0, 1.0, "chance of sitting back")
    hangs: float | None = _told(Kind.CHANCE, 0.0, 1.0, "chance of hanging up")
    lost_early: float | None = _told(Kind.CHANCE, 0.0, 1.0, "chance of losing the [hinge] early")
    hits: float | None = _told(Kind.CHANCE, 0.0, 1.0, "chance of hitting something")
    blows: float | None = _told(Kind.NUMBER, 0.0, 1e6, "blows told")
    lift_m: float | None = _told(Kind.FINE_LENGTH, 0.0, 1.0, "lift told")

    @property
    def is_told(self) -> bool:
        """Whether there was a fan."""
        return self.middle_deg is not None


def told_of(result: Assessment, fall: NominalFall | None, fan: Fan | None) -> Told:
    """What an assessed plan tells; of a fall that was not reckoned nothing."""
    wedging = result.parts.wedging
    driven = {
        "blows": wedging.blows if math.isfinite(wedging.blows) else None,
        "lift_m": max(wedging.lift_m, 0.0) if math.isfinite(wedging.lift_m) else None,
    }
    if fan is None or fall is None:
        return Told(**driven)
    return Told(
        low_deg=fan.off_deg[0],
        middle_deg=fan.off_deg[1],
        high_deg=fan.off_deg[2],
        splits=fan.splits.share,
        sits_back=fan.sits_back.share,
        hangs=fan.hangs.share,
        lost_early=fan.lost_early.share,
        hits=max((hit.share for hit in fan.hits), default=0.0),
        **driven,
    )


def in_fan(told: Told, missed_deg: float) -> bool | None:
    """Whether a miss lay between the edges that hold nine in ten; None where there was no fan."""
    if told.low_deg is None or told.high_deg is None:
        return None
    return told.low_deg <= missed_deg <= told.high_deg


def came_true(told: Told, as_cut: AsCut) -> dict[str, tuple[float, bool]]:
    """(chance told, whether it happened) of everything that was told and looked at, by name."""
    happened = {
        "splits": as_cut.has_split,
        "sits_back": {"yes": True, "no": False}.get(as_cut.sat_back),
        "lost_early": lost_early(as_cut),
    }
    found = {}
    for name, did in happened.items():
        chance = getattr(told, name)
        if chance is not None and did is not None:
            found[name] = (chance, did)
    return found


EARLY_DEG = 45.0
"""A hinge seen to part before this was lost early: half the way down, as the fan counts it."""


def lost_early(as_cut: AsCut) -> bool | None:
    """Whether the hinge was lost early: by the tilt at which that was seen, else by what broke it."""
    if as_cut.broke_deg is not None:
        return as_cut.broke_deg < EARLY_DEG
    return None if as_cut.broke == "unknown" else as_cut.broke in ("side", "cut", "rot")
