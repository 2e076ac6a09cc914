"""Cases of practice as they are kept in sets: a tree with its cut, what was seen of it, and what is asked.

The truth is never kept: the core says it of the case, so that the two cannot contradict one another.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from dataclasses import field, replace
from functools import cache

import numpy as np

from ..core.base.errors import InputError
from ..core.base.frozen import dataclass
from ..core.base.quantity import Kind, choice, name, quantity
from ..core.design.first import first_design
from ..core.design.kit import Kit
from ..core.plan.case import Case
from ..core.practice import now, stumps
from ..core.practice.look import look_truth
from ..core.practice.skills import BY_KEY, SKILLS, Task, skills_of
from ..core.practice.trees import made_tree
from ..core.site.site import Site
from ..core.tree.wood import Wood
from .document import Job, TreePlan, case_alone
from .language import tr
from .person import Person
from .practice_terms import word_questions
from .tables import DEFAULT_PRACTICE, UNKNOWN, indicative, practice_of, species_table, wood_of

KEYS = {skill.key: skill.key for skill in SKILLS}
SIGN_KEYS = {"": "", **{sign.key: sign.key for sign in now.SIGNS}}
MOST_TRIES = 400
"""Draws until exactly the wanted thing is wrong; some dozens are usual."""


class NoCaseError(InputError):
    """No case of this kind was found: another seed finds one."""


@dataclass(frozen=True, slots=True)
class SetCase:
    """One case.

    Attributes:
        asks: skill it asks for; seed, level: what it was made of, 0 where it was made of a real tree or stump.
        sign: what shows, of What now; word: what is asked of Words, as ``term:from:to``.
    """

    asks: str = choice("height", KEYS, "asks for", "What is asked of it.")
    level: int = quantity(1, kind=Kind.COUNT, low=1, high=3, label="level", help="How hard it is.")
    seed: int = quantity(0, kind=Kind.COUNT, low=0, high=2**53, label="seed", help="What it was made of.")
    practice: str = DEFAULT_PRACTICE
    plan: TreePlan = field(default_factory=TreePlan)
    site: Site = field(default_factory=Site)
    kit: Kit = field(default_factory=Kit)
    sign: str = choice("", SIGN_KEYS, "what shows", "Of a moment: what shows that all is not well.")
    word: str = name("", "word")

    @property
    def task(self) -> Task:
        """Sort of case."""
        return BY_KEY[self.asks].task


def case_of_set(kept: SetCase) -> Case:
    """The core's case."""
    return case_alone(job_of(kept), kept.plan)


def job_of(kept: SetCase, units: str = "metric", words: str = "hinge") -> Job:
    """The case as a job of its own: to be taken apart."""
    title = f"Practice, {kept.task} {kept.seed}" if kept.seed else f"Practice, {kept.task}"
    return Job(title, kept.practice, units, words, kept.site, kept.kit, Person(), (kept.plan,))


@cache
def _woods() -> tuple[Wood, ...]:
    return tuple(wood for key, wood in species_table().items() if not key.startswith(UNKNOWN))


def seeded(asks: str, level: int, seed: int) -> np.random.Generator:
    """A stream of its own for every question, level and seed, the same on every machine."""
    digest = hashlib.sha256(f"{asks}:{level}:{seed}".encode()).digest()
    return np.random.default_rng(int.from_bytes(digest[:8], "little"))


def make_case(asks: str, level: int, seed: int) -> SetCase:
    """A case drawn until exactly the wanted thing is asked. Raises NoCaseError where many draws find none."""
    random, maker = seeded(asks, level, seed), MAKERS[BY_KEY[asks].task]
    for _ in range(MOST_TRIES):
        found = maker(SetCase(asks, level, seed), random)
        if found is not None:
            return found
    raise NoCaseError("seed", seed, reason=tr("no case of {asks} was found; accepted: another seed", asks=asks))


