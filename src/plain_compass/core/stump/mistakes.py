"""Which of the usual mistakes a stump looks like: by what was read of it, those that moved the tree most first."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from ..base.frames import half_turn_deg
from ..design.cut import Cut
from ..plan.case import Case
from .as_cut import AsCut, happened

AIMED_OFF_DEG = 2.0
"""A face that points farther beside the lay was aimed badly: one shipped spread of aiming."""
UNEVEN_M, UNEVEN_SHARE = 0.006, 0.15
"""Ends that differ by more than this, or this share of the hinge, from what was planned of them."""
RUNS_PAST_M = 0.005
"""A cut that runs past the other by less met it, as far as a saw meets."""
LOW_M = 0.010
"""A step so much lower than planned."""
THIN_SHARE = 0.6
"""A strap, or both ends of the hinge, thinner than this share of the plan."""

Seen = Callable[[Cut, AsCut], bool]


def _aim(cut: Cut, as_cut: AsCut) -> bool:
    return as_cut.towards_deg is not None and abs(half_turn_deg(cut.gun_deg - as_cut.towards_deg)) > AIMED_OFF_DEG


def _runs_past(which: str, cut: Cut, as_cut: AsCut) -> bool:
    past = as_cut.overcut_m is not None and as_cut.overcut_m > cut.face.overcut_m + RUNS_PAST_M
    # Where nobody said which, it is told as the roof's: the one that is sawn first.
    return past and (as_cut.overcut_of == which or (which == "roof" and as_cut.overcut_of in ("unknown", "none")))


def _uneven(cut: Cut, as_cut: AsCut) -> bool:
    if as_cut.hinge_left_m is None or as_cut.hinge_right_m is None:
        return False
    thick = cut.hinge.mean_m
    off = (as_cut.hinge_left_m - as_cut.hinge_right_m) - (cut.hinge.left_m - cut.hinge.right_m)
    return abs(off) > max(UNEVEN_M, UNEVEN_SHARE * thick)


def _bored_far(cut: Cut, as_cut: AsCut) -> bool:
    ends = (as_cut.hinge_left_m, as_cut.hinge_right_m)
    planned = (cut.hinge.left_m, cut.hinge.right_m)
    both_thin = all(read is not None and read < THIN_SHARE * thick for read, thick in zip(ends, planned, strict=True))
    return as_cut.corners == "yes" or both_thin


def _thin_strap(cut: Cut, as_cut: AsCut) -> bool:
    return cut.back.held and as_cut.strap_m is not None and as_cut.strap_m < THIN_SHARE * cut.back.strap_m


def _low_step(cut: Cut, as_cut: AsCut) -> bool:
    return bool(as_cut.steps_m) and min(as_cut.steps_m) < cut.back.step_m - LOW_M


def _rot(_: Cut, as_cut: AsCut) -> bool:
    return bool(happened(as_cut.rot, as_cut.rot_m)) or as_cut.broke == "rot"


SEEN: dict[str, tuple[Seen, tuple[str, ...]]] = {
    "aim": (_aim, ("aim",)),
    "roof-overcut": (lambda cut, read: _runs_past("roof", cut, read), ("overcut",)),
    "floor-overcut": (lambda cut, read: _runs_past("floor", cut, read), ("overcut",)),
    "uneven": (_uneven, ("left", "right")),
    "bored-far": (_bored_far, ("left", "right", "loss")),
    "thin-strap": (_thin_strap, ("drive",)),
    "low-step": (_low_step, ("step",)),
    "rot": (_rot, ("loss",)),
}
"""Key of a mistake of the list -> how it is seen on a stump, and the parts of a miss that are its doing."""


def mistakes_of(case: Case, as_cut: AsCut, shares: Mapping[str, float]) -> tuple[str, ...]:
    """Keys of the mistakes the stump looks like, that which moved the tree most first.

    Args:
        case: as it was planned; where rot was known already, meeting it is no mistake.
        shares: of the miss, by group.
    """
    known_rot = case.tree.decay.kind in ("cavity", "shell")
    found = [key for key, (seen, _) in SEEN.items() if seen(case.cut, as_cut) and not (key == "rot" and known_rot)]

    def moved(key: str) -> float:
        return sum(abs(shares.get(group, 0.0)) for group in SEEN[key][1])

    return tuple(sorted(found, key=moved, reverse=True))
