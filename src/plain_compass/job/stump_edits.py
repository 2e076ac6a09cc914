"""Reading a stump in few words: cut as planned, on its mark, nothing read."""

from __future__ import annotations

from dataclasses import fields, replace
from typing import Any

from ..core.stump.as_cut import AsCut
from .document import Job, TreePlan, with_tree

BARE = AsCut()
"""A stump nobody has looked at."""


def cut_as_planned(plan: TreePlan) -> dict[str, Any]:
    """Field of ``AsCut`` -> what it reads where the cut came out as planned; not where the tree lies."""
    cut = plan.cut
    found: dict[str, Any] = {
        "towards_deg": cut.gun_deg,
        "depth_m": cut.face.depth_m,
        "hinge_left_m": cut.hinge.left_m,
        "hinge_right_m": cut.hinge.right_m,
        "step_left_m": cut.back.step_m,
        "step_right_m": cut.back.step_m,
        "overcut_m": cut.face.overcut_m,
        "overcut_of": "none" if cut.face.overcut_m == 0 else "unknown",
        "corners": "no",
        "split_m": 0.0,
        "wedges": sum(seat.stacked for seat in cut.wedges),
        "sat_back": "no",
    }
    return found | ({"strap_m": cut.back.strap_m} if cut.back.held else {})


def as_planned(job: Job, tree_id: str, day: str) -> Job:
    """The tree down and its cut read as planned; what was read already stays.

    Args:
        day: today, as it is to stand in the record.
    """
    plan = job.plan(tree_id)
    read = _unread_only(plan.as_cut, {**cut_as_planned(plan), "date": day, "faller": usual_faller(job)})
    return with_tree(job, tree_id, replace(plan, as_cut=replace(plan.as_cut, **read), state="down"))


def usual_faller(job: Job) -> str:
    """Who fells here: the person who plans, or whoever felled the tree that was read last."""
    read = [plan.as_cut for plan in job.trees if plan.as_cut.faller]
    return job.person.name or (max(read, key=lambda each: each.date).faller if read else "")


def on_its_mark(job: Job, tree_id: str) -> Job:
    """The tree down, with its top on the lay as far out as it was tall; nothing that was read stays of where it lay."""
    plan = job.plan(tree_id)
    long_m = round(plan.tree.height_m - plan.cut.height_m, 2)
    lies: dict[str, Any] = {"top_deg": plan.cut.lay_deg, "top_m": long_m, "beside_m": None}
    return with_tree(job, tree_id, replace(plan, as_cut=replace(plan.as_cut, **lies), state="down"))


def unread(job: Job, tree_id: str) -> Job:
    """Nothing read off this stump; the tree stands again."""
    return with_tree(job, tree_id, replace(job.plan(tree_id), as_cut=BARE, state="standing"))


def _unread_only(as_cut: AsCut, found: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in found.items() if getattr(as_cut, name) == getattr(BARE, name)}


def read_count(as_cut: AsCut) -> tuple[int, int]:
    """(how many of its fields were read, how many there are)."""
    names = [each.name for each in fields(AsCut)]
    return sum(getattr(as_cut, name) != getattr(BARE, name) for name in names), len(names)
