"""What is timed: each a function of the number of the call, so that every call is a question not asked before.

Only names that have long been there are used, so that an older checkout can be timed beside this one.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

Work = Callable[[int], object]


def assessments() -> dict[str, Work]:
    """``assess`` while one thing after another is dragged."""
    from plain_compass.core.assess import assess
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import case_of

    case, lobed = case_of(demo_job(), "WH-07"), case_of(demo_job(), "WH-21")
    cut, crown = case.cut, case.tree.crown

    def hinge(number: int) -> object:
        return assess(replace(case, cut=replace(cut, hinge=replace(cut.hinge, left_m=0.05 + number % 900 * 1e-5))))

    def lay(number: int) -> object:
        return assess(replace(case, cut=replace(cut, lay_deg=(200.0 + number * 0.1) % 360.0)))

    def height(number: int) -> object:
        return assess(replace(case, tree=replace(case.tree, height_m=17.0 + number % 900 * 0.01)))

    def edge(number: int) -> object:
        first = replace(crown.readings[0], radius_m=2.0 + number % 900 * 0.001)
        return assess(
            replace(case, tree=replace(case.tree, crown=replace(crown, readings=(first, *crown.readings[1:]))))
        )

    def lobes(number: int) -> object:
        return assess(replace(lobed, cut=replace(lobed.cut, lay_deg=(lobed.cut.lay_deg + number * 0.01) % 360.0)))

    return {
        "assess, hinge dragged": hinge,
        "assess, lay turned": lay,
        "assess, lay turned, lobed": lobes,
        "assess, tree measured anew": height,
        "assess, crown edge paced anew": edge,
    }


def searches() -> dict[str, Work]:
    """What asks many cases: the rose, the survey, the suggestions, the sweep through the stages."""
    import numpy as np

    from plain_compass.core.advice.rose import whole_rose
    from plain_compass.core.advice.suggest import suggest
    from plain_compass.core.advice.survey import survey
    from plain_compass.core.assess import assess
    from plain_compass.core.cuts.stages import sweep_of
    from plain_compass.core.tree.tree import Decay
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import case_of
    from plain_compass.job.spreads import usual_spreads

    case, lobed = case_of(demo_job(), "WH-07"), case_of(demo_job(), "WH-21")
    rotten = replace(lobed, tree=replace(lobed.tree, decay=Decay(kind="cavity", radius_m=0.08, offset_m=0.05)))
    bearings, spreads = np.arange(360.0), usual_spreads(case.tree)
    plain, hollow = assess(case), assess(rotten)

    def taller(one: Any, number: int) -> Any:
        return replace(one, tree=replace(one.tree, height_m=one.tree.height_m + number * 0.01))

    return {
        "lay rose, 360 bearings": lambda number: whole_rose(taller(case, number), bearings),
        "lay rose, 360 bearings, lobed and rotten": lambda number: whole_rose(taller(rotten, number), bearings),
        "survey of some thirty cases": lambda number: survey(taller(case, number), spreads),
        "suggest, the whole table, lobed and rotten": lambda number: suggest(assess(taller(rotten, number))),
        "stages, sweep of 200 depths, round section": lambda _: sweep_of(plain),
        "stages, sweep of 200 depths, lobed and rotten": lambda _: sweep_of(hollow),
    }


def job_of(count: int) -> Any:
    """A job of so many trees, each of its own size, seven metres apart."""
    from plain_compass.core.site.site import Place
    from plain_compass.job.demo import demo_job

    job, found = demo_job(), []
    for number in range(count):
        plan = job.trees[number % len(job.trees)]
        tree = replace(plan.tree, height_m=plan.tree.height_m + number * 1e-3)
        at = Place(7.0 * (number % 25) - 80.0, 7.0 * (number // 25) - 80.0)
        found.append(replace(plan, id=f"T{number:04d}", at=at, tree=tree))
    return replace(job, trees=tuple(found))


def jobs(count: int) -> dict[str, Work]:
    """Opening a job of many trees, and an edit in it."""
    from plain_compass.job.document import assess_tree
    from plain_compass.job.edits import set_value
    from plain_compass.job.files import job_text, parse_job

    job = job_of(count)
    text = job_text(job)

    def opened(_: int) -> object:
        return parse_job(text, "many.pcjob.json")

    def edited(number: int) -> object:
        return assess_tree(set_value(job, "T0003", "cut.hinge.left_m", 0.04 + number % 900 * 1e-5), "T0003")

    return {f"open {count} trees": opened, f"edit one of {count} trees": edited}


def everything() -> dict[str, Work]:
    """All of it, by name."""
    return assessments() | searches() | jobs(6) | jobs(600)


CALLS = {"lay rose": 1, "suggest": 1, "survey": 3, "stages": 5, "open 600": 1, "chances": 5, "ways out": 1}
"""Calls in one burst of what takes longer; all else is called 20 times."""


def calls_of(name: str) -> int:
    """Calls of a work in one burst."""
    return next((count for start, count in CALLS.items() if name.startswith(start)), 20)
