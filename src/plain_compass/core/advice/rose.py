"""The lay rose: what every bearing would mean, each judged with the practice's own design for it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import groupby
from typing import NamedTuple

import numpy as np

from ..base.frozen import changed, dataclass
from ..base.levels import Group, Level
from ..base.phrase import Phrase
from ..base.rows import Array, in_blocks
from ..design.checks import check_case
from ..design.cut import Cut
from ..judge.limits import IDS, LIMITS, Shares, level_at
from ..judge.refusals import Refusal, refusal, refused
from ..judge.unmeasured import require_measured
from ..mechanics.mass import tree_mass
from ..mechanics.wedge_plan import WAYS
from ..plan.case import Case
from ..plan.many import place_of
from ..plan.reach import Meets, meets_by_bearing
from ..site.rigging import rope_along
from ..site.rope import pull_needed_N
from ..site.site import Cost
from ..tree.sections import along_lays_m
from .begin import Begun, begun_many

BLOCK = 180
"""Bearings worked out at once: few enough that what is being worked on stays near the processor."""
ATTACHED_SHARE = 0.6
"""Share of the height at which a rope is taken to be set."""
ANCHOR_LENGTHS = 1.5
"""Tree lengths from the stump at which the anchor is taken to stand."""
MOVED_BY_WEDGES = ("wedge.", "balance.over", "balance.sits_back", "balance.wind")
"""Findings that do not rule where a rope moves the tree instead."""
HELPS = ("none", "wedges", "rope", "not with this kit")
"""What a bearing takes: a rope that is set counts as what it takes everywhere."""


@dataclass(frozen=True)
class Spoke:
    """One bearing.

    Attributes:
        margin: least margin of what the physics judges, with the practice's own design.
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
        way: how wedging goes on there, one of ``WAYS``; empty where nothing is driven.
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
    way: str = ""
    refused_by: str = ""
    refused_at: int = -1


def turned_away(case: Case) -> Case:
    """The case without what every bearing has of its own: two cases alike in this have the same rose.

    Each bearing is judged with the practice's own design, so that nothing of the cut counts but its height, how far one
    goes on, and what was read; a rope is led ahead along each lay, as high, as far and as hard as it is set.
    """
    kept = Cut(height_m=case.cut.height_m, goes_on=case.cut.goes_on, aloft=case.cut.aloft)
    return replace(case, rope=rope_along(case.rope, case.at, 0.0), cut=kept)


def turned_to(case: Case, bearing_deg: float) -> Case:
    """The case on another lay, a rope that is set led ahead along it; its ways out are found anew."""
    cut = changed(case.cut, lay_deg=bearing_deg, way_left_deg=None, way_right_deg=None, aim_off_deg=0.0)
    return changed(case, cut=cut, rope=rope_along(case.rope, case.at, bearing_deg))


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
    """Bearings of one case or of several, each judged with the practice's own design for it, all at once.

    The cases share what those of ``many_of`` share; those of one case stand next to one another.
    """
    cases, depths = list[Case](), list[float]()
    for case, here in groupby(asked, _case_of):
        check_case(case.tree, case.site, case.cut, case.kit, case.rope)
        bearings = [each.bearing_deg for each in here]
        front, back = along_lays_m(place_of(case), np.array(bearings, dtype=np.float64))
        cases += [turned_to(case, bearing) for bearing in bearings]
        depths += (front - back).tolist()
    found = begun_many(cases, depths)
    judged = _Judged(asked, found)
    return tuple(judged.spoke(at) for at in range(len(asked)))


