"""How what takes time grows: nothing may grow faster than its size."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np

from side import burst
from works import Work, jobs

ROUNDS = 3
"""The least disturbed of so many counts: what is looked for here is a power, not a time."""


def _walls(count: int, corners: int = 2) -> tuple[Any, ...]:
    """Lines, or areas of many corners, round the tree at 8 to 40 metres."""
    from plain_compass.core.site.site import Obstacle, Place

    found = []
    for number in range(count):
        turn, far = 2.399963 * number, 8.0 + 32.0 * math.sqrt((number + 0.5) / count)
        at = Place(far * math.sin(turn), far * math.cos(turn))
        if corners == 2:
            points: tuple[Any, ...] = (at, Place(at.east_m + 3.0, at.north_m + 1.0))
        else:
            round_it = [2 * math.pi * k / corners for k in range(corners)]
            points = tuple(Place(at.east_m + 2.5 * math.cos(a), at.north_m + 2.5 * math.sin(a)) for a in round_it)
        found.append(Obstacle("wall", "", "matters", "line" if corners == 2 else "area", points, 0.3))
    return tuple(found)


def lines(count: int, corners: int = 2) -> dict[str, Work]:
    """The lay turned, and the rose's targets, among so many obstacles."""
    from plain_compass.core.assess import assess
    from plain_compass.core.plan.reach import meets_by_bearing
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import case_of

    case = case_of(demo_job(), "WH-07")
    case = replace(case, site=replace(case.site, obstacles=_walls(count, corners)))
    bearings = np.arange(360.0)

    def lay(number: int) -> object:
        return assess(replace(case, cut=replace(case.cut, lay_deg=(number * 0.37) % 360.0)))

    def targets(number: int) -> object:
        return meets_by_bearing(replace(case, tree=replace(case.tree, height_m=17.0 + number * 0.01)), bearings)

    return {"assess, lay turned": lay, "targets of 360 bearings": targets}


def falls(count: int) -> dict[str, Work]:
    """So many falls at once."""
    from plain_compass.core.fall.ends import ends_for
    from plain_compass.core.fall.falls import fall_all
    from plain_compass.core.fall.spread import samples_of, slopes_in_steps
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import assess_tree
    from plain_compass.job.spreads import cutting_spreads, fall_spreads

    job = demo_job()
    result = assess_tree(job, "WH-12")
    spreads = fall_spreads(job.plan("WH-12"))
    slopes = {k: v for each in slopes_in_steps(result, spreads, whole=True) for k, v in each.items()}
    rods, ends = samples_of(result, slopes, cutting_spreads(), count, 1).rods, ends_for(result.case)
    return {"falls": lambda _: fall_all(rods, ends)}


def trees(count: int) -> dict[str, Work]:
    """Opening a job and an edit in it, with nothing kept from the time before."""
    from plain_compass.core.base import kept

    works = jobs(count)
    opened = works[f"open {count} trees"]

    def anew(number: int) -> object:
        kept.forget()
        return opened(number)

    return works | {f"open {count} trees": anew}


GROWING: tuple[tuple[str, Callable[[int], dict[str, Work]], tuple[int, ...]], ...] = (
    ("trees", trees, (6, 60, 600)),
    ("lines", lines, (30, 300, 3_000)),
    ("corners of 30 areas", lambda corners: lines(30, corners), (4, 50, 200)),
    ("falls", falls, (1_000, 10_000, 100_000)),
)


def growth_page() -> str:
    """Milliseconds of processor time by size, and the power with which the last step grows, as Markdown."""
    rows = []
    for what, works_at, sizes in GROWING:
        times: dict[str, list[float]] = {}
        for size in sizes:
            for name, work in works_at(size).items():
                calls = 3 if size >= sizes[-1] else 8
                best = min(burst(work, 10 * k, calls).cpu_ms for k in range(ROUNDS))
                times.setdefault(name.replace(f" {size} ", " "), []).append(best)
        for name, found in times.items():
            power = math.log(found[-1] / found[-2]) / math.log(sizes[-1] / sizes[-2])
            cells = " | ".join(f"{ms:.2f} ms" for ms in found)
            rows.append(f"| {what}: {name} | {' / '.join(f'{n:,}' for n in sizes)} | {cells} | {power:.2f} |")
            print(rows[-1], flush=True)
    head = ["| what | sizes | small | middle | large | power |", "|---|---|---|---|---|---|"]
    told = [
        "",
        "## Growth",
        "",
        "Processor time of one call by size, and the power of the size with which the last step grows: 1 is in",
        "proportion.",
        "",
    ]
    return "\n".join([*told, *head, *rows, ""])
