"""The plan's own fall in words and numbers: how long, how fast, where to, what the hinge and the butt do."""

from __future__ import annotations

import math

import numpy as np

from ..base.frames import half_turn_deg, turned_on
from ..base.frozen import dataclass
from ..plan.case import Case, Planned
from ..plan.reach import called, caught, tree_alone
from ..site.bumps import HARD
from ..site.hang_up import Catch
from ..site.landing import TREES, hits_on, reaches_m
from .butt import butt_of, throws_m
from .ends import ends_for
from .falls import fall_all
from .reckon import rod_of
from .rods import BROKE_BY, Falls, Rods, check_finite
from .trace import Pose, Trace, top_of, trace_of

ASKEW_DEG = 3.0
"""How far off its lay a fall may end before the butt is told to turn with it."""


@dataclass(frozen=True, slots=True, eq=False)
class NominalFall:
    """What the plan's own numbers say will happen.

    Attributes:
        rods, falls: the fall as reckoned.
        trace: its course in time.
        goes: whether it goes over at all.
        start_deg: tilt at which it goes by itself.
        time_s: from there to the ground, or to the neighbour that holds it.
        tip_speed_m_s: speed of the top then.
        bearing_error_deg: how far left of its lay the top comes to lie, as an angle at the stump.
        off_lay_m: the same at the top, left positive.
        hinge_broke_by: one of ``BROKE_BY``; ``hinge_broke_at_deg`` the tilt.
        first_contact: what the tree meets first.
        hangs_on: the neighbour that holds it up; None where none does.
        end_deg: whole tilt at which it comes to rest.
        top_east_m, top_north_m: where the top comes to lie, from the stump.
        butt: one of ``BUTTS`` of the butt (indicative), ``butt_m`` how far it goes, back negative.
    """

    rods: Rods
    falls: Falls
    trace: Trace
    goes: bool
    start_deg: float
    time_s: float
    tip_speed_m_s: float
    bearing_error_deg: float
    off_lay_m: float
    hinge_broke_by: str
    hinge_broke_at_deg: float
    first_contact: str
    hangs_on: Catch | None
    end_deg: float
    top_east_m: float
    top_north_m: float
    butt: str
    butt_m: float

    def butt_at(self, lay_deg: float) -> tuple[float, float]:
        """(east, north) of the butt from where it stood."""
        turn = math.radians(lay_deg)
        return self.butt_m * math.sin(turn), self.butt_m * math.cos(turn)


def nominal_fall(planned: Planned, breaks_deg: float | None = None) -> NominalFall:
    """Reckon the plan's own fall.

    Args:
        breaks_deg: tilt by which the hinge is known to part, where that was seen; None for what is reckoned.
    """
    case, parts, rods = planned.case, planned.parts, _rods(planned, breaks_deg)
    with np.errstate(all="ignore"):
        falls, trace = trace_of(rods, ends_for(case))
    check_finite(rods, falls)
    goes = bool(falls.fell[0])
    holding = _holding(planned)
    end = math.degrees(float(falls.end_rad[0]))
    if holding is not None and holding.tilt_deg < end:
        end = holding.tilt_deg
    else:
        holding = None
    pose = trace.pose_at(trace.time_at(math.radians(end)))
    top = top_of(rods, pose)
    thrown = (
        0.0 if holding else float(throws_m(rods, falls, np.array([parts.mass.weight_N]), case.constants.throw_share)[0])
    )
    reach = math.hypot(*top)
    far = reaches_m(case.tree, case.cut.height_m) if case.cut.is_aloft else reach + thrown
    forward, left = (each * far / reach if reach > 0 else each for each in top)
    tip = pose.rate_rad_s * float(rods.length_m[0])
    butt, butt_m = butt_of(planned, falls, (thrown, tip), hangs=holding is not None)
    along, off = _on_lay(case, rods, forward, left)
    east, north = _on_site(along, off, case.cut.lay_deg)
    return NominalFall(
        rods=rods,
        falls=falls,
        trace=trace,
        goes=goes,
        start_deg=math.degrees(float(falls.start_rad[0])),
        time_s=trace.time_at(math.radians(end)),
        tip_speed_m_s=tip,
        bearing_error_deg=math.degrees(math.atan2(off, along)),
        off_lay_m=off,
        hinge_broke_by=BROKE_BY[int(falls.broke_by[0])],
        hinge_broke_at_deg=math.degrees(float(falls.broke_rad[0])),
        first_contact=_contact(planned, holding),
        hangs_on=holding,
        end_deg=end,
        top_east_m=east,
        top_north_m=north,
        butt=butt,
        butt_m=butt_m,
    )


