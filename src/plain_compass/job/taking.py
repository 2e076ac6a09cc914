"""Taking readings: each is kept with the tree and averaged into what it measures."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ..core.base.errors import InputError
from ..core.base.paths import value_at
from ..core.tree.tree import CrownReading, Decay, ShellReading
from .document import Job, TreePlan, with_plan
from .edits import set_values
from .language import tr
from .readings import EDGE, LEAN, SHELL, WIND, Group, Taken, groups_of, same_bearing

LEAN_BY = {"plumb": "plumb", "faces": "clinometer", "sighting": "plumb", "eye": "eye"}
"""Way of measuring -> what the tree sheet calls how the lean was judged."""


def record_reading(job: Job, tree_id: str, taken: Taken) -> Job:
    """The job with one more reading, and with what it measures set to the average of its readings.

    Raises InputError when the average is nothing the tree can have.
    """
    plan = job.plan(tree_id)
    return _averaged_in(job, tree_id, (*plan.readings, taken), taken)


def use_reading(job: Job, tree_id: str, position: int, *, used: bool) -> Job:
    """The job with one reading counted or not counted, and what it measures averaged anew."""
    readings = job.plan(tree_id).readings
    changed = replace(readings[position], used=used)
    return _averaged_in(job, tree_id, (*readings[:position], changed, *readings[position + 1 :]), changed)


def _averaged_in(job: Job, tree_id: str, readings: tuple[Taken, ...], about: Taken) -> Job:
    job = with_plan(job, tree_id, "readings", readings)
    position = next(i for i, each in enumerate(readings) if each is about)
    group = next(g for g in groups_of(readings) if position in g.positions)
    if not group.estimates:
        return job
    return set_values(job, tree_id, _targets(job.plan(tree_id), about, group), keep_readings=True)


def _targets(plan: TreePlan, about: Taken, group: Group) -> dict[str, Any]:
    """What a group of readings sets, by path."""
    values = [estimate.value for estimate in group.estimates]
    if about.what == LEAN:
        found = {"tree.lean.angle_deg": values[0], "tree.lean.bearing_deg": values[1]}
        return found | ({"tree.lean.method": LEAN_BY[about.by]} if about.by in LEAN_BY else {})
    if about.what == EDGE:
        edges = _placed(plan.tree.crown.readings, CrownReading(about.values[0], values[0]), "radius_m")
        return {"tree.crown.readings": edges}
    if about.what == SHELL:
        return _shell(plan.tree.decay, ShellReading(about.values[0], values[0]))
    if about.what == WIND:
        return {}
    try:
        value_at(plan, about.what)
    except (LookupError, AttributeError):
        # A file may hold readings of something that is no longer listed; they stay as they are.
        raise InputError(
            about.what, values[0], reason=tr("what this was a reading of is not listed any more")
        ) from None
    return {about.what: values[0]}


def _shell(decay: Decay, probe: ShellReading) -> dict[str, Any]:
    """A probe hole added to the shell; the first one makes the rot a shell by bearing."""
    known = decay.shell if decay.kind == "shell" else ()
    return {"tree.decay.shell": _placed(known, probe, "sound_m"), "tree.decay.kind": "shell"}


def _placed(held_ones: tuple[Any, ...], new: Any, name: str) -> tuple[Any, ...]:
    """The list with the one at this bearing measured anew, or with one more."""
    for index, each in enumerate(held_ones):
        if same_bearing(each.bearing_deg, new.bearing_deg):
            kept = replace(each, **{name: getattr(new, name)})
            return (*held_ones[:index], kept, *held_ones[index + 1 :])
    return (*held_ones, new)
