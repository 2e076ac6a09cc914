"""The fan: where the top may come to lie, what it may hit, what else may happen, and what drives it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

import numpy as np
from numpy.typing import NDArray

from ..base.frames import full_turn_deg, half_turn_deg
from ..base.frozen import changed, dataclass
from ..base.polygon import Array
from ..mechanics.balance import first_kerfs, held_behind_kerf, shuts_rad, wedge_in_first
from ..mechanics.law import HingeLaw, Tipping, standing_use
from ..plan.case import Planned
from ..plan.many import alone
from ..plan.reach import faller_of, tree_alone
from ..site.landing import flies_m
from .butt import throws_m
from .ends import Catches, catches_round, ends_for, reach_round
from .falls import fall_all
from .motion import lets_go
from .rods import Falls, check_finite, tops_of
from .spread import Samples, Slopes, samples_of, slopes_in_steps

SHARES = (0.05, 0.5, 0.95)
"""Edges that hold nine falls in ten, and the middle."""
HALF_WAY = 0.5
"""A hinge lost before this share of the tilt was lost early: most of the steering was still to come."""
CLOSE_CALL = 0.02
"""Share of the hinge's side strength within which losing it only just, or not, counts as a close call."""
TOLD_DRIVERS = 6
"""Inputs named as what opens the fan: those after the sixth carry next to nothing."""


@dataclass(frozen=True, slots=True, eq=False)
class Landings:
    """Where each sample's top comes to lie; shapes (n,).

    Attributes:
        off_deg: left of the lay, as an angle at the stump.
        reach_m: distance from the stump.
        east_m, north_m: from the stump.
        hangs: index of the neighbour that holds it up, -1 where none does.
        behind: whether it went over the other way.
    """

    off_deg: Array
    reach_m: Array
    east_m: Array
    north_m: Array
    hangs: NDArray[np.intp]
    behind: NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Chance:
    """How likely something is.

    Attributes:
        key: what; ``hit`` for an obstacle.
        share: of the samples.
        index: which obstacle, -1 otherwise.
    """

    key: str
    share: float
    index: int = -1


@dataclass(frozen=True, slots=True, eq=False)
class Fan:
    """What the samples say together.

    Attributes:
        samples, falls, landings: the rows themselves.
        off_deg: how far left of the lay the top lies: 5, 50 and 95 of a hundred.
        reach_m: the same of its distance.
        off_m: the same of its distance from the lay.
        hits: chance for every obstacle under some sample, the likeliest first.
        sits_back, stays_up, splits, lost_early, hangs, breaks: chances.
        drivers: (input, share of the spread of the landing it accounts for), the largest first.
        close_calls: rows in which the hinge is only just lost, or only just holds: there the answer is a coin's.
        stepped: rows that had to be stepped through time.
    """

    samples: Samples
    falls: Falls
    landings: Landings
    off_deg: tuple[float, float, float]
    reach_m: tuple[float, float, float]
    off_m: tuple[float, float, float]
    hits: tuple[Chance, ...]
    sits_back: Chance
    stays_up: Chance
    splits: Chance
    lost_early: Chance
    hangs: Chance
    breaks: Chance
    drivers: tuple[tuple[str, float], ...]
    close_calls: int
    stepped: int

    @property
    def wrongs(self) -> tuple[Chance, ...]:
        """Every way in which it may go wrong by itself, beside what it hits."""
        return self.sits_back, self.stays_up, self.splits, self.lost_early, self.hangs, self.breaks

    @property
    def aim_off_deg(self) -> float:
        """How much farther left to aim so that the middle of the fan comes to lie on the lay."""
        return -self.off_deg[1]


def fan_of(
    planned: Planned,
    spreads: Mapping[str, float],
    cutting: Mapping[str, float],
    count: int,
    seed: int,
    *,
    whole: bool = True,
) -> Fan:
    """Draw likely falls, reckon them, and say what they have in common.

    Args:
        spreads: one standard deviation of each input of tree and wood.
        cutting: of the cutter's own work and the wind.
        whole: with what the section at the cut depends on and with neighbours; without for a first quick look.
    """
    *_, found = fan_in_steps(planned, spreads, cutting, count, seed, whole=whole)
    assert found is not None
    return found


