"""The job document: everything that is kept about one job, frozen."""

from __future__ import annotations

from dataclasses import field, replace
from typing import Any

from ..core.assess import Assessment, assess, check, with_duties_done, with_facts, with_person, with_unknowns
from ..core.base.errors import InputError
from ..core.base.frozen import dataclass
from ..core.base.hashing import hashed_once
from ..core.base.kept import kept
from ..core.base.paths import with_value
from ..core.base.quantity import Kind, choice, name
from ..core.block.wanted import BlockWanted
from ..core.design.cut import Cut
from ..core.design.kit import Kit
from ..core.judge.findings import Done
from ..core.plan.case import Case
from ..core.site.rigging import Rope
from ..core.site.site import Obstacle, Place, Site
from ..core.stump.as_cut import AsCut
from ..core.stump.hand import Hand, with_factors
from ..core.stump.hand_facts import hand_facts
from ..core.stump.told import Told
from ..core.tree.crown import mean_radius_m
from ..core.tree.tree import Tree
from .language import tr
from .person import Person
from .readings import Taken
from .tables import indicative, practice_of, wood_of
from .units import UNITS
from .words import Speech, vocabularies

FORMAT = "plain-compass-job"
VERSION = 3
"""Of the job file; each step up has its own migration."""
SUFFIX = ".pcjob.json"
STATES = {
    "standing": tr("still stands"),
    "down": tr("is down"),
    "hung": tr("hangs in another"),
    "off": tr("is put off"),
    "over": tr("was blown over"),
}
STANDS = ("standing", "hung", "off")
"""States of a tree that is still in the way of the others."""


@hashed_once
@dataclass(frozen=True)
class TreePlan:
    """One tree with the cut designed for it."""

    id: str = name("1", "tree")
    tree: Tree = field(default_factory=Tree)
    cut: Cut = field(default_factory=Cut)
    notes: str = ""
    readings: tuple[Taken, ...] = ()
    at: Place = field(default_factory=Place)
    rope: Rope = field(default_factory=Rope)
    duties: tuple[Done, ...] = ()
    as_cut: AsCut = field(default_factory=AsCut)
    state: str = choice(
        "standing",
        STATES,
        tr("the tree"),
        tr("One that is down is in nobody's way, but for a stem it was cut off aloft."),
    )


def size_words(plan: TreePlan, speech: Speech) -> tuple[str, str]:
    """(diameter, height) of a tree as people read them; what is only a stand-in is said to be not measured."""
    tree, bare = plan.tree, tr("not measured")
    diameter = bare if "trunk.diameter_m" in tree.stand_ins else speech.show(tree.trunk.diameter_m, Kind.GIRTH)
    return diameter, bare if "height_m" in tree.stand_ins else speech.show(tree.height_m, Kind.SPAN)


@dataclass(frozen=True)
class LogEntry:
    """What really happened to one tree, with all it was planned on: it can be judged again by other constants.

    Attributes:
        tree_id: of its tree in the job; note: what an older file said of it.
        id: of its own, the same wherever it is taken in.
        made: when, as text; place: name of the job.
        model: version of the model; constants: fingerprint of those it told by; constants_used: all of them, as JSON.
        plan: tree, cut and stump as they were; kit, site: the same, neighbours among the obstacles.
        told: what the plan told of the fall.
    """

    tree_id: str = ""
    note: str = ""
    id: str = name("", "entry")
    made: str = name("", "made")
    place: str = name("", "place")
    practice: str = "fifth-and-tenth"
    model: str = name("", "model")
    constants: str = name("", "constants")
    constants_used: str = ""
    plan: TreePlan = field(default_factory=TreePlan)
    kit: Kit = field(default_factory=Kit)
    site: Site = field(default_factory=Site)
    told: Told = field(default_factory=Told)