def _plan(kept: SetCase, random: np.random.Generator) -> TreePlan:
    """A made-up tree with a first design on a lay to the north."""
    tree = made_tree(_woods(), kept.level, random)
    wood = wood_of(tree.species)
    cut = first_design(tree, wood, 0.0, practice_of(kept.practice), indicative())
    return TreePlan(f"P-{kept.seed:03d}", tree, cut)


def _calm(kept: SetCase, plan: TreePlan) -> SetCase:
    """On level open ground without wind, with a bar that reaches."""
    bar = round(min(max(1.1 * plan.tree.trunk.diameter_m, 0.33), 0.9), 2)
    site = Site(name="Withy Holm", looked="yes", wind_m_s=0.0)
    return replace(kept, plan=plan, site=site, kit=Kit(bar_m=bar, wedge_count=4))


def _look(kept: SetCase, random: np.random.Generator) -> SetCase | None:
    found = _calm(kept, _plan(kept, random))
    return None if kept.asks == "goes" and not look_truth(case_of_set(found)).is_plain else found


def _cut(kept: SetCase, random: np.random.Generator) -> SetCase | None:
    """A tree that leans ahead, or a little back, with a design that nobody should leave as it is."""
    plan = _plan(kept, random)
    ahead = float(random.uniform(-1.5, 4.0)) if kept.level == 1 else float(random.uniform(-2.5, 9.0))
    lean = replace(plan.tree.lean, angle_deg=round(abs(ahead), 1), bearing_deg=0.0 if ahead >= 0 else 180.0)
    tree = replace(stumps.upright(plan.tree, random), lean=replace(lean, sweep_m=0.0))
    bare = replace(plan.cut, wedges=())
    return _calm(kept, replace(plan, tree=tree, cut=bare))


def _stump(kept: SetCase, random: np.random.Generator) -> SetCase | None:
    faults = stumps.FAULTS_BY_LEVEL[kept.level]
    fault = faults[int(random.integers(len(faults)))]
    plan = _plan(kept, random)
    found = _calm(kept, replace(plan, tree=stumps.upright(plan.tree, random)))
    planned = stumps.planned_cut(case_of_set(found), 0.0, strapped=fault == "thin-strap")
    as_cut = stumps.faulty(planned, fault, random)
    if not stumps.is_wanted(planned, as_cut, fault):
        return None
    return replace(found, plan=replace(found.plan, cut=planned.cut, as_cut=as_cut))


def _now(kept: SetCase, random: np.random.Generator) -> SetCase | None:
    signs = [sign for sign in now.SIGNS if sign.level <= kept.level]
    sign = signs[int(random.integers(len(signs)))]
    plan = _plan(kept, random)
    found = _calm(kept, replace(plan, tree=stumps.upright(plan.tree, random)))
    planned = stumps.planned_cut(case_of_set(found), 0.0, strapped=False)
    case = sign.befalls(planned, random)
    if not now.is_wanted(case, sign):
        return None
    return replace(found, plan=replace(found.plan, tree=case.tree, cut=case.cut), site=case.site, sign=sign.key)


def _words(kept: SetCase, random: np.random.Generator) -> SetCase | None:
    questions = word_questions(kept.level)
    plan = _plan(kept, random)
    found = _calm(kept, replace(plan, tree=stumps.upright(plan.tree, random)))
    planned = stumps.planned_cut(case_of_set(found), 0.0, strapped=True)
    word = questions[int(random.integers(len(questions)))]
    return replace(found, plan=replace(found.plan, cut=planned.cut), word=word)


MAKERS: dict[Task, Callable[[SetCase, np.random.Generator], SetCase | None]] = {
    Task.LOOK: _look,
    Task.CUT: _cut,
    Task.STUMP: _stump,
    Task.NOW: _now,
    Task.WORDS: _words,
}


def asked_of(task: str, place: int) -> str:
    """Which skill the case at a place of a set of one sort asks for: by turns."""
    skills = skills_of(Task(task))
    return skills[place % len(skills)].key
