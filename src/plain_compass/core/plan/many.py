"""Many cases at once: every relation as a kernel over a leading axis of cases, and one case as a batch of one.

What a tree is made of, its weight and the wind on it do not depend on the lay but for a turn; they are worked out once
for all cases that share them. The ground under a lay and how a stem lies on it are worked out case by case, where asked
for.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import fields
from functools import cached_property
from typing import NamedTuple

import numpy as np

from ..base.frozen import changed, dataclass
from ..base.kept import kept
from ..base.polygon import Array, Moments
from ..base.rows import Mask, row, taken
from ..design.cut import Cut
from ..design.designs import Designs, designs_of
from ..mechanics.balance import Balance, balances_of, tipping_of
from ..mechanics.hinge import hinge_strengths
from ..mechanics.law import HingeLaw, Tipping
from ..mechanics.loads import Gust, Loads, gusts_on, loaded, loads_of
from ..mechanics.mass import Mass, masses_of
from ..mechanics.resting import Laid, Resting, resting_alone, resting_on
from ..mechanics.splitting import BackCutSweep, Splitting, splittings_of, sweep_back_cuts
from ..mechanics.stump import Shapes, Stumps, shapes_of
from ..mechanics.thinning import Thinnest, thinned_hinges, thinnest_shares
from ..mechanics.use import HingeUse, hinge_uses
from ..mechanics.wedge import Poise, Seats, Wedging, asked_of, wedging_at, wedgings_of
from ..mechanics.wedge_plan import THINS, WedgePlan, wedge_plans
from ..site.rigging import Rigging, rigged
from ..tree.section import Section
from ..tree.sections import Place, alone_in, sections_of
from ..tree.stem import axis_at
from ..tree.timber import Timbers, timbers_of
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood
from .case import Case, Parts, profiles_of


@dataclass(frozen=True, eq=False)
class Many(Stumps):
    """The physical results of B cases: their stumps, and what stands on them. See ``Parts``.

    Every quantity has shape (B,), curves (B, t).
    """

    cases: tuple[Case, ...]
    timbers: Timbers
    mass: Mass[Array]
    balance: Balance[Array]
    use: HingeUse[Array]
    sweep: BackCutSweep[Array]
    splitting: Splitting[Array]
    wedging: Wedging[Array]
    seats: Seats
    wedge_plan: WedgePlan[Array]
    thinnest: Thinnest
    gust: Gust[Array]
    rigging: tuple[Rigging | None, ...]
    loads: Loads[Array]

    @cached_property
    def placed(self) -> Mask:
        """Where wedges are wanted and there are seats for them, shape (B,)."""
        found: Mask = (self.wedging.tilt_deg > 0) & self.seats.used.any(axis=1)
        return found

    def tipped(self, steady_Nm: Array) -> tuple[HingeLaw, Tipping]:
        """The hinges as the way on that brings it farthest leaves them, and what tips the trees over them.

        Args:
            steady_Nm: rope and wind.
        """
        thins, law, thinner = THINS[self.wedge_plan.best.astype(np.intp)], self.strength.holding_law, self.thinnest
        load = tipping_of(self.mass, self, steady_Nm)
        if not thins.any():
            return law, load
        columns = (np.where(thins, getattr(thinner.law, of.name), getattr(law, of.name)) for of in fields(HingeLaw))
        return HingeLaw(*columns), load._replace(ahead_Nm=np.where(thins, thinner.load.ahead_Nm, load.ahead_Nm))

    def laid(self, at: int) -> Laid:
        """One tree on the ground along its lay."""
        case = self.cases[at]
        return Laid(case.profile, case.tree, case.wood, row(self.mass, at), case.cut.height_m)

    @cached_property
    def resting(self) -> Resting[Array]:
        """How each tree lies along its lay."""
        constants = self.cases[0].constants
        laid = [
            Laid(profile, case.tree, case.wood, row(self.mass, at), case.cut.height_m)
            for at, (case, profile) in enumerate(zip(self.cases, profiles_of(self.cases), strict=True))
        ]
        if len(laid) == 1:
            return resting_alone(laid[0], constants)
        # Cases that differ only in their cut lie alike.
        apart = list(dict.fromkeys(laid))
        places = {one: place for place, one in enumerate(apart)}
        found: Resting[Array] = taken(resting_on(apart, constants), np.array([places[one] for one in laid]))
        return found

    def parts(self, at: int) -> Parts:
        """The results of one case."""
        return Parts(
            section=self.sections.section(at),
            mass=row(self.mass, at),
            balance=row(self.balance, at),
            face=row(self.face, at),
            hinge=row(self.hinge, at),
            strength=row(self.strength, at),
            use=row(self.use, at),
            sweep=row(self.sweep, at),
            splitting=row(self.splitting, at),
            wedging=wedging_at((self.wedging, self.seats), at),
            wedge_plan=row(self.wedge_plan, at),
            gust=row(self.gust, at),
            rigging=self.rigging[at],
            loads=row(self.loads, at),
            resting=row(self.resting, at),
        )


def alone(case: Case) -> Many:
    """The physics of one case. Whether its cut fits the stem is not asked here."""
    return many_of([case])


def place_of(case: Case) -> Place:
    """Where a case's section is taken: the tree's frame points where the face is cut, not where it is to lie."""
    exponent = case.constants.profile_exponent[case.wood.group]
    return Place(case.tree, case.cut.height_m, case.cut.gun_deg, exponent)


class Grown(NamedTuple):
    """What no field of a case holds, times what its own case has of it; shapes (B,).

    Attributes:
        fracture: energy a crack takes.
        fibre: tilt at which a hinge of middling shape parts.
        wind: force of the wind.
    """

    fracture: Array
    fibre: Array
    wind: Array


def many_of(cases: Sequence[Case], grown: Grown | None = None) -> Many:
    """The physics in its order: section and mass, face and hinge, then what depends on both.

    The cases share site, kit, constants and the practice's tolerance. Whether the cuts fit is not asked here.
    """
    first = cases[0]
    constants, kit = first.constants, first.kit
    shape = _shapes(cases)
    designs, sections, face, hinge = shape.designs, shape.sections, shape.face, shape.hinge
    trees = [(case.tree, case.wood) for case in cases]
    timbers = timbers_of(trees, designs.height_m.tolist(), constants)
    if grown is not None:
        fracture, fibre = timbers.fracture_J_m2 * grown.fracture, timbers.break_base_deg * grown.fibre
        timbers = changed(timbers, fracture_J_m2=fracture, break_base_deg=fibre)
    mass = _weighed(cases)
    load_left = mass.com_left_m - hinge.region.left_m
    strength = hinge_strengths(hinge, designs, timbers, load_left_m=load_left, diameter_m=sections.diameter_m)
    gust, rigging, loads = _loads(cases, designs, hinge.region, 1.0 if grown is None else grown.wind)
    use = hinge_uses(mass, hinge, strength, loads.left_Nm, face.closing_angle_deg, first.practice.tolerance_deg)
    stumps = Stumps(shape, strength)
    least = np.array([case.practice.hinge_least_m for case in cases])
    load = tipping_of(mass, stumps, loads.forward_Nm)
    thinnest = thinned_hinges(stumps, timbers, load, thinnest_shares(stumps, use, least), mass.weight_N)
    balance = balances_of(stumps, timbers, (mass, loads), kit, thinnest)
    sweep, splitting = released(stumps, timbers, (mass, loads), balance, kit.kerf_m)
    poise = Poise(mass, balance, loads, constants)
    asked = asked_of(stumps, poise, thinnest)
    wedging, seats = wedgings_of(stumps, kit, poise, asked)
    return Many(
        shape=shape,
        strength=strength,
        cases=tuple(cases),
        timbers=timbers,
        mass=mass,
        balance=balance,
        use=use,
        sweep=sweep,
        splitting=splitting,
        wedging=wedging,
        seats=seats,
        wedge_plan=wedge_plans(stumps, kit, poise, seats, asked, thinnest),
        thinnest=thinnest,
        gust=gust,
        rigging=rigging,
        loads=loads,
    )


def _shapes(cases: Sequence[Case]) -> Shapes:
    """The cuts in their wood; that of one case is kept while only what stands above it changes."""
    places, kerf = [place_of(case) for case in cases], cases[0].kit.kerf_m
    if len(cases) == 1:
        return _shape_alone(places[0].section(), cases[0].cut, kerf)
    return shapes_of(sections_of(places), designs_of([case.cut for case in cases]), kerf)


@kept("cut in its wood", 32)
def _shape_alone(section: Section, cut: Cut, kerf_m: float) -> Shapes:
    return shapes_of(alone_in(section), designs_of([cut]), kerf_m)


def _weighed(cases: Sequence[Case]) -> Mass[Array]:
    """The trees above their cuts; one by itself is kept while only what is cut changes."""
    first, places = cases[0], [(case.cut.height_m, case.cut.gun_deg) for case in cases]
    if len(cases) == 1:
        return _weighed_alone(first.tree, first.wood, places[0], first.constants)
    return masses_of([(case.tree, case.wood) for case in cases], places, first.constants)


@kept("mass and centre", 64)
def _weighed_alone(tree: Tree, wood: Wood, place: tuple[float, float], constants: Indicative) -> Mass[Array]:
    return masses_of([(tree, wood)], [place], constants)


def released(
    stumps: Stumps, timbers: Timbers, carried: tuple[Mass[Array], Loads[Array]], balance: Balance[Array], kerf_m: float
) -> tuple[BackCutSweep[Array], Splitting[Array]]:
    """What happens as the back cuts come in: the ligaments, and splitting."""
    mass, loads = carried
    pulled = loaded(mass, loads)
    sweep = sweep_back_cuts(stumps, timbers, pulled, loads.following_Nm)
    ahead = (balance.moment_forward_Nm + loads.following_Nm) / mass.weight_N
    return sweep, splittings_of(stumps, timbers, sweep, pulled, ahead_m=ahead, kerf_m=kerf_m)


def _rigged(case: Case, hinge_m: tuple[float, float]) -> Rigging | None:
    """The rope of a case, fast to its stem where that stands over the hinge."""
    cut, tree, rope = case.cut, case.tree, case.rope
    over = {"cut_m": cut.height_m, "tree_height_m": tree.height_m, "lay_deg": cut.gun_deg}
    ahead, left = axis_at(tree.lean, min(rope.attached_m, tree.height_m), **over)
    fast = ahead - hinge_m[0], left - hinge_m[1]
    return rigged(rope, case.site, case.at, cut.gun_deg, cut.height_m, fast)


def _loads(
    cases: Sequence[Case], designs: Designs, region: Moments[Array], wind: Array | float
) -> tuple[Gust[Array], tuple[Rigging | None, ...], Loads[Array]]:
    """Wind and rope, and both together about the hinges."""
    gust = gusts_on([(case.tree, case.wood.group == "conifer") for case in cases], cases[0].site, designs)
    gust = changed(gust, force_N=gust.force_N * wind, mean_N=gust.mean_N * wind)
    rigging = tuple(
        _rigged(case, (ahead, left)) if case.rope.use == "set" else None
        for case, ahead, left in zip(cases, region.forward_m.tolist(), region.left_m.tolist(), strict=True)
    )
    rope = np.array([(r.moment_forward_Nm, r.moment_left_Nm) if r is not None else (0.0, 0.0) for r in rigging])
    return gust, rigging, loads_of(gust, rope.T)
