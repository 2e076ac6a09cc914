"""How likely each limit is to fail, as things were measured: one number for a limit state, wherever it is told.

The state of a limit is followed to first order in every measured input, wood constant and habit of cutting, each taken
as normal with its own spread; beta is the state over the spread that gives it, the chance that of a normal variable
below -beta. Source: first-order reliability, mean-value form (Cornell's index; Hasofer and Lind, 1974).
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import field, replace
from statistics import NormalDist
from typing import NamedTuple, TypeAlias

import numpy as np

from ..base.errors import InputError
from ..base.frozen import changed, dataclass
from ..base.levels import FindingKind, Level
from ..base.polygon import Array
from ..design.checks import check_cut_fits, check_tree
from ..fall.spread import AIM, CUT_INTO, LEFT, MEAN, RIGHT, TOGETHER, WIND, end_spread_m
from ..plan.case import Case
from ..plan.many import Grown, Many, many_of, place_of
from ..tree.moved import moved
from .findings import Finding
from .limits import IDS, LIMITS, shares_of
from .states import STATES, breaks_like_the_first

CLEAR_BELOW, STOP_ABOVE = 0.02, 0.20
"""A limit that fails less often than 1 time in 50 is clear; one that fails more often than 1 time in 5 is a stop."""
CLEAR_BETA, HELD_BETA = (NormalDist().inv_cdf(1.0 - chance) for chance in (CLEAR_BELOW, STOP_ABOVE))
"""The same as indices: how many spreads a state that is clear, or no stop, stands above failing."""
BREAK = "landing.break"
BREAKS = frozenset({BREAK})
"""What is laid on the ground as a beam, which takes as long as all the rest."""
LEAST_SHARE = 1e-6
"""A share of nothing at all has no logarithm."""
NEAR, PART = 3.5, 0.08
"""A limit within so many spreads, and so much of its variance, are worth moving an input the other way for."""
UNASKED = 0.1
"""Spread taken for a limit that was not asked of the plan whose spreads are taken over."""
LEAST_BETA = 0.05
"""Nearer to its limit a value has no spread that could be told from its distance."""
MOST_BETA = 99.0
"""Past this nobody counts."""
SPREAD = tuple(id for id, kind in LIMITS.items() if not kind.is_hard)
"""Limits that have a chance."""


@dataclass(frozen=True, slots=True)
class Spreads:
    """One standard deviation of everything that is not known for sure.

    Attributes:
        measured: inputs of the tree by path from its case, in their own unit; see ``core.tree.moved``.
        wood: of rupture, elasticity, shear, across (what a crack takes), density and fibre (how far a hinge bends), as
            shares.
        cutting: ``aim_deg``; ``hinge_m`` or ``hinge_share`` of its thickness at either end of the hinge, the larger;
            ``wind`` as a share of its force; and, with ``MEAN`` before the name of an input, where its middle lies, in
            its spreads, as one's own stumps taught.
    """

    measured: Mapping[str, float] = field(default_factory=dict)
    wood: Mapping[str, float] = field(default_factory=dict)
    cutting: Mapping[str, float] = field(default_factory=dict)

    @property
    def found(self) -> dict[str, float]:
        """Spread of what is found in the tree and its wood, by name: all but how it is cut."""
        return dict(self.measured) | {f"wood.{name}": share for name, share in self.wood.items()}


def inputs_of(case: Case, spreads: Spreads) -> dict[str, float]:
    """Spread of every input by name, in its own unit; shares of the wood and the wind."""
    own, hinge = spreads.cutting, case.cut.hinge
    found = spreads.found
    if "hinge_m" in own:
        for name, side, thick in ((LEFT, "left", hinge.left_m), (RIGHT, "right", hinge.right_m)):
            found[name] = end_spread_m(own, side, thick)
    if "aim_deg" in own:
        found[AIM] = own["aim_deg"]
    if "wind" in own and case.site.wind_m_s:
        found[WIND] = own["wind"]
    return found


class Shifted(NamedTuple):
    """A case with inputs moved, and what no field of it holds, times what it has of it."""

    case: Case
    fracture: float = 1.0
    fibre: float = 1.0
    wind: float = 1.0


PROPERTIES = {
    "wood.rupture": ("rupture_Pa", "holding_Pa", "splits_at_Pa"),
    "wood.elasticity": ("elasticity_Pa",),
    "wood.shear": ("shear_Pa",),
    "wood.density": ("density_kg_m3",),
}
"""What of the wood moves with each of its spreads."""
FACTORS = {"wood.across": "fracture", "wood.fibre": "fibre", WIND: "wind"}


def shifted(case: Case, by: Mapping[str, float]) -> Shifted:
    """The case with inputs moved, by name: in their own unit, those of wood and wind in the logarithm."""
    found = Shifted(case)
    for name, step in by.items():
        found = _moved(found, name, step)
    return found


def _moved(one: Shifted, name: str, by: float) -> Shifted:
    case = one.case
    if name in FACTORS:
        factor = FACTORS[name]
        return one._replace(**{factor: getattr(one, factor) * math.exp(by)})
    if name in PROPERTIES:
        now = {of: getattr(case.wood, of) for of in PROPERTIES[name]}
        grown = {of: value * math.exp(by) for of, value in now.items() if value is not None}
        return one._replace(case=replace(case, wood=replace(case.wood, **grown)))
    if name.startswith("tree."):
        return one._replace(case=replace(case, tree=moved(case.tree, name.removeprefix("tree."), by)))
    cut = case.cut
    if name == AIM:
        return one._replace(case=replace(case, cut=replace(cut, aim_off_deg=cut.aim_off_deg + by)))
    side = {LEFT: "left_m", RIGHT: "right_m"}[name]
    thick = max(getattr(cut.hinge, side) + by, 0.0)
    return one._replace(case=replace(case, cut=replace(cut, hinge=replace(cut.hinge, **{side: thick}))))


@dataclass(frozen=True, slots=True, eq=False)
class Chances:
    """How likely each limit of one case is to fail.

    Attributes:
        inputs: what was moved, in the order of the entries of ``slopes``.
        tied: correlation of the inputs, shape (inputs, inputs).
        ways: of each limit that has a chance and is asked, by id: the ways in which it may fail, the nearest first.
    """

    inputs: tuple[str, ...]
    tied: Array
    ways: Mapping[str, tuple[Way, ...]]

    def beta(self, id: str) -> float:
        """Index of the nearer way of failing."""
        return self.ways[id][0].beta

    def chance(self, id: str) -> float:
        """Chance of failing, either way."""
        return min(sum(below(-way.beta) for way in self.ways[id]), 1.0)

    def of_others(self, many: Many) -> tuple[Chances, ...]:
        """Chances of other plans for the same tree, by their own states and the spreads of this one."""
        states, use = states_of(many)
        found = []
        for row in range(use.shape[1]):
            ways: dict[str, tuple[Way, ...]] = {}
            for (id, way), state in states.items():
                if not math.isnan(use[IDS.index(id), row]):
                    ways[id] = (*ways.get(id, ()), replace(self.like(id, way), state=float(state[row])))
            found.append(Chances(self.inputs, self.tied, {id: _nearest_first(each) for id, each in ways.items()}))
        return tuple(found)

    def like(self, id: str, way: int) -> Way:
        """The way of failing here whose spread another plan for the same tree takes over."""
        known = self.ways.get(id)
        if known is None:
            # What was not asked here has no spread of its own yet.
            return Way(0.0, np.zeros(len(self.inputs)), UNASKED)
        return known[min(way, len(known) - 1)]

    def shares(self, id: str) -> dict[str, float]:
        """Share of the spread of a limit's state that each input accounts for, by name, tied ones with one another."""
        nearest = self.ways[id][0]
        if nearest.spread == 0:
            return {}
        parts = nearest.slopes * (self.tied @ nearest.slopes) / nearest.spread**2
        return dict(zip(self.inputs, parts.tolist(), strict=True))


