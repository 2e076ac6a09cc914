"""The lay rose: what every bearing would mean, each with a face and hinge sized for it by the practice."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TypeAlias

import numpy as np

from ..base.errors import InputError
from ..base.levels import Group, Level
from ..base.phrase import Phrase
from ..base.polygon import Array
from ..base.quantity import declared
from ..design.checks import Room, check_case, check_cut_fits
from ..design.cut import BackCut, Cut, Face, Hinge, WedgeSeat
from ..judge.findings import Finding
from ..judge.ground import ground_findings
from ..judge.limits import IDS, LIMITS, Shares, level_at, shares_of
from ..judge.lying import slide_findings
from ..judge.unmeasured import require_measured
from ..plan.case import Case
from ..plan.many import Many, many_of
from ..plan.reach import behind_by_bearing, lying
from ..site.landing import hits_by_bearing, sampled
from ..site.rigging import Rope
from ..site.rope import pull_needed_N
from ..tree.sections import Place as SectionPlace
from ..tree.sections import Sections, sections_of

BLOCK = 72
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
REFUSING = ("landing.targets", "landing.hang_up", "landing.tangled", "landing.slide", "way_out.")
"""Findings of the ground whose stop refuses a bearing whatever the cut."""
MOVED_BY_WEDGES = ("wedge.", "balance.over", "balance.wind")
"""Findings that do not rule where a rope moves the tree instead."""
Met: TypeAlias = tuple[int, ...]
"""Indices of obstacles."""
HELPS = ("none", "wedges", "rope", "not with this kit")


@dataclass(frozen=True, slots=True)
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
        refused_by: id of the finding that does, and ``why`` its sentence; nothing where it is not refused.
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
    why: Phrase | None = None


def targets_by_bearing(case: Case, bearings_deg: Array) -> tuple[tuple[int, ...], ...]:
    """Obstacles under the tree at each bearing, all bearings in one pass."""
    count = len(case.site.obstacles)
    table = hits_by_bearing(sampled(case.site, case.at), lying(case), bearings_deg, count)
    return tuple(tuple(np.nonzero(row)[0].tolist()) for row in table)


def turned_away(case: Case) -> Case:
    """The case without what every bearing has of its own: two cases alike in this have the same rose.

    Whatever ``sized_for`` puts in place is set to one value here, and everything else counts, the roof of the face, its
    floor and aiming off too: a spoke that is shown must be that of the plan as it is.
    """
    cut = case.cut
    face, back = replace(cut.face, depth_m=0.0, overcut_m=0.0), replace(cut.back, form="plain")
    return replace(case, rope=Rope(), cut=replace(cut, lay_deg=0.0, face=face, hinge=Hinge(0.0, 0.0), back=back))


def sized_for(case: Case, bearing_deg: float, back: str, depth: float) -> Case:
    """The case turned to a bearing, its face and hinge in the middle of the practice's ranges for the wood there.

    A rope that is set leads to one place, so that it is left out: the rose asks what help each bearing would take.

    Args:
        depth: of the wood along that bearing.
    """
    practice, cut = case.practice, case.cut
    thick = max(sum(practice.hinge_ratio) / 2 * depth, practice.hinge_least_m)
    face = replace(cut.face, depth_m=sum(practice.face_depth_ratio) / 2 * depth, overcut_m=0.0)
    strap = min(cut.back.strap_m, 0.15 * depth)
    # Straight behind is the strap: a bored cut has its wedges beside it.
    seats = cut.wedges if back == "plain" else BESIDE_STRAP
    return replace(
        case,
        rope=Rope(),
        cut=replace(
            cut,
            lay_deg=bearing_deg,
            face=face,
            hinge=Hinge(thick, thick),
            back=replace(cut.back, form=back, strap_m=strap),
            wedges=seats,
        ),
    )


def spokes_at(case: Case, bearings_deg: Sequence[float], targets: Sequence[tuple[int, ...]]) -> tuple[Spoke, ...]:
    """Some bearings, each judged with the back cut that leaves more margin; the physics of all of them at once.

    The bored cut is tried only where cutting from behind is near its splitting limit, as the practice has it.
    """
    plain = _Tries(case, bearings_deg, "plain")
    near = [at for at in range(len(bearings_deg)) if plain.split_index(at) >= BORE_FROM]
    bored = _Tries(case, [bearings_deg[at] for at in near], "bored")
    missed = behind_by_bearing(case, np.array(bearings_deg, dtype=np.float64))
    second = {at: place for place, at in enumerate(near)}
    found = []
    for at, bearing in enumerate(bearings_deg):
        tries, place = plain, at
        if at in second and bored.margin(second[at]) > plain.margin(at):
            tries, place = bored, second[at]
        found.append(_spoke(case, float(bearing), tries, place, (targets[at], missed[at])))
    return tuple(found)


class _Tries:
    """The case turned to some bearings with one back cut; where a cut does not fit the wood there is nothing."""

    def __init__(self, case: Case, bearings_deg: Sequence[float], back: str) -> None:
        self.back = back
        cases = _sized(case, bearings_deg, back)
        self.rows = {at: row for row, at in enumerate(at for at, one in enumerate(cases) if one is not None)}
        fit = [one for one in cases if one is not None]
        self.shares = shares_of(many_of(fit)) if fit else None
        self.ruled, self.left = self.shares.ruling() if self.shares else (np.zeros(0), np.zeros(0))

    def split_index(self, at: int) -> float:
        """Splitting index of a cut from behind there; infinite where it does not fit."""
        if at not in self.rows or self.shares is None:
            return math.inf
        return float(self.shares.many.splitting.split_index_plain[self.rows[at]])

    def margin(self, at: int) -> float:
        """The least margin there."""
        return float(self.left[self.rows[at]]) if at in self.rows else -math.inf


def _sized(case: Case, bearings_deg: Sequence[float], back: str) -> list[Case | None]:
    """The case sized for each bearing; None where face and hinge do not fit one behind the other there."""
    check_case(case.tree, case.site, case.cut, case.kit, case.rope)
    if not len(bearings_deg):
        return []
    wood = _wood(case, bearings_deg)
    # The face is cut on the gun mark, which may stand beside the lay.
    aimed = wood if not case.cut.aim_off_deg else _wood(case, [b + case.cut.aim_off_deg for b in bearings_deg])
    found: list[Case | None] = []
    for at, bearing in enumerate(bearings_deg):
        one = sized_for(case, float(bearing), back, float(wood.depth_m[at]))
        try:
            _check_sizes(one.cut)
            check_cut_fits(Room(float(aimed.front_m[at]), float(aimed.depth_m[at])), one.cut)
        except InputError:
            found.append(None)
            continue
        found.append(one)
    return found


def _check_sizes(cut: Cut) -> None:
    """Raise InputError unless what ``sized_for`` has set is in range; the rest of the cut is as it was."""
    for part, name, bounds in SIZED:
        bounds.check(f"cut.{part}.{name}", getattr(getattr(cut, part), name))


def _wood(case: Case, bearings_deg: Sequence[float]) -> Sections:
    """The wood at the cut along some bearings."""
    exponent = case.constants.profile_exponent[case.wood.group]
    return sections_of([SectionPlace(case.tree, case.cut.height_m, float(b), exponent) for b in bearings_deg])


def _spoke(case: Case, bearing_deg: float, tries: _Tries, at: int, meets: tuple[Met, Met]) -> Spoke:
    """One bearing as it was tried.

    Args:
        meets: obstacles under the tree, and those a tree that sits back would reach.
    """
    targets, missed = meets
    costs = {case.site.obstacles[index].cost for index in targets}
    if at not in tries.rows or tries.shares is None:
        never = "never" in costs
        nothing = (HELPS[3], 0.0, 0.0, 0.0)
        return Spoke(bearing_deg, -9.99, "cut", Group.FACE, Level.STOP, *nothing, targets, never, tries.back)
    shares, row = tries.shares, tries.rows[at]
    many, own = shares.many, shares.many.cases[row]
    wedging, wanted = many.wedging, bool(many.wedging.tilt_deg[row] > 0)
    moment = float(wedging.moment_Nm[row])
    length = case.tree.height_m - case.cut.height_m
    pull = pull_needed_N(moment, ATTACHED_SHARE * length, ANCHOR_LENGTHS * length)
    costs |= {case.site.obstacles[index].cost for index in missed}
    help = "none"
    if wanted and moment > 0:
        help = _help(case, shares, row, pull, costs)
    ruled, margin = int(tries.ruled[row]), float(tries.left[row])
    if help == "rope":
        ruled, margin = shares.ruling_at(row, leaving_out=MOVED_BY_WEDGES)
    id = IDS[ruled]
    against = _refused(own, many, row)
    return Spoke(
        bearing_deg=bearing_deg,
        margin=margin,
        ruled_by=id,
        group=LIMITS[id].group,
        level=level_at(id, float(shares.use[ruled, row])),
        help=help,
        lift_m=float(wedging.lift_m[row]) if wanted else 0.0,
        blows=float(wedging.blows[row]) if wanted else 0.0,
        pull_N=pull if wanted else 0.0,
        targets=targets,
        refused=against is not None,
        back=tries.back,
        refused_by=against.id if against else "",
        why=against.sentence if against else None,
    )


def _refused(case: Case, many: Many, row: int) -> Finding | None:
    """What of the ground refuses a bearing whatever the cut; nothing where nothing does."""
    findings = (*ground_findings(case, many.standing(row)), *slide_findings(case, many.resting[row]))
    return next((f for f in findings if f.level == Level.STOP and f.id.startswith(REFUSING)), None)


def _help(case: Case, shares: Shares, row: int, pull_N: float, costs: set[str]) -> str:
    """What moves a tree that must be moved. Where a miss would cost something, wedges alone are not enough."""
    uses = shares.at(row)
    stops = any(use > 1.0 for id, use in uses.items() if LIMITS[id].group == Group.WEDGE or id == "balance.over")
    if not stops and not costs & {"matters", "never"}:
        return "wedges"
    return "rope" if pull_N <= case.kit.pull_N else "not with this kit"


def spoke_at(case: Case, bearing_deg: float, targets: tuple[int, ...]) -> Spoke:
    """One bearing."""
    return spokes_at(case, [bearing_deg], [targets])[0]


def whole_rose(case: Case, bearings_deg: Array) -> tuple[Spoke, ...]:
    """Every bearing. Raises UnmeasuredError for a tree that has not been measured."""
    require_measured(case.tree, "measured.each_bearing")
    targets, found = targets_by_bearing(case, bearings_deg), list[Spoke]()
    for start in range(0, len(bearings_deg), BLOCK):
        here = slice(start, start + BLOCK)
        found += spokes_at(case, bearings_deg[here].tolist(), targets[here])
    return tuple(found)
