"""One case and its physical results: the tree, its cut and all that is reckoned before anything is judged."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from ..base.frozen import dataclass
from ..design.cut import Cut
from ..design.kit import Kit
from ..design.practice import Practice
from ..mechanics.balance import Balance
from ..mechanics.face import FaceGeometry
from ..mechanics.hinge import HingeGeometry, HingeStrength
from ..mechanics.loads import Gust, Loads
from ..mechanics.mass import Mass
from ..mechanics.resting import Resting
from ..mechanics.splitting import BackCutSweep, Splitting
from ..mechanics.use import HingeUse
from ..mechanics.wedge import Wedging
from ..mechanics.wedge_plan import WedgePlan
from ..site.ground import Profile, profile_on, profiles_on
from ..site.rigging import Rigging, Rope
from ..site.site import Place, Site
from ..tree.section import Section
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood

ORIGIN, NO_ROPE = Place(), Rope()


@dataclass(frozen=True)
class Case:
    """Everything an assessment depends on."""

    tree: Tree
    wood: Wood
    site: Site
    cut: Cut
    kit: Kit
    practice: Practice
    constants: Indicative
    at: Place = ORIGIN
    rope: Rope = NO_ROPE

    @property
    def profile(self) -> Profile:
        """The ground under the lay, as long as the tree."""
        return profile_on(self.site, self.at, self.cut.lay_deg, self.tree.height_m)


def profiles_of(cases: Sequence[Case]) -> tuple[Profile, ...]:
    """The ground under the lay of each of some cases of one site; lays of one tree are worked out together."""
    if len(cases) == 1:
        return (cases[0].profile,)
    found: list[Profile | None] = [None] * len(cases)
    together: dict[tuple[Place, float], list[int]] = {}
    for place, case in enumerate(cases):
        together.setdefault((case.at, case.tree.height_m), []).append(place)
    for (at, length_m), places in together.items():
        # Cases that differ in their cut alone lie on the same ground.
        lays = tuple(dict.fromkeys(cases[place].cut.lay_deg for place in places))
        known = dict(zip(lays, profiles_on(cases[0].site, at, lays, length_m), strict=True))
        for place in places:
            found[place] = known[cases[place].cut.lay_deg]
    return tuple(profile for profile in found if profile is not None)


@dataclass(frozen=True, eq=False)
class Parts:
    """The physical results of one assessment, before they are judged.

    Attributes:
        sweep: the ligament as the back cut comes in.
        gust, rigging: wind and rope; no rigging where no rope is set.
        loads: what both do about the hinge.
        resting: the tree on the ground along its lay.
    """

    section: Section
    mass: Mass
    balance: Balance
    face: FaceGeometry
    hinge: HingeGeometry
    strength: HingeStrength
    use: HingeUse
    sweep: BackCutSweep
    splitting: Splitting
    wedging: Wedging
    wedge_plan: WedgePlan
    gust: Gust
    rigging: Rigging | None
    loads: Loads
    resting: Resting

    @property
    def needs_wedges(self) -> bool:
        """Whether the tree needs wedges to go at all."""
        return self.wedging.wanted

    @property
    def hinge_back_m(self) -> float:
        """Rearmost line of the hinge along the lay, at its thicker end or its middle."""
        return self.hinge.back_m


class Standing(Protocol):
    """What the ground asks of a tree: its weight, how it stands over its hinge, and what moves it."""

    @property
    def mass(self) -> Mass:
        """The tree above the cut."""
        ...

    @property
    def balance(self) -> Balance:
        """How it stands."""
        ...

    @property
    def rigging(self) -> Rigging | None:
        """The rope; None where none is set."""
        ...

    @property
    def needs_wedges(self) -> bool:
        """Whether it needs wedges to go at all."""
        ...


@dataclass(frozen=True, slots=True, eq=False)
class Planned:
    """A case with its physical results, before they are judged."""

    case: Case
    parts: Parts