@dataclass(frozen=True, slots=True)
class Job:
    """A job: its trees, the kit, the site, and how the person is spoken to."""

    name: str = name("New job", "name")
    practice: str = "fifth-and-tenth"
    units: str = choice("metric", UNITS, "units", tr("Centimetres and metres, or inches and feet."))
    words: str = choice("hinge", vocabularies(), "words", tr("Which trade words the program speaks."))
    site: Site = field(default_factory=Site)
    kit: Kit = field(default_factory=Kit)
    person: Person = field(default_factory=Person)
    trees: tuple[TreePlan, ...] = field(default_factory=lambda: (TreePlan(),))
    log: tuple[LogEntry, ...] = ()
    hand: Hand = field(default_factory=Hand)
    block: BlockWanted = field(default_factory=BlockWanted)

    def plan(self, tree_id: str) -> TreePlan:
        """The tree with this id; InputError when there is none."""
        for each in self.trees:
            if each.id == tree_id:
                return each
        raise InputError("tree", tree_id, reason=tr("this job's trees are ") + ", ".join(t.id for t in self.trees))

    @property
    def speech(self) -> Speech:
        """How to speak to this person."""
        return Speech(self.units, self.words)


def case_of(job: Job, tree_id: str) -> Case:
    """The core's case for one tree of a job."""
    plan = job.plan(tree_id)
    return _case(job, plan, _with_neighbours(job, plan))


def _case(job: Job, plan: TreePlan, site: Site) -> Case:
    return Case(
        tree=plan.tree,
        wood=wood_of(plan.tree.species),
        site=site,
        cut=plan.cut,
        kit=job.kit,
        practice=practice_of(job.practice),
        constants=with_factors(indicative(), job.hand),
        at=plan.at,
        rope=plan.rope,
    )


def _with_neighbours(job: Job, here: TreePlan) -> Site:
    """The site with what stands of the job's other trees, after its own obstacles: it may catch this one.

    Of a tree that was cut aloft and is down the stem below its cut still stands.
    """
    others = [plan for plan in job.trees if plan.id != here.id and plan.at != here.at]
    standing = tuple(_neighbour(plan.id, plan.tree, plan.at) for plan in others if plan.state in STANDS)
    left = tuple(_stem_left(plan) for plan in others if plan.state == "down" and plan.cut.is_aloft)
    return _joined(job.site, standing + left)


@kept("site with the other trees", 32)
def _joined(site: Site, others: tuple[Obstacle, ...]) -> Site:
    """Kept by the other trees alone: while one tree is worked on, what stands round it stays the same object."""
    return replace(site, obstacles=(*site.obstacles, *others)) if others else site


@kept("other trees as neighbours", 4096)
def _neighbour(id: str, tree: Tree, at: Place) -> Obstacle:
    radius = round(mean_radius_m(tree.crown), 2)
    seen = (tree.around.dead_limbs, tree.around.hung_pieces)
    overhead = "yes" if "yes" in seen else "unknown" if "unknown" in seen else "no"
    return Obstacle("tree", id, "none", "spot", (at,), radius, tree.height_m, tree.crown.base_m, overhead)


def _stem_left(plan: TreePlan) -> Obstacle:
    """What is left standing of a tree that was cut aloft: its stem, without a crown."""
    radius = round(plan.tree.trunk.diameter_m / 2, 2)
    return Obstacle("tree", f"{plan.id} stem", "none", "spot", (plan.at,), radius, plan.cut.height_m, 0.0, "no")


def case_alone(job: Job, plan: TreePlan) -> Case:
    """The core's case for one tree as if none of the job's others stood."""
    return _case(job, plan, job.site)


def check_plan(job: Job, plan: TreePlan) -> None:
    """Raise InputError unless a tree of a job can be assessed: what stands round it is that of the job's own site."""
    check(_case(job, plan, job.site))


def assess_tree(job: Job, tree_id: str) -> Assessment:
    """Assess one tree of a job, its limits by the shares they use up: how likely each is to fail is not asked here."""
    result = with_facts(with_person(assess(case_of(job, tree_id)), job.person.limits), hand_facts(job.hand))
    return with_unknowns(with_duties_done(result, job.plan(tree_id).duties))


def with_plan(job: Job, tree_id: str, path: str, value: Any) -> Job:
    """A copy of the job with one value of one tree's plan replaced."""
    trees = tuple(with_value(t, path, value) if t.id == tree_id else t for t in job.trees)
    return replace(job, trees=trees)


def with_tree(job: Job, tree_id: str, plan: TreePlan) -> Job:
    """A copy of the job with one tree's plan replaced."""
    return replace(job, trees=tuple(plan if t.id == tree_id else t for t in job.trees))
