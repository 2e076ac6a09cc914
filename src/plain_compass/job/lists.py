"""Lists on the tree sheet: what a new item begins as, and adding and removing one."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise
from typing import Any

from ..core.base.errors import InputError
from ..core.base.frames import full_turn_deg
from ..core.base.frozen import dataclass
from ..core.base.paths import value_at
from ..core.tree.butt import Lobe
from ..core.tree.crown import crown_outline
from ..core.tree.limbs import Limb
from ..core.tree.rot import reach_m
from ..core.tree.soundness import Defect, Sounding
from ..core.tree.tree import CrownReading, ShellReading, Tree
from .document import Job, with_plan, with_tree
from .language import tr

MOST_ITEMS = 16
"""More of one thing than this on a tree is a slip."""


@dataclass(frozen=True, slots=True)
class ItemList:
    """One list of a tree.

    Attributes:
        name: what one item is called.
        fields: the fields of an item, in the order in which they are shown.
        new: the items that one press adds, given the tree.
        least: fewest items that must stay.
    """

    name: str
    fields: tuple[str, ...]
    new: Callable[[Tree], tuple[Any, ...]]
    least: int = 0


def _free_bearing(items: tuple[Any, ...]) -> float:
    """The middle of the widest gap between the bearings that are there."""
    at = sorted(full_turn_deg(item.bearing_deg) for item in items)
    if not at:
        return 0.0
    low, high = max(pairwise([*at, at[0] + 360.0]), key=lambda pair: pair[1] - pair[0])
    return float(full_turn_deg(round((low + high) / 2)))


def _edge(tree: Tree) -> tuple[CrownReading, ...]:
    """A crown edge where the outline stands anyway, so that adding it changes nothing until it is paced."""
    readings = tree.crown.readings
    bearing = _free_bearing(readings)
    return (CrownReading(bearing, round(reach_m(crown_outline(readings), bearing, readings[0].bearing_deg), 2)),)


def _probe(tree: Tree) -> tuple[ShellReading, ...]:
    shell = tree.decay.shell
    sound = min((probe.sound_m for probe in shell), default=round(tree.trunk.diameter_m / 4, 3))
    return (ShellReading(_free_bearing(shell), sound),)


def _soundings(tree: Tree) -> tuple[Sounding, ...]:
    """Eight sides at once to begin with, one more after that; each is unknown until it has been struck."""
    there = tree.decay.soundings
    if not there:
        return tuple(Sounding(bearing) for bearing in range(0, 360, 45))
    return (Sounding(_free_bearing(there)),)


LISTS: dict[str, ItemList] = {
    "tree.lobes": ItemList(
        "buttress",
        ("bearing_deg", "projection_m", "width_m", "top_m", "state"),
        lambda tree: (Lobe(_free_bearing(tree.lobes), round(0.12 * tree.trunk.diameter_m, 3)),),
    ),
    "tree.limbs": ItemList(
        tr("heavy limb"),
        ("bearing_deg", "height_m", "diameter_m", "length_m"),
        lambda tree: (Limb(_free_bearing(tree.limbs), min(tree.crown.base_m + 1.0, tree.height_m / 2)),),
    ),
    "tree.crown.readings": ItemList(tr("crown edge"), ("bearing_deg", "radius_m", "state"), _edge, least=1),
    "tree.decay.shell": ItemList(tr("probe hole"), ("bearing_deg", "sound_m"), _probe, least=1),
    "tree.decay.soundings": ItemList(tr("sounded side"), ("bearing_deg", "sound"), _soundings),
    "tree.defects": ItemList(
        tr("thing seen"),
        ("kind", "bearing_deg", "height_m", "length_m"),
        lambda tree: (Defect(height_m=min(0.5, tree.height_m)),),
    ),
}


def add_item(job: Job, tree_id: str, path: str) -> Job:
    """One more item in a list. Raises InputError when there are too many."""
    plan = job.plan(tree_id)
    items = value_at(plan, path)
    made = LISTS[path].new(plan.tree)
    if len(items) + len(made) > MOST_ITEMS:
        raise InputError(path, len(items) + len(made), kind="count", low=0, high=MOST_ITEMS)
    return with_plan(job, tree_id, path, (*items, *made))


def remove_item(job: Job, tree_id: str, path: str, index: int) -> Job:
    """One item less; what is said of the others by their place follows them. Raises InputError when it must stay."""
    plan = job.plan(tree_id)
    items = value_at(plan, path)
    if len(items) <= LISTS[path].least:
        raise InputError(path, len(items) - 1, kind="count", low=LISTS[path].least, high=MOST_ITEMS)
    moved = [(taken, _moved_up(taken.what, path, index)) for taken in plan.readings]
    stand_ins = (_moved_up(f"tree.{each}", path, index) for each in plan.tree.stand_ins)
    tree = replace(plan.tree, stand_ins=tuple(each.removeprefix("tree.") for each in stand_ins if each))
    readings = tuple(replace(taken, what=what) for taken, what in moved if what)
    job = with_tree(job, tree_id, replace(plan, tree=tree, readings=readings))
    return with_plan(job, tree_id, path, items[:index] + items[index + 1 :])


def _moved_up(path: str, base: str, gone: int) -> str:
    """A path once an item of the list ``base`` is gone: later items move up by one; empty for the item itself."""
    head, _, rest = path.removeprefix(f"{base}.").partition(".")
    if not path.startswith(f"{base}.") or not head.isdigit() or int(head) < gone:
        return path
    return "" if int(head) == gone else f"{base}.{int(head) - 1}.{rest}"
