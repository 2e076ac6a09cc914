"""A moment while the cut goes in: something shows that all is not well, and there are four things to do.

What comes of each is reckoned: the case as it then is, assessed. Stopping and leaving is never worth less than going
on.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import replace

import numpy as np

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.frames import full_turn_deg
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.levels import Level
from ..design.cut import WedgeSeat
from ..judge.findings import Finding
from ..plan.case import Case
from ..tree.tree import Decay
from .stumps import BESIDE_DEG

WORTH = {Level.CLEAR: 1.0, Level.WATCH: 0.6, Level.STOP: 0.0, Level.UNKNOWN: 0.0}
"""What came of it, by the level of what then rules."""
LEAVES = 0.85
"""Of stopping and leaving: it costs a day, never more."""
PHYSICS = ("balance", "hinge", "split", "wedge", "decay", "face")
"""Groups of limits an action can change."""


@dataclass(frozen=True, slots=True)
class Action:
    """One thing to do.

    Attributes:
        key: of it; done the case with it done; None for stopping and leaving.
    """

    key: str
    done: Callable[[Case], Case] | None


@dataclass(frozen=True, slots=True)
class Sign:
    """Something that shows.

    Attributes:
        key: of it; level from which on it is drawn.
        befalls: the case in which it shows.
        actions: what can be done, leaving among them.
        rules: beginnings of ids of what it is about: what then rules has to be one of them.
    """

    key: str
    level: int
    befalls: Callable[[Case, np.random.Generator], Case]
    actions: tuple[Action, ...]
    rules: tuple[str, ...]


def _wedged(stacked: int) -> Callable[[Case], Case]:
    seats = tuple(WedgeSeat(at, stacked) for at in BESIDE_DEG)
    return lambda case: replace(case, cut=replace(case.cut, wedges=seats))


def _hinge(factor: float) -> Callable[[Case], Case]:
    def done(case: Case) -> Case:
        hinge = case.cut.hinge
        thinner = replace(hinge, left_m=factor * hinge.left_m, right_m=factor * hinge.right_m)
        return replace(case, cut=replace(case.cut, hinge=thinner))

    return done


def _bored(case: Case) -> Case:
    back = replace(case.cut.back, form="bored", strap_m=max(case.cut.back.strap_m, 0.05))
    return replace(case, cut=replace(case.cut, back=back))


def _as_is(case: Case) -> Case:
    return case


GO_ON, LEAVE = Action("go-on", _as_is), Action("leave", None)
THINNER, ONE_WEDGE, TWO_WEDGES = (
    Action("thinner", _hinge(0.5)),
    Action("wedge", _wedged(1)),
    Action("stack", _wedged(2)),
)


def _leans_back(case: Case, degrees: float, wedges: tuple[WedgeSeat, ...]) -> Case:
    """The same leaning away from its lay, with these wedges."""
    away = full_turn_deg(case.cut.lay_deg + 180.0)
    lean = replace(case.tree.lean, angle_deg=round(degrees, 1), bearing_deg=away)
    return replace(case, tree=replace(case.tree, lean=lean), cut=replace(case.cut, wedges=wedges))


def _kerf_shuts(case: Case, random: np.random.Generator) -> Case:
    return _leans_back(case, float(random.uniform(0.8, 2.5)), ())


def _rings(case: Case, random: np.random.Generator) -> Case:
    return _leans_back(case, float(random.uniform(3.0, 7.0)), (WedgeSeat(0.0, 1),))


def _crack(case: Case, random: np.random.Generator) -> Case:
    lean = replace(case.tree.lean, angle_deg=round(float(random.uniform(9.0, 18.0)), 1), bearing_deg=case.cut.lay_deg)
    return replace(case, tree=replace(case.tree, lean=lean))


def _dust(case: Case, random: np.random.Generator) -> Case:
    radius = case.tree.trunk.diameter_m / 2 * float(random.uniform(0.6, 0.8))
    return replace(case, tree=replace(case.tree, decay=Decay(kind="cavity", radius_m=round(radius, 3))))


def _wind(case: Case, random: np.random.Generator) -> Case:
    against = full_turn_deg(case.cut.lay_deg)
    site = replace(case.site, wind_m_s=round(float(random.uniform(9.0, 15.0)), 1), wind_from_deg=against)
    return replace(case, site=site)


def _answers(case: Case, _: np.random.Generator) -> Case:
    """Nothing is wrong: the top answers the wedge."""
    return case


SIGNS = (
    Sign("answers", 1, _answers, (GO_ON, ONE_WEDGE, THINNER, LEAVE), ()),
    Sign("kerf-shuts", 1, _kerf_shuts, (GO_ON, ONE_WEDGE, THINNER, LEAVE), ("balance.", "wedge.")),
    Sign("crack", 1, _crack, (GO_ON, Action("bore", _bored), THINNER, LEAVE), ("split.",)),
    Sign("rings", 2, _rings, (GO_ON, TWO_WEDGES, THINNER, LEAVE), ("balance.", "wedge.")),
    Sign("dust", 2, _dust, (GO_ON, Action("thicker", _hinge(1.3)), THINNER, LEAVE), ("decay.", "hinge.")),
    Sign("wind", 3, _wind, (GO_ON, TWO_WEDGES, THINNER, LEAVE), ("balance.", "wedge.")),
)
BY_KEY = {sign.key: sign for sign in SIGNS}


@dataclass(frozen=True, slots=True, eq=False)
class Outcome:
    """What comes of an action.

    Attributes:
        action: its key; worth of what comes of it, 0 to 1.
        ruling: what then rules; None where it was left, or everything an action can change is clear.
        result: the case assessed then; None where it was left, or the cut would not hold together at all.
    """

    action: str
    worth: float
    ruling: Finding | None
    result: Assessment | None


@dataclass(frozen=True, slots=True, eq=False)
class NowTruth:
    """What comes of each action, by its key."""

    outcomes: Mapping[str, Outcome]

    @property
    def best(self) -> float:
        """Worth of the best there is."""
        return max(each.worth for each in self.outcomes.values())


@kept("truth of a moment", 64)
def now_truth(case: Case, sign: Sign) -> NowTruth:
    """Play every action; a stem that begins to split is left, whatever else would hold."""
    found = {each.key: _played(case, each) for each in sign.actions if each.done is not None}
    if sign.key == "crack":
        # It has begun: no later cut undoes that.
        found = {key: replace(each, worth=min(each.worth, 0.3)) for key, each in found.items()}
    leaves = Outcome(LEAVE.key, max(LEAVES, found[GO_ON.key].worth), None, None)
    return NowTruth({each.key: found.get(each.key, leaves) for each in sign.actions})


def _played(case: Case, action: Action) -> Outcome:
    assert action.done is not None
    try:
        result = assess(action.done(case))
    except InputError:
        return Outcome(action.key, 0.0, None, None)
    ruling = ruling_of(result)
    level = Level.CLEAR if ruling is None else ruling.level
    return Outcome(action.key, WORTH[level], ruling, result)


def ruling_of(result: Assessment) -> Finding | None:
    """The worst of what an action can change; None where all of that is clear."""
    about = [f for f in result.findings if f.group in PHYSICS and f.margin is not None and f.level != Level.CLEAR]
    return min(about, key=lambda f: (f.level != Level.STOP, math.inf if f.margin is None else f.margin), default=None)


def is_wanted(case: Case, sign: Sign) -> bool:
    """Whether going on is as bad as the sign says, for the reason it says; or as good, where nothing is wrong."""
    try:
        ruling = ruling_of(assess(case))
    except InputError:
        return False
    if not sign.rules:
        # Where whatever one did would do there is nothing to be learned.
        return ruling is None and min(each.worth for each in now_truth(case, sign).outcomes.values()) < 1.0
    return ruling is not None and ruling.level == Level.STOP and ruling.id.startswith(sign.rules)
