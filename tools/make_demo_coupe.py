"""Make the demo's coupe, twenty-four made-up trees with a track and a permit: ``python tools/make_demo_coupe.py``."""

from __future__ import annotations

import sys
from dataclasses import replace
from pathlib import Path

import numpy as np

from make_demo_stumps import PRACTICE, made_tree
from plain_compass.core.block.wanted import BlockWanted, OfTree
from plain_compass.core.design.kit import Kit
from plain_compass.core.site.site import Obstacle, Place, Site, SpotHeight
from plain_compass.core.tree.around import ABOVE, LIFE, with_answer
from plain_compass.job.block_crew import worker_of
from plain_compass.job.block_kit import kit_set_of
from plain_compass.job.document import Job, TreePlan
from plain_compass.job.files import job_text

FILE = Path(__file__).resolve().parent.parent / "src/plain_compass/data/demo/withy-holm-coupe.pcjob.json"
CREW = ("Wren, hard trees, up to 60 cm", "Tarn, demanding trees, up to 45 cm", "Pell")
"""Three made-up people; one has not said what they are trained for."""
KITS = (
    "big saw (Wren): bar 45 cm, 4 wedges 25 mm, maul",
    "small saw (Tarn): bar 33 cm, 2 wedges 25 mm, lever",
    "rope bag: rope 60 m, pull 8 kN, sheave, 3 slings, 2 signs",
)
"""What comes along."""
ROWS, COLUMNS, APART_m = 4, 6, 8.5
"""A coupe stands in rough rows."""


def line(kind: str, name: str, cost: str, *points: tuple[float, float]) -> Obstacle:
    """Something long on the ground."""
    return Obstacle(kind, name, cost, "line", tuple(Place(*at) for at in points), 1.5, 0.2, 0.0, "no")


def planted(number: int, random: np.random.Generator) -> TreePlan:
    """One tree of the coupe, looked at from all sides."""
    row, column = divmod(number, COLUMNS)
    east = (column - 2.5) * APART_m + random.uniform(-2.0, 2.0)
    north = row * APART_m + random.uniform(-2.0, 2.0)
    plan = made_tree(number, random)
    around = plan.tree.around
    looked = replace(around, **dict.fromkeys(with_answer(around, (*ABOVE, *LIFE), "unknown"), "no"))
    at = Place(round(float(east), 1), round(float(north), 1))
    tree = replace(plan.tree, around=looked)
    return replace(plan, id=f"K-{number + 1:02d}", at=at, state="standing", tree=tree)


def ground() -> Site:
    """A ride below, a fence above, a stack beside; the ground rises to the north."""
    stack = tuple(Place(*at) for at in ((-34.0, -9.0), (-26.0, -9.0), (-26.0, -5.0), (-34.0, -5.0)))
    places = [(east, north) for east in (-40.0, 0.0, 40.0) for north in (-25.0, 10.0, 45.0)]
    return Site(
        name="Withy Holm",
        looked="yes",
        wind_m_s=2.0,
        wind_from_deg=240.0,
        obstacles=(
            line("track", "ride", "nuisance", (-45.0, -12.0), (0.0, -10.0), (45.0, -13.0)),
            line("fence", "deer fence", "matters", (-45.0, 42.0), (45.0, 44.0)),
            Obstacle("stack", "stack", "matters", "area", stack, 0.1, 1.5, 0.0, "no"),
        ),
        spots=tuple(SpotHeight(east, north, round(0.12 * north + 0.02 * east, 2)) for east, north in places),
    )


def main() -> int:
    """Write it; two trees wait for a permit."""
    random = np.random.default_rng(24)
    trees = tuple(planted(number, random) for number in range(ROWS * COLUMNS))
    waiting = tuple(OfTree(id, not_before="2026-12-03") for id in ("K-23", "K-24"))
    kit = Kit(wedge_count=4, pull_N=8000.0)
    crew = tuple(worker_of(each, "metric") for each in CREW)
    kits = tuple(kit_set_of(each, "metric") for each in KITS)
    wanted = BlockWanted(begins="2026-12-01", trees=waiting, crew=crew, kits=kits)
    job = Job("Withy Holm, the coupe", PRACTICE, site=ground(), kit=kit, trees=trees, block=wanted)
    FILE.write_text(job_text(job, indent=1), encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