@dataclass(frozen=True, slots=True, eq=False)
class Way:
    """One way in which a limit may fail.

    Attributes:
        state: positive while it holds.
        slopes: how far one spread of each input moves it, shape (inputs,).
        spread: its standard deviation.
    """

    state: float
    slopes: Array
    spread: float

    @property
    def beta(self) -> float:
        """Spreads between the state and failing."""
        if self.spread <= 0 or not math.isfinite(self.state):
            return math.copysign(MOST_BETA, self.state)
        return min(max(self.state / self.spread, -MOST_BETA), MOST_BETA)


def chances_of(case: Case, spreads: Spreads) -> Chances:
    """How likely each limit of a case is to fail. Inputs that cannot be moved either way are left as they are.

    Where one's own stumps taught that an input lies off, it is moved there first.
    Every input is moved by its spread one way, and those that matter where that helped the other way too: what counts
    is how a state moves on the side on which it fails.
    """
    widths = inputs_of(case, spreads)
    case = as_learned(case, spreads, widths)
    moves = {name: fits for name, width in widths.items() if (fits := _fitting(case, name, width, (1.0, -1.0)))}
    inputs, signs = tuple(moves), np.array([sign for sign, _ in moves.values()], dtype=np.float64)
    states, use = states_of(many_shifted([Shifted(case), *(one for _, one in moves.values())]), same_ground=True)
    states = {key: state for key, state in states.items() if not math.isnan(use[IDS.index(key[0]), 0])}
    tied = _tied(inputs)
    slopes = {key: signs * _away(state) for key, state in states.items()}
    again = _worth_a_second_look(states, slopes, tied)
    other = {at: fits[1] for at in again if (fits := _fitting(case, inputs[at], widths[inputs[at]], (-signs[at],)))}
    if other:
        behind, _ = states_of(many_shifted([Shifted(case), *other.values()]), same_ground=True)
        _on_the_failing_side(slopes, {key: _away(behind[key]) for key in states}, np.array([*other]), signs)
    ways: dict[str, list[Way]] = {}
    for key, state in states.items():
        spread = math.sqrt(max(float(slopes[key] @ tied @ slopes[key]), 0.0))
        ways.setdefault(key[0], []).append(Way(float(state[0]), slopes[key], spread))
    return Chances(inputs, tied, {id: _nearest_first(each) for id, each in ways.items()})