def falls_beside_deg(planned: Planned, breaks_deg: float | None = None) -> tuple[float, bool]:
    """(how far left of its lay the top comes to lie, whether the tree goes) of the plan's own fall, without its course.

    A third of the time of ``nominal_fall``, whose answer it is.
    """
    if _holding(planned) is None:
        rods = _rods(planned, breaks_deg)
        with np.errstate(all="ignore"):
            falls = fall_all(rods, ends_for(planned.case))
        check_finite(rods, falls)
        if falls.fell[0]:
            tilt, side, turned = (float(each[0]) for each in (falls.tilt_rad, falls.side_rad, falls.turned_rad))
            along, off = _on_lay(planned.case, rods, *top_of(rods, Pose(tilt, side, 0.0, turned)))
            return math.degrees(math.atan2(off, along)), True
    # One that is caught on its way, or does not go, lies where its course says.
    fall = nominal_fall(planned, breaks_deg)
    return fall.bearing_error_deg, fall.goes


def _rods(planned: Planned, breaks_deg: float | None) -> Rods:
    rods = rod_of(planned)
    if breaks_deg is None:
        return rods
    return rods.changed(break_rad=np.minimum(rods.break_rad, math.radians(breaks_deg)))


def _holding(planned: Planned) -> Catch | None:
    """The neighbour that would hold the tree up, where one would."""
    caught_by = caught(planned.case, planned.parts.mass)
    return next((catch for catch in caught_by if catch.on_stem or catch.use >= 1.0), None)


def _on_lay(case: Case, rods: Rods, forward_m: float, left_m: float) -> tuple[float, float]:
    """(along, left) of the lay: the cut's own direction is not the lay's, it may be aimed off, and its hinge steer."""
    found: tuple[float, float] = turned_on(
        forward_m, left_m, math.radians(half_turn_deg(case.cut.lay_deg - float(rods.lay_deg[0])))
    )
    return found


def _on_site(along_m: float, left_m: float, lay_deg: float) -> tuple[float, float]:
    """(east, north) of a place along and left of a lay."""
    turn = math.radians(lay_deg)
    return along_m * math.sin(turn) - left_m * math.cos(turn), along_m * math.cos(turn) + left_m * math.sin(turn)


def _contact(planned: Planned, holding: Catch | None) -> str:
    """What the tree meets first: the neighbour that holds it, or the part of it that meets the ground."""
    if holding is not None:
        return f"neighbour: {called(holding.obstacle)}"
    lies = planned.parts.resting
    standing = _standing(planned)
    if standing is not None and standing[0] < lies.touches_deg:
        return f"obstacle: {standing[1]}"
    if lies.touches_deg >= 180.0:
        return "nothing within its length"
    return f"ground: {lies.touches_by}"


def _standing(planned: Planned) -> tuple[float, str] | None:
    """(tilt in degrees, name) of the first roof, wire or fence in the way that the stem comes down on.

    Banks, walls, rocks and stumps are part of the ground it is laid on already; neighbours hold by their crowns.
    """
    case = planned.case
    met = [
        (math.degrees(math.atan2(hit.at_m, hit.obstacle.height_m - case.cut.height_m)), called(hit.obstacle))
        for hit in hits_on(case.site, case.at, tree_alone(case), case.cut.lay_deg)
        if hit.obstacle.height_m > case.cut.height_m and hit.obstacle.kind not in (*HARD, *TREES) and hit.at_m > 0.5
    ]
    return min(met, default=None)
