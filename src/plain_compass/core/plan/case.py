"""One case and its physical results: the tree, its cut and all that is reckoned before anything is judged."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from ..design.checks import check_cut_fits
from ..design.cut import Cut, Kit
from ..design.practice import Practice
from ..mechanics.balance import Balance, Mass, balance_on, tree_mass
from ..mechanics.face import FaceGeometry, face_on
from ..mechanics.hinge import HingeGeometry, HingeStrength, HingeUse, hinge_on, hinge_strength, hinge_use, rearmost_m
from ..mechanics.loads import Gust, Loads, gust_on, loaded, loads_of
from ..mechanics.resting import Resting, resting_on
from ..mechanics.splitting import BackCutSweep, Splitting, sits_back_at_m, splitting_of, sweep_back_cut
from ..mechanics.stump import Stump
from ..mechanics.wedge import Wedging, pause_s, wedging_of
from ..site.ground import Profile, profile_on
from ..site.rigging import Rigging, Rope, rigged
from ..site.site import Place, Site
from ..tree.section import Section, section_at
from ..tree.timber import Timber, timber_of
from ..tree.tree import Tree
from ..tree.wood import Indicative, Wood


@dataclass(frozen=True, slots=True)
class Case:
    """Everything an assessment depends on."""

    tree: Tree
    wood: Wood
    site: Site
    cut: Cut
    kit: Kit
    practice: Practice
    constants: Indicative
    at: Place = field(default_factory=Place)
    rope: Rope = field(default_factory=Rope)

    @property
    def profile(self) -> Profile:
        """The ground under the lay, as long as the tree."""
        return profile_on(self.site, self.at, self.cut.lay_deg, self.tree.height_m)


@dataclass(frozen=True, slots=True, eq=False)
class Parts:
    """The physical results of one assessment, before they are judged.

    Attributes:
        hinge_back_m: rearmost line of the hinge along the lay, at the thicker end.
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
    hinge_back_m: float
    strength: HingeStrength
    use: HingeUse
    sweep: BackCutSweep
    splitting: Splitting
    wedging: Wedging
    gust: Gust
    rigging: Rigging | None
    loads: Loads
    resting: Resting


@dataclass(frozen=True, slots=True, eq=False)
class Planned:
    """A case with its physical results, before they are judged."""

    case: Case
    parts: Parts


def parts_of(case: Case, lies: Resting | None = None) -> Parts:
    """The physics in its order: section and mass, face and hinge, then what depends on both.

    The tree's frame points where the face is cut; where it is meant to lie is the ground's matter.

    Args:
        lies: the tree on the ground, where that is known already.
    """
    tree, cut, constants = case.tree, case.cut, case.constants
    section = section_at(tree, cut.height_m, cut.gun_deg, constants.profile_exponent[case.wood.group])
    check_cut_fits(section, cut)
    timber = timber_of(tree, case.wood, cut.height_m, constants)
    mass = tree_mass(tree, case.wood, cut, constants)
    face = face_on(section, cut.face, case.kit.kerf_m)
    hinge = hinge_on(section, face, cut)
    capacity = hinge_strength(
        hinge,
        timber,
        step_m=cut.back.step_m + lengthened_m(cut),
        load_left_m=mass.com_left_m - hinge.region.left_m,
        diameter_m=section.diameter_m,
    )
    stump = Stump(cut, section, face, hinge, capacity)
    gust, rigging, loads = _loads(case)
    balance = balance_on(
        mass, (loads.forward_Nm, loads.left_Nm), hinge.region, capacity.stiffness_Nm, capacity.plastic_Nm
    )
    use = hinge_use(mass, capacity, balance, loads.left_Nm, face.closing_angle_deg, case.practice.tolerance_deg)
    sweep, splitting, wedging = _released(case, stump, timber, (mass, loads), balance)
    return Parts(
        section=section,
        mass=mass,
        balance=balance,
        face=face,
        hinge=hinge,
        hinge_back_m=rearmost_m(face, cut.hinge),
        strength=capacity,
        use=use,
        sweep=sweep,
        splitting=splitting,
        wedging=wedging,
        gust=gust,
        rigging=rigging,
        loads=loads,
        resting=lies or _resting(case, mass),
    )


def _released(
    case: Case, stump: Stump, timber: Timber, carried: tuple[Mass, Loads], balance: Balance
) -> tuple[BackCutSweep, Splitting, Wedging]:
    """What happens as the back cut comes in: the ligament, splitting, the wedges."""
    (mass, loads), tree = carried, case.tree
    pulled = loaded(mass, loads)
    sweep = sweep_back_cut(stump, timber, pulled, loads.following_Nm)
    splitting = splitting_of(
        stump,
        timber,
        sweep,
        pulled,
        ahead_m=(balance.moment_forward_Nm + loads.following_Nm) / mass.weight_N,
        kerf_m=case.kit.kerf_m,
    )
    wedging = wedging_of(
        stump,
        case.kit,
        mass,
        balance,
        sits_back_at_m=sits_back_at_m(sweep, mass.toppling_Nm),
        constants=timber.constants,
    )
    pause = pause_s(mass, stump.strength, tree.trunk.diameter_m, tree.height_m)
    return sweep, splitting, replace(wedging, pause_s=pause)


def lengthened_m(cut: Cut) -> float:
    """What a corner cut free adds to the bending fibres, taken over the whole hinge by halves (indicative)."""
    own = cut.hinge.traits.lengthened_m
    return own(cut.hinge) if own else 0.0


def _loads(case: Case) -> tuple[Gust, Rigging | None, Loads]:
    """Wind and rope, and both together about the hinge."""
    cut = case.cut
    gust = gust_on(case.tree, case.site, cut.gun_deg, cut.height_m, is_conifer=case.wood.group == "conifer")
    rigging = rigged(case.rope, case.site, case.at, cut.gun_deg, cut.height_m)
    return gust, rigging, loads_of(gust, rigging)


def _resting(case: Case, mass: Mass) -> Resting:
    return resting_on(case.profile, case.tree, case.wood, mass, case.cut.height_m, case.constants)