def as_learned(case: Case, spreads: Spreads, widths: Mapping[str, float]) -> Case:
    """The case as it likely is, where one's own stumps taught that its inputs lie off; as it is where that cannot be.

    A mean of the aim counts clockwise, as the fan has it; a case counts to the left.
    """
    for name, width in widths.items():
        by = spreads.cutting.get(MEAN + name, 0.0) * (-width if name == AIM else width)
        fits = _fitting(case, name, by, (1.0,)) if by else None
        case = case if fits is None else fits[1].case
    return case


def _nearest_first(ways: Iterable[Way]) -> tuple[Way, ...]:
    return tuple(sorted(ways, key=lambda way: way.beta))


Key: TypeAlias = tuple[str, int]
"""A limit's id, and which of its ways of failing."""


def states_of(many: Many, *, same_ground: bool = False) -> tuple[dict[Key, Array], Array]:
    """(states of all limits that have a chance, by id and way, shape (B,); shares used up, shape (limits, B)).

    A state is positive while its limit holds, and infinite where that is not asked.

    Args:
        same_ground: whether the trees lie alike on the same ground but for their own size and wood: then only the
            first is laid on it as a beam.
    """
    use = shares_of(many, BREAKS if same_ground else frozenset()).use
    if same_ground:
        use[IDS.index(BREAK)] = breaks_like_the_first(many)
    found: dict[Key, Array] = {}
    for id in SPREAD:
        shares = use[IDS.index(id)]
        plain = np.where(np.isnan(shares), np.inf, -np.log(np.maximum(shares, LEAST_SHARE)))
        ways = STATES[id](many) if id in STATES else (plain,)
        found |= {(id, way): state for way, state in enumerate(ways)}
    return found, use