def fan_in_steps(
    planned: Planned,
    spreads: Mapping[str, float],
    cutting: Mapping[str, float],
    count: int,
    seed: int,
    *,
    whole: bool = True,
) -> Iterator[Fan | None]:
    """``fan_of`` a few milliseconds at a time: None until the last, which is the fan."""
    slopes: dict[str, Slopes] = {}
    for more in slopes_in_steps(planned, spreads, whole=whole):
        slopes |= more
        if whole:
            yield None
    samples = samples_of(planned, slopes, cutting, count, seed)
    with np.errstate(all="ignore"):  # rows that run out of numbers are refused below, as a whole and in words
        falls = fall_all(samples.rods, ends_for(planned.case))
    check_finite(samples.rods, falls)
    catches = None
    if whole:
        yield None
        catches = _catches(planned) if planned.case.site.obstacles else None
        yield None
    yield fan_from(planned, samples, falls, catches)


def fan_from(planned: Planned, samples: Samples, falls: Falls, catches: Catches | None) -> Fan:
    """Put reckoned falls together."""
    landings = _landings(planned, samples, falls, catches)
    sits = _sits_back(planned, samples)
    over = falls.fell & ~landings.behind & ~sits
    some = over if over.any() else np.ones(len(samples), dtype=bool)
    off, reach = landings.off_deg[some], landings.reach_m[some]
    aside = reach * np.sin(np.radians(off))
    lost = (falls.broke_rad < HALF_WAY * falls.end_rad) & (falls.broke_by != 0) & (falls.broke_by != 4)
    return Fan(
        samples=samples,
        falls=falls,
        landings=landings,
        off_deg=_quantiles(off),
        reach_m=_quantiles(reach),
        off_m=_quantiles(aside),
        hits=_hits(planned, samples, falls, landings),
        sits_back=Chance("sits_back", float((sits | landings.behind).mean())),
        stays_up=Chance("stays_up", float((~falls.fell).mean())),
        splits=Chance("splits", float((samples.split_index > 1.0).mean())),
        lost_early=Chance("lost_early", float(lost.mean())),
        hangs=Chance("hangs", float((landings.hangs >= 0).mean())),
        breaks=Chance("breaks", float((_breaks(planned, samples) & (landings.hangs < 0)).mean())),
        drivers=_drivers(samples, landings, some),
        close_calls=_close_calls(samples, falls),
        stepped=int(falls.stepped.sum()),
    )


def _breaks(planned: Planned, samples: Samples) -> NDArray[np.bool_]:
    """Which samples break over the ground they lie on; of a top that falls from aloft that is not reckoned."""
    return (samples.break_index > 1.0) & (not planned.case.cut.is_aloft)


def _quantiles(values: Array) -> tuple[float, float, float]:
    # As np.quantile tells them, for whose sake NumPy imports its masked arrays: a thirtieth of a start.
    places = np.array(SHARES) * (len(values) - 1)
    low, middle, high = np.interp(places, np.arange(len(values)), np.sort(values)).tolist()
    return low, middle, high


def _landings(planned: Planned, samples: Samples, falls: Falls, catches: Catches | None) -> Landings:
    forward, left = tops_of(samples.rods, falls)
    bearing = samples.rods.lay_deg - np.degrees(np.arctan2(left, forward))
    hangs = np.full(len(samples), -1, dtype=np.intp)
    if catches is not None:
        row = catches.at(bearing)
        holds = (catches.use[row] / samples.gains >= 1.0) & (catches.tilt_rad[row] < falls.end_rad)
        hangs = np.where(holds, catches.which[row], -1)
    thrown = throws_m(samples.rods, falls, samples.weight_N, planned.case.constants.throw_share)
    reach = np.hypot(forward, left) + np.where(hangs < 0, thrown, 0.0)
    if planned.case.cut.is_aloft:
        # What is cut off aloft goes by its own length and what it is carried on, wherever it hung as its hinge let go.
        reach = samples.rods.length_m + flies_m(planned.case.cut.height_m)
    turn = np.radians(bearing)
    off = half_turn_deg(planned.case.cut.lay_deg - bearing)
    return Landings(
        off_deg=off,
        reach_m=reach,
        east_m=reach * np.sin(turn),
        north_m=reach * np.cos(turn),
        hangs=hangs,
        behind=falls.fell & (np.abs(off) > 90.0),
    )


