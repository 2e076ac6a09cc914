"""The lay rose: what every bearing would mean, each with a face and hinge sized for it by the practice."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.levels import Group, Level
from ..base.phrase import Phrase
from ..base.polygon import Array
from ..design.cut import Hinge, WedgeSeat
from ..judge.unmeasured import require_measured
from ..plan.case import Case
from ..plan.reach import behind, lying
from ..site.landing import hits_by_bearing, sampled
from ..site.rigging import Rope
from ..site.rope import pull_needed_N
from ..tree.section import section_at
from .survey import least, least_margin, margin_left

BESIDE_STRAP = (WedgeSeat(50.0), WedgeSeat(-50.0))
"""Where wedges go when a spoke is bored: beside the strap, clear of it on any stem."""
BORE_FROM = 0.5
"""Splitting index of a cut from behind from which a bored one is tried too; a watch begins there."""
ATTACHED_SHARE = 0.6
"""Share of the height at which a rope is taken to be set."""
ANCHOR_LENGTHS = 1.5
"""Tree lengths from the stump at which the anchor is taken to stand."""
REFUSING = ("landing.targets", "landing.hang_up", "landing.tangled", "landing.slide", "way_out.")
"""Findings of the ground whose stop refuses a bearing whatever the cut."""
MOVED_BY_WEDGES = ("wedge.", "balance.over", "balance.wind")
"""Findings that do not rule where a rope moves the tree instead."""
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


def sized_for(case: Case, bearing_deg: float, back: str) -> Case:
    """The case turned to a bearing, its face and hinge in the middle of the practice's ranges for the wood there.

    A rope that is set leads to one place, so that it is left out: the rose asks what help each bearing would take.
    """
    exponent = case.constants.profile_exponent[case.wood.group]
    depth = section_at(case.tree, case.cut.height_m, bearing_deg, exponent).depth_m
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


def spoke_at(case: Case, bearing_deg: float, targets: tuple[int, ...]) -> Spoke:
    """One bearing, judged with the back cut that leaves more margin.

    The bored cut is tried only where cutting from behind is near its splitting limit, as the practice has it.
    """
    plain = _tried(case, bearing_deg, "plain")
    best, back = plain, "plain"
    if plain is None or plain.parts.splitting.split_index_plain >= BORE_FROM:
        bored = _tried(case, bearing_deg, "bored")
        if bored is not None and (plain is None or least_margin(bored) > least_margin(plain)):
            best, back = bored, "bored"
    costs = {case.site.obstacles[index].cost for index in targets}
    if best is None:
        never = "never" in costs
        return Spoke(bearing_deg, -9.99, "cut", Group.FACE, Level.STOP, HELPS[3], 0.0, 0.0, 0.0, targets, never, back)
    against = next((f for f in best.findings if f.level == Level.STOP and f.id.startswith(REFUSING)), None)
    wedging = best.parts.wedging
    length = case.tree.height_m - case.cut.height_m
    pull = pull_needed_N(wedging.moment_Nm, ATTACHED_SHARE * length, ANCHOR_LENGTHS * length)
    costs |= {case.site.obstacles[index].cost for index in behind(case, bearing_deg)}
    help = _help(case, best, pull, costs)
    ruling = least(best, leaving_out=MOVED_BY_WEDGES if help == "rope" else ())
    return Spoke(
        bearing_deg=bearing_deg,
        margin=margin_left(ruling),
        ruled_by=ruling.id,
        group=ruling.group,
        level=ruling.level,
        help=help,
        lift_m=wedging.lift_m if wedging.wanted else 0.0,
        blows=wedging.blows if wedging.wanted else 0.0,
        pull_N=pull if wedging.wanted else 0.0,
        targets=targets,
        refused=against is not None,
        back=back,
        refused_by=against.id if against else "",
        why=against.sentence if against else None,
    )


def _tried(case: Case, bearing_deg: float, back: str) -> Assessment | None:
    """The assessment of one try; None where the cut does not fit the wood on that bearing."""
    try:
        return assess(sized_for(case, bearing_deg, back))
    except InputError:
        return None


def _help(case: Case, result: Assessment, pull_N: float, costs: set[str]) -> str:
    """What moves the tree there. Where a miss would cost something, wedges alone are not enough."""
    if not result.parts.wedging.wanted or result.parts.wedging.moment_Nm <= 0:
        return "none"
    wedges = [f for f in result.findings if f.group == Group.WEDGE or f.id == "balance.over"]
    if all(f.level != Level.STOP for f in wedges) and not costs & {"matters", "never"}:
        return "wedges"
    return "rope" if pull_N <= case.kit.pull_N else "not with this kit"


def whole_rose(case: Case, bearings_deg: Array) -> tuple[Spoke, ...]:
    """Every bearing, one after the other. Raises UnmeasuredError for a tree that has not been measured."""
    require_measured(case.tree, "measured.each_bearing")
    targets = targets_by_bearing(case, bearings_deg)
    return tuple(spoke_at(case, float(b), t) for b, t in zip(bearings_deg, targets, strict=True))
