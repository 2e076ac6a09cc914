"""Make the demo's stumps: ``python tools/make_demo_stumps.py``; writes the demo's log and reads three of its trees.

Two made-up fallers fell made-up trees of Withy Holm. What is true of each is stated here, so that what is learned from
the entries can be held against it (``tests/log/test_demo_stumps.py``).
"""

from __future__ import annotations

import json
import sys
from dataclasses import replace
from datetime import date, timedelta
from pathlib import Path

import numpy as np

from plain_compass.core.assess import assess
from plain_compass.core.design.cut import WedgeSeat
from plain_compass.core.design.first import first_design
from plain_compass.core.design.kit import Kit
from plain_compass.core.fall.nominal import nominal_fall
from plain_compass.core.site.site import Site
from plain_compass.core.stump.made import redrawn
from plain_compass.core.stump.told import Told, told_of
from plain_compass.core.tree.crown import CrownReading
from plain_compass.core.tree.tree import Tree
from plain_compass.job.document import Job, TreePlan, case_of, with_tree
from plain_compass.job.fall import fan_for
from plain_compass.job.files import job_text, parse_job
from plain_compass.job.log_entries import entry_of, entry_text
from plain_compass.job.made_fallers import FALLERS
from plain_compass.job.tables import indicative, practice_of, wood_of

FOLDER = Path(__file__).resolve().parent.parent / "src/plain_compass/data/demo"
SPECIES = ("hornbeam", "larch-european", "chestnut-sweet", "birch-silver", "fir-grand", "lime")
PRACTICE = "fifth-and-tenth"
COUNT, NEAR_MISSES = 40, (11, 26)
"""Entries, and which of them were too close."""
DOWN = {"WH-15": "Wren", "WH-18": "Tarn", "WH-24": "Wren"}
"""Trees of the demo that are down and read, and who felled them."""


def told_for(job: Job, tree_id: str) -> Told:
    """What the plan tells."""
    plan = job.plan(tree_id)
    result = assess(case_of(job, tree_id))
    return told_of(result, nominal_fall(result), fan_for(plan, result))


def made_tree(number: int, random: np.random.Generator) -> TreePlan:
    """One upright tree with a first design and two pairs of wedges."""
    wood, bare = wood_of(SPECIES[number % len(SPECIES)]), Tree()
    diameter, height = round(random.uniform(0.26, 0.48), 2), round(random.uniform(12.0, 21.0), 1)
    radius, bearing = round(random.uniform(1.6, 3.2), 1), round(random.uniform(0, 359))
    edges = tuple(CrownReading(at, round(radius * random.uniform(0.85, 1.15), 1)) for at in (0.0, 90.0, 180.0, 270.0))
    tree = replace(
        bare,
        species=wood.key,
        trunk=replace(bare.trunk, diameter_m=diameter, bark_m=0.015),
        height_m=height,
        crown=replace(bare.crown, base_m=round(0.4 * height, 1), leaf="bare", readings=edges),
        lean=replace(bare.lean, angle_deg=round(random.uniform(0.0, 2.0), 1), bearing_deg=bearing, method="plumb"),
    )
    lay = float(round(bearing + random.uniform(-30, 30)) % 360)
    cut = first_design(tree, wood, lay, practice_of(PRACTICE), indicative())
    face = replace(cut.face, depth_m=round(cut.face.depth_m, 3))
    hinge = replace(cut.hinge, left_m=round(cut.hinge.left_m, 3), right_m=round(cut.hinge.right_m, 3))
    back = replace(cut.back, step_m=0.025, strap_m=round(cut.back.strap_m, 3))
    cut = replace(cut, face=face, hinge=hinge, back=back, wedges=(WedgeSeat(25.0, 2), WedgeSeat(-25.0, 2)))
    return TreePlan(f"C-{number + 1:02d}", tree, cut, state="down")


def entry(number: int, random: np.random.Generator) -> str:
    """One line: a faller after the other, every nine days through two winters."""
    faller, day = list(FALLERS)[number % 2], date(2025, 11, 3) + timedelta(days=number * 9)
    plan = made_tree(number, random)
    site = Site("Withy Holm", looked="yes", slope_deg=3.0, downhill_deg=200.0, wind_m_s=1.5, wind_from_deg=250.0)
    job = Job("Withy Holm, the coppice", PRACTICE, site=site, kit=Kit(wedge_count=4), trees=(plan,))
    told = told_for(job, plan.id)
    read = redrawn(case_of(job, plan.id), told, FALLERS[faller], random)
    saw = "40 cm bar" if plan.tree.trunk.diameter_m < 0.36 else "50 cm bar"
    taken_s = float(round(random.uniform(12, 35))) * 60.0
    read = replace(read, date=day.isoformat(), faller=faller, saw=saw, time_s=taken_s)
    if number in NEAR_MISSES:
        read = replace(read, hit="a branch came down behind", felt="too close", words="Looked up too late.")
    job = with_tree(job, plan.id, replace(plan, as_cut=read))
    made = f"{day.isoformat()} 16:{number:02d}:00"
    return entry_text(entry_of(job, plan.id, told, made, f"withy-holm-{number + 1:02d}"))


def read_trees(random: np.random.Generator) -> None:
    """Three trees of the demo, down and read."""
    path = FOLDER / "withy-holm.pcjob.json"
    opened = parse_job(path.read_text(encoding="utf-8"), path.name)
    job = opened.job
    raw = json.loads(path.read_text(encoding="utf-8"))
    for number, (tree_id, faller) in enumerate(DOWN.items()):
        read = redrawn(case_of(job, tree_id), told_for(job, tree_id), FALLERS[faller], random)
        read = replace(read, date=f"2026-10-{12 + 7 * number}", faller=faller, saw="50 cm bar", time_s=1800.0)
        for each in raw["trees"]:
            if each["id"] == tree_id:
                bare = json.loads(job_text(replace(job, trees=(replace(job.plan(tree_id), as_cut=read),))))["trees"][0]
                each["as_cut"] = {k: v for k, v in bare["as_cut"].items() if v not in (None, "", "unknown")}
                each["state"] = "down"
    path.write_text(json.dumps(raw, indent=2, ensure_ascii=False) + "\n", encoding="utf-8")


def main() -> int:
    """Write both."""
    random = np.random.default_rng(18)
    lines = [entry(number, random) for number in range(COUNT)]
    (FOLDER / "withy-holm-stumps.jsonl").write_text("\n".join(lines) + "\n", encoding="utf-8")
    read_trees(random)
    return 0


if __name__ == "__main__":
    sys.exit(main())