class _Judged:
    """Own designs of bearings, their limits and what the ground says of each."""

    def __init__(self, asked: Sequence[Asked], found: Sequence[Begun | None]) -> None:
        self.asked, self.found = asked, found
        self.costs = [each.cost for each in asked[0].case.site.obstacles] if asked else []
        apart = {id(each.shares): each.shares for each in found if each is not None}
        self.tables = {key: _Table(shares) for key, shares in apart.items()}
        self.refused: dict[int, Refusal] = {}
        for key, table in self.tables.items():
            own = [at for at, each in enumerate(found) if each is not None and id(each.shares) == key]
            rows = [each.row for each in found if each is not None and id(each.shares) == key]
            # What the first pass tried and the second replaced is refused by the ground alike, and asked for once.
            targets: list[tuple[int, ...]] = [()] * len(table.shares.many.cases)
            for at, row in zip(own, rows, strict=True):
                targets[row] = asked[at].meets.targets
            told = refused(table.shares.many, targets)
            self.refused |= {at: told[row] for at, row in zip(own, rows, strict=True)}

    def spoke(self, at: int) -> Spoke:
        """One bearing."""
        asked, one = self.asked[at], self.found[at]
        case, bearing, targets = asked.case, float(asked.bearing_deg), asked.meets.targets
        if one is None:
            never = Cost.NEVER in {self.costs[index] for index in targets}
            nothing = ("not with this kit", 0.0, 0.0, 0.0)
            return Spoke(bearing, -9.99, "cut", Group.FACE, Level.STOP, *nothing, targets, never, "plain")
        table = self.tables[id(one.shares)]
        row, wanted = one.row, table.tilts[one.row] > 0
        length = case.tree.height_m - case.cut.height_m
        moment = table.moments[row]
        pull = pull_needed_N(moment, ATTACHED_SHARE * length, ANCHOR_LENGTHS * length) if wanted else 0.0
        ruled, margin, help = table.ruled[row], table.left[row], "none"
        behind = {self.costs[index] for index in asked.meets.missed}
        if case.rope.use == "set":
            help, pull = "rope", case.rope.haul_N
        elif wanted and moment > 0:
            # Where a miss must never be, wedges alone are not enough.
            missed = table.behind[row] and Cost.NEVER in behind
            wedges = not table.wedges_fail[row] and not missed
            help = "wedges" if wedges else "rope" if pull <= case.kit.pull_N else "not with this kit"
            if help == "rope":
                ruled, margin = table.shares.ruling_at(row, leaving_out=MOVED_BY_WEDGES)
        name = IDS[ruled]
        return Spoke(
            bearing_deg=bearing,
            margin=margin,
            ruled_by=name,
            group=LIMITS[name].group,
            level=level_at(name, float(table.shares.use[ruled, row])),
            help=help,
            lift_m=table.lifts[row] if wanted else 0.0,
            blows=table.blows[row] if wanted else 0.0,
            pull_N=pull,
            targets=targets,
            refused=bool(self.refused[at].id),
            back=one.case.cut.back.form,
            way=WAYS[table.ways[row]] if wanted else "",
            refused_by=self.refused[at].id,
            refused_at=self.refused[at].obstacle,
        )


class _Table:
    """What spokes say of the rows of some shares, as plain numbers."""

    def __init__(self, shares: Shares) -> None:
        self.shares, many = shares, shares.many
        ruled, left = shares.ruling()
        self.ruled, self.left = ruled.tolist(), left.tolist()
        self.tilts, self.moments = many.wedging.tilt_deg.tolist(), many.wedging.moment_Nm.tolist()
        self.lifts, self.blows = many.wedge_plan.lift_m.tolist(), many.wedge_plan.blows.tolist()
        self.ways: list[int] = many.wedge_plan.way.astype(int).tolist()
        self.behind: list[bool] = (many.balance.moment_forward_Nm < 0).tolist()
        wedges = [place for place, id in enumerate(IDS) if LIMITS[id].group == Group.WEDGE or id == "balance.over"]
        self.wedges_fail: list[bool] = np.any(shares.use[wedges] > 1.0, axis=0).tolist()


def _case_of(asked: Asked) -> Case:
    return asked.case


def why_refused(case: Case, spoke: Spoke) -> Phrase | None:
    """Why the ground refuses a bearing; nothing where it does not, or where nothing but the cut fails there."""
    if not spoke.refused_by:
        return None
    own = turned_to(case, spoke.bearing_deg)
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
