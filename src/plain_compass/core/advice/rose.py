"""The lay rose: what every bearing would mean, each with a face and hinge sized for it by the practice."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from itertools import groupby
from typing import NamedTuple

import numpy as np

from ..base.errors import InputError
from ..base.frozen import changed, dataclass
from ..base.levels import Group, Level
from ..base.phrase import Phrase
from ..base.quantity import declared
from ..base.rows import Array, in_blocks
from ..design.checks import Room, check_case, check_cut_fits
from ..design.cut import BackCut, Cut, Face, Hinge, WedgeSeat
from ..judge.limits import IDS, LIMITS, Shares, level_at, shares_of
from ..judge.refusals import refusal, refused
from ..judge.unmeasured import require_measured
from ..mechanics.mass import tree_mass
from ..plan.case import Case
from ..plan.many import many_of, place_of
from ..plan.reach import DEAR, Meets, meets_by_bearing
from ..site.rigging import Rope
from ..site.rope import pull_needed_N
from ..site.site import Cost
from ..tree.sections import along_lays_m

BLOCK = 180
"""Bearings worked out at once: few enough that what is being worked on stays near the processor."""
BESIDE_STRAP = (WedgeSeat(50.0), WedgeSeat(-50.0))
"""Where wedges go when a spoke is bored: beside the strap, clear of it on any stem."""
BORE_FROM = 0.5
"""Splitting index of a cut from behind from which a bored one is tried too; a watch begins there."""
ATTACHED_SHARE = 0.6
"""Share of the height at which a rope is taken to be set."""
ANCHOR_LENGTHS = 1.5
"""Tree lengths from the stump at which the anchor is taken to stand."""
SIZED = (
    ("face", "depth_m", declared(Face, "depth_m")),
    ("hinge", "left_m", declared(Hinge, "left_m")),
    ("hinge", "right_m", declared(Hinge, "right_m")),
    ("back", "strap_m", declared(BackCut, "strap_m")),
)
"""What is sized for each bearing, and the range it must stay in."""
MOVED_BY_WEDGES = ("wedge.", "balance.over", "balance.sits_back", "balance.wind")
"""Findings that do not rule where a rope moves the tree instead."""
HELPS = ("none", "wedges", "rope", "not with this kit")


@dataclass(frozen=True)
class Spoke:
    """One bearing.

    Attributes:
        margin: least margin of what the physics judges, for the better of a cut from behind and a bored one.
        ruled_by: id of the finding that has it; ``group`` is its limit state.
        level: worst level of the physics there.
        help: one of ``HELPS``.
        lift_m, blows: what the wedges must do; nothing where the tree goes by itself.
        pull_N: pull on a rope at six tenths of the height that would do instead of wedges.
        targets: indices of the obstacles under the tree.
        refused: whether the ground refuses it: something that must never be hit, a hang-up, no way out.
        refused_by: id of the finding that does; nothing where it is not refused. ``why_refused`` has its sentence.
        refused_at: index of the obstacle that is about; -1 where it is about none.
        back: the back cut it is judged with.
    """

    bearing_deg: float
    margin: float
    ruled_by: str
    group: Group
    level: Level
    help: str
    lift_m: float
    blows: float
    pull_N: float
    targets: tuple[int, ...]
    refused: bool
    back: str
    refused_by: str = ""
    refused_at: int = -1


def turned_away(case: Case) -> Case:
    """The case without what every bearing has of its own: two cases alike in this have the same rose.

    Whatever ``sized_for`` puts in place is set to one value here, and everything else counts, the roof of the face, its
    floor and aiming off too: a spoke that is shown must be that of the plan as it is.
    """
    cut = case.cut
    face, back = replace(cut.face, depth_m=0.0, overcut_m=0.0), replace(cut.back, form="plain")
    return replace(case, rope=Rope(), cut=replace(cut, lay_deg=0.0, face=face, hinge=Hinge(0.0, 0.0), back=back))


def sized_for(case: Case, bearing_deg: float, back: str, depth: float) -> Case:
    """The case turned to a bearing, its face and hinge as the practice begins them for the wood there.

    A rope that is set leads to one place, so that it is left out: the rose asks what help each bearing would take.

    Args:
        depth: of the wood along that bearing.
    """
    practice, cut = case.practice, case.cut
    thick = practice.hinge_m(depth)
    face = changed(cut.face, depth_m=sum(practice.face_depth_ratio) / 2 * depth, overcut_m=0.0)
    strap = min(cut.back.strap_m, 0.15 * depth)
    # Straight behind is the strap: a bored cut has its wedges beside it.
    seats = cut.wedges if back == "plain" else BESIDE_STRAP
    return changed(
        case,
        rope=Rope(),
        cut=changed(
            cut,
            lay_deg=bearing_deg,
            face=face,
            hinge=Hinge(thick, thick),
            back=changed(cut.back, form=back, strap_m=strap),
            wedges=seats,
        ),
    )


class Asked(NamedTuple):
    """A case to be turned to a bearing, and what it meets there: see ``meets_by_bearing``."""

    case: Case
    bearing_deg: float
    meets: Meets


def spokes_at(case: Case, bearings_deg: Sequence[float], meets: Sequence[Meets]) -> tuple[Spoke, ...]:
    """Some bearings of one case.

    Args:
        meets: what lies under the tree on each of them, see ``meets_by_bearing``.
    """
    return spokes_of([Asked(case, *each) for each in zip(bearings_deg, meets, strict=True)])


def spokes_of(asked: Sequence[Asked]) -> tuple[Spoke, ...]:
    """Bearings of one case or of several, each judged with the back cut that leaves more margin, all at once.

    The bored cut is tried only where cutting from behind is near its splitting limit, as the practice has it. The cases
    share what those of ``many_of`` share; those of one case stand next to one another.
    """
    plain = _Tries(asked, "plain")
    near = [at for at in range(len(asked)) if plain.split_index(at) >= BORE_FROM]
    bored = _Tries([asked[at] for at in near], "bored")
    second = {at: place for place, at in enumerate(near)}
    found = []
    for at in range(len(asked)):
        bores = at in second and bored.margin(second[at]) > plain.margin(at)
        found.append(bored.spoke(second[at]) if bores else plain.spoke(at))
    return tuple(found)


class _Tries:
    """Cases turned to bearings with one back cut; where a cut does not fit the wood there is nothing."""

    def __init__(self, asked: Sequence[Asked], back: str) -> None:
        self.asked, self.back = asked, back
        cases = [one for case, here in groupby(asked, _case_of) for one in _sized(case, [*here], back)]
        self.rows = {at: row for row, at in enumerate(at for at, one in enumerate(cases) if one is not None)}
        self.costs = [each.cost for each in asked[0].case.site.obstacles] if asked else []
        fit = [one for one in cases if one is not None]
        if fit:
            self._take(shares_of(many_of(fit)))

    def _take(self, shares: Shares) -> None:
        """Keep what spokes say, as plain numbers by row."""
        self.shares, many = shares, shares.many
        ruled, left = shares.ruling()
        self.ruled, self.left = ruled.tolist(), left.tolist()
        self.splits = many.splitting.split_index_plain.tolist()
        wedging = many.wedging
        self.tilts, self.moments = wedging.tilt_deg.tolist(), wedging.moment_Nm.tolist()
        self.lifts, self.blows = wedging.lift_m.tolist(), wedging.blows.tolist()
        wedges = [place for place, id in enumerate(IDS) if LIMITS[id].group == Group.WEDGE or id == "balance.over"]
        self.wedges_fail: list[bool] = np.any(shares.use[wedges] > 1.0, axis=0).tolist()
        self.refused = refused(many, [self.asked[at].meets.targets for at in self.rows])

    def split_index(self, at: int) -> float:
        """Splitting index of a cut from behind there; infinite where it does not fit."""
        return self.splits[self.rows[at]] if at in self.rows else math.inf

    def margin(self, at: int) -> float:
        """The least margin there."""
        return self.left[self.rows[at]] if at in self.rows else -math.inf

    def spoke(self, at: int) -> Spoke:
        """One bearing as it was tried."""
        case, meets = self.asked[at].case, self.asked[at].meets
        bearing, targets = float(self.asked[at].bearing_deg), meets.targets
        costs = {self.costs[index] for index in targets}
        if at not in self.rows:
            nothing = (HELPS[3], 0.0, 0.0, 0.0)
            never = Cost.NEVER in costs
            return Spoke(bearing, -9.99, "cut", Group.FACE, Level.STOP, *nothing, targets, never, self.back)
        row = self.rows[at]
        wanted, moment = self.tilts[row] > 0, self.moments[row]
        length = case.tree.height_m - case.cut.height_m
        pull = pull_needed_N(moment, ATTACHED_SHARE * length, ANCHOR_LENGTHS * length) if wanted else 0.0
        ruled, margin, help = self.ruled[row], self.left[row], "none"
        if wanted and moment > 0:
            dear = costs | {self.costs[index] for index in meets.missed}
            # Where a miss would cost something, wedges alone are not enough.
            wedges = not self.wedges_fail[row] and dear.isdisjoint(DEAR)
            help = "wedges" if wedges else "rope" if pull <= case.kit.pull_N else "not with this kit"
        if help == "rope":
            ruled, margin = self.shares.ruling_at(row, leaving_out=MOVED_BY_WEDGES)
        id = IDS[ruled]
        return Spoke(
            bearing_deg=bearing,
            margin=margin,
            ruled_by=id,
            group=LIMITS[id].group,
            level=level_at(id, float(self.shares.use[ruled, row])),
            help=help,
            lift_m=self.lifts[row] if wanted else 0.0,
            blows=self.blows[row] if wanted else 0.0,
            pull_N=pull,
            targets=targets,
            refused=bool(self.refused[row].id),
            back=self.back,
            refused_by=self.refused[row].id,
            refused_at=self.refused[row].obstacle,
        )


def _case_of(asked: Asked) -> Case:
    return asked.case


def _sized(case: Case, asked: Sequence[Asked], back: str) -> list[Case | None]:
    """The case sized for each bearing; None where face and hinge do not fit one behind the other there."""
    check_case(case.tree, case.site, case.cut, case.kit, case.rope)
    lays_deg = np.array([each.bearing_deg for each in asked], dtype=np.float64)
    front, back_m = along_lays_m(place_of(case), lays_deg)
    depth = (front - back_m).tolist()
    # The face is cut on the gun mark, which may stand beside the lay.
    front, back_m = along_lays_m(place_of(case), lays_deg - case.cut.aim_off_deg)
    rooms = [Room(*each) for each in zip(front.tolist(), (front - back_m).tolist(), strict=True)]
    found: list[Case | None] = []
    for bearing, deep, room in zip(lays_deg.tolist(), depth, rooms, strict=True):
        one = sized_for(case, bearing, back, deep)
        try:
            _check_sizes(one.cut)
            check_cut_fits(room, one.cut)
        except InputError:
            found.append(None)
            continue
        found.append(one)
    return found


def _check_sizes(cut: Cut) -> None:
    """Raise InputError unless what ``sized_for`` has set is in range; the rest of the cut is as it was."""
    for part, name, bounds in SIZED:
        bounds.check(f"cut.{part}.{name}", getattr(getattr(cut, part), name))


def why_refused(case: Case, spoke: Spoke) -> Phrase | None:
    """Why the ground refuses a bearing; nothing where it does not, or where nothing but the cut fails there."""
    if not spoke.refused_by:
        return None
    own = replace(case, rope=Rope(), cut=replace(case.cut, lay_deg=spoke.bearing_deg))
    mass = tree_mass(own.tree, own.wood, own.cut, own.constants)
    finding = refusal(own, mass, spoke.refused_by)
    return finding.sentence if finding is not None else None


def whole_rose(case: Case, bearings_deg: Array) -> tuple[Spoke, ...]:
    """Every bearing. Raises UnmeasuredError for a tree that has not been measured."""
    require_measured(case.tree, "measured.each_bearing")
    meets, found = meets_by_bearing(case, bearings_deg), list[Spoke]()
    for here in in_blocks(len(bearings_deg), BLOCK):
        found += spokes_at(case, bearings_deg[here].tolist(), meets[here])
    return tuple(found)