def _catches(planned: Planned) -> Catches:
    case, faller = planned.case, faller_of(planned.case, planned.parts.mass)
    return catches_round(
        case.site, case.at, tree_alone(case), case.cut.lay_deg, faller, case.constants.crown_stops_J_m2
    )


def _hits(planned: Planned, samples: Samples, falls: Falls, landings: Landings) -> tuple[Chance, ...]:
    """Chance of every obstacle being under the tree."""
    case = planned.case
    if not case.site.obstacles:
        return ()
    table = reach_round(case.site, case.at, tree_alone(case))
    bearing = full_turn_deg(case.cut.lay_deg - landings.off_deg)
    rows = np.rint(bearing).astype(np.intp) % len(table)
    lands = falls.fell & (landings.hangs < 0)
    under = (table[rows] <= samples.rods.length_m[:, None]) & lands[:, None]
    shares = under.mean(axis=0)
    found = [Chance("hit", float(share), index) for index, share in enumerate(shares.tolist()) if share > 0]
    return tuple(sorted(found, key=lambda chance: -chance.share))


def _sits_back(planned: Planned, samples: Samples) -> NDArray[np.bool_]:
    """Which samples go over backwards before a wedge holds them, as ``Balance.sits_back_utilisation`` has it."""
    if wedge_in_first(planned.case.cut):
        return np.zeros(len(samples), dtype=np.bool_)
    many = alone(planned.case)
    kerf, fits = first_kerfs(many, planned.case.kit)
    if not fits[0]:
        return _back_on_hinge(planned, samples)
    held = held_behind_kerf(many, many.timbers, kerf)
    rows = np.zeros(len(samples), dtype=np.intp)
    law, grown = held.law.picked(rows), samples.grown
    law = changed(law, peak_Nm=law.peak_Nm * grown["peak"], stiffness_Nm=law.stiffness_Nm * grown["stiffness"])
    behind = samples.weight_N * (planned.parts.hinge.forward_m - held.centre_m[0])
    return _goes_back(planned, samples, (law, samples.rods.ahead_Nm + behind), held.arm_m[rows])


def _back_on_hinge(planned: Planned, samples: Samples) -> NDArray[np.bool_]:
    arm = planned.parts.hinge.forward_m - planned.parts.section.back_m
    return _goes_back(planned, samples, (samples.rods.law, samples.rods.ahead_Nm), np.full(len(samples), arm))


def _goes_back(planned: Planned, samples: Samples, held: tuple[HingeLaw, Array], arm_m: Array) -> NDArray[np.bool_]:
    law, ahead = held
    back = Tipping(samples.rods.bent_Nm, ahead, np.full(len(samples), planned.parts.loads.harmed_Nm))
    use = standing_use(law, back, shuts_rad(arm_m, planned.case.kit))
    return np.asarray((back.standing_Nm < 0) & (use > 1.0))


def _drivers(samples: Samples, landings: Landings, some: NDArray[np.bool_]) -> tuple[tuple[str, float], ...]:
    """Share of the landing's spread each input accounts for by itself: the square of its correlation."""
    off = landings.off_deg[some] - landings.off_deg[some].mean()
    spread = float((off * off).mean())
    if spread < 1e-12:
        return ()
    moved = samples.moved[some] - samples.moved[some].mean(axis=0)
    shared = (moved * off[:, None]).mean(axis=0) ** 2 / np.maximum((moved**2).mean(axis=0), 1e-12) / spread
    order = np.argsort(-shared)[:TOLD_DRIVERS]
    return tuple((samples.inputs[i], float(shared[i])) for i in order.tolist() if shared[i] > 0.005)


def _close_calls(samples: Samples, falls: Falls) -> int:
    """Rows whose hinge lets go at another tilt altogether when its side strength is a little less or more."""
    tilts = []
    for share in (1 - CLOSE_CALL, 1 + CLOSE_CALL):
        rods = samples.rods
        weaker = rods.changed(
            side_capacity_Nm=rods.side_capacity_Nm * share, twist_capacity_Nm=rods.twist_capacity_Nm * share
        )
        tilts.append(np.minimum(lets_go(weaker)[0], falls.end_rad))
    return int((np.abs(tilts[1] - tilts[0]) > np.radians(8.0)).sum())
