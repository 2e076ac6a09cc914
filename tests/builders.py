"""Small cases that tests start from: one round tree, one cut, and how to change one thing about them."""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace
from typing import Any

import numpy as np

from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.paths import with_value
from plain_compass.core.base.phrase import Phrase
from plain_compass.core.design.cut import BackCut, Cut, Face, Hinge, WedgeSeat
from plain_compass.core.design.kit import Kit
from plain_compass.core.plan.case import Case
from plain_compass.core.site.site import Site
from plain_compass.core.tree.around import ABOVE, LEAVE, LIFE, Around
from plain_compass.core.tree.section import Section, section_at
from plain_compass.core.tree.sections import Place, Sections, sections_of
from plain_compass.core.tree.tree import Crown, CrownReading, Decay, Lean, Tree, Trunk
from plain_compass.job.demo import demo_job
from plain_compass.job.document import Job
from plain_compass.job.tables import indicative, practice_of, wood_of
from plain_compass.job.words import Speech

WALKED = Around(**dict.fromkeys((*ABOVE, *LIFE), "no"), **dict.fromkeys(LEAVE, "yes"))
ROUND = tuple(CrownReading(bearing, 3.0) for bearing in (0.0, 90.0, 180.0, 270.0))


def round_tree(**changes: Any) -> Tree:
    """A 40 cm oak, 15 m, upright, round crown, sounded and found solid; the butt as thick as breast height."""
    tree = Tree(
        species="oak",
        height_m=15.0,
        trunk=Trunk(diameter_m=0.40, butt_diameter_m=0.40, butt_at_m=0.3, bark_m=0.0),
        crown=Crown(base_m=5.0, readings=ROUND),
        lean=Lean(method="plumb"),
        decay=Decay(kind="none"),
        crack="none",
        around=WALKED,
    )
    for path, value in changes.items():
        tree = with_value(tree, path.replace("__", "."), value)
    return tree


def plain_cut(**changes: Any) -> Cut:
    """A fifth deep, a tenth thick, open 70 degrees, stepped 3 cm, one wedge straight behind."""
    cut = Cut(
        lay_deg=0.0,
        height_m=0.3,
        face=Face("open", 0.08, 50.0, 20.0),
        hinge=Hinge(0.04, 0.04),
        back=BackCut("plain", 0.03, 0.05),
        wedges=(WedgeSeat(0.0),),
    )
    for path, value in changes.items():
        cut = with_value(cut, path.replace("__", "."), value)
    return cut


def case(tree: Tree | None = None, cut: Cut | None = None, **kit: Any) -> Case:
    """A whole case with wedges that lift an ordinary tree over its hinge; keywords change the kit."""
    tree = tree or round_tree()
    return Case(
        tree=tree,
        wood=wood_of(tree.species),
        site=Site(),
        cut=cut or plain_cut(),
        kit=replace(Kit(), **({"wedge_thickness_m": 0.035, "wedge_length_m": 0.25} | kit)),
        practice=practice_of("fifth-and-tenth"),
        constants=indicative(),
    )


def assessed(tree: Tree | None = None, cut: Cut | None = None, **kit: Any) -> Assessment:
    """A case, assessed."""
    return assess(case(tree, cut, **kit))


def one_tree_job() -> Job:
    """The demo job with its first tree alone."""
    job = demo_job()
    return replace(job, trees=job.trees[:1])


def section(tree: Tree | None = None, height_m: float = 0.3, lay_deg: float = 0.0) -> Section:
    """A tree's section at the cut."""
    tree = tree or round_tree()
    return section_at(tree, height_m, lay_deg, indicative().profile_exponent[wood_of(tree.species).group])


def batch(value: Any) -> Any:
    """A batch of one: numbers, and results made of numbers, as the kernels take them."""
    if isinstance(value, bool | str | int) or value is None:
        return value
    if isinstance(value, float):
        return np.array([value])
    if isinstance(value, tuple):
        return tuple(batch(each) for each in value)
    if is_dataclass(value) and not isinstance(value, type):
        return type(value)(*(batch(getattr(value, item.name)) for item in fields(value)))
    return value


def sections_alone(tree: Tree | None = None, height_m: float = 0.3, lay_deg: float = 0.0) -> Sections:
    """The section of a tree as the kernels take it."""
    tree = tree or round_tree()
    exponent = indicative().profile_exponent[wood_of(tree.species).group]
    return sections_of([Place(tree, height_m, lay_deg, exponent)])


def finding(result: Assessment, name: str) -> Any:
    """The finding with this id."""
    return next(f for f in result.findings if f.id == name)


def finding_ids(result: Assessment) -> set[str]:
    """Ids of every finding."""
    return {f.id for f in result.findings}


def told(what: Phrase | str) -> str:
    """What is said, in metric units and the first vocabulary."""
    return Speech().phrase(what)