def many_shifted(shifts: Sequence[Shifted]) -> Many:
    """The physics of cases some of whose inputs were moved."""
    factors = (np.array([getattr(each, name) for each in shifts]) for name in Grown._fields)
    return many_of([each.case for each in shifts], Grown(*factors))


def _away(state: Array) -> Array:
    """How far each moved state is from the first; nothing where the limit is no longer asked."""
    if not math.isfinite(state[0]):
        return np.zeros(len(state) - 1)
    away: Array = np.where(np.isfinite(state[1:]), state[1:], state[0]) - state[0]
    return away


def _on_the_failing_side(slopes: dict[Key, Array], away: Mapping[Key, Array], places: Array, signs: Array) -> None:
    """Where moving an input helped a limit, take the slope of moving it the other way."""
    turned = signs[places]
    for key, each in away.items():
        now = slopes[key][places]
        slopes[key][places] = np.where(turned * now > 0, -turned * each, now)


def _worth_a_second_look(states: Mapping[Key, Array], slopes: Mapping[Key, Array], tied: Array) -> list[int]:
    """Inputs that helped some limit which may fail, and make up a good part of what is not known of it."""
    found: set[int] = set()
    for key, state in states.items():
        slope = slopes[key]
        variance = float(slope @ tied @ slope)
        if variance > 0 and 0 < state[0] < NEAR * math.sqrt(variance):
            found |= set(np.nonzero((_away(state) > 0) & (slope**2 > PART * variance))[0].tolist())
    return sorted(found)


def _fitting(case: Case, name: str, width: float, signs: tuple[float, ...]) -> tuple[float, Shifted] | None:
    """The case with one input moved by its spread, the first way in which it holds together; with the sign."""
    for sign in signs:
        try:
            one = shifted(case, {name: sign * width})
            if name.startswith("tree."):
                check_tree(one.case.tree)
            if name.startswith(INTO):
                check_cut_fits(place_of(one.case).section(), one.case.cut)
        except InputError:
            continue
        return sign, one
    return None


INTO = (*CUT_INTO, "tree.height_m", "cut.")
"""How the inputs begin that the section at the cut, or what is cut into it, depends on."""


def _tied(inputs: tuple[str, ...]) -> Array:
    """Correlation of the inputs: each by itself, but for what goes together in one tree."""
    found = np.eye(len(inputs))
    if "wood.rupture" in inputs and "wood.elasticity" in inputs:
        strong, stiff = inputs.index("wood.rupture"), inputs.index("wood.elasticity")
        found[strong, stiff] = found[stiff, strong] = TOGETHER
    return found


def below(index: float) -> float:
    """Share of a normal variable that lies below so many spreads from its middle."""
    return math.erfc(-index / math.sqrt(2.0)) / 2


def level_of_chance(chance: float, use: float) -> Level:
    """Level of a limit: a stop where it is past already or fails more often than 1 time in 5, clear under 1 in 50."""
    if use > 1.0 or chance > STOP_ABOVE:
        return Level.STOP
    return Level.CLEAR if chance < CLEAR_BELOW else Level.WATCH


def judged_by(findings: tuple[Finding, ...], chances: Chances, *, is_pending: bool = False) -> tuple[Finding, ...]:
    """The findings, each limit that has a chance judged by it.

    Args:
        is_pending: whether the chances are of a plan just before this one: then the shares are of now, and only their
            spread is of before.
    """
    return tuple(_judged(each, chances, is_pending) if _has_chance(each, chances) else each for each in findings)


def _has_chance(finding: Finding, chances: Chances) -> bool:
    return finding.kind == FindingKind.LIMIT and finding.id in chances.ways and finding.margin is not None


def _judged(finding: Finding, chances: Chances, is_pending: bool) -> Finding:
    use, beta, chance = 1.0 - (finding.margin or 0.0), chances.beta(finding.id), chances.chance(finding.id)
    spread = abs(1.0 - use) / abs(beta) if abs(beta) > LEAST_BETA else None
    level = level_of_chance(chance, use)
    return changed(finding, level=level, chance=chance, beta=beta, spread=spread, is_pending=is_pending)
