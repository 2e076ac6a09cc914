"""A job as it stands when each tree's turn comes: those before it in the order are down."""

from __future__ import annotations

from dataclasses import replace

from ..core.base.errors import InputError
from .block import Block, Ordered
from .document import Job
from .language import tr


def turned_ids(block: Block, found: Ordered) -> tuple[str, ...]:
    """Trees that the order lays otherwise than they are planned, in order."""
    return tuple(block.trees[at].id for at in found.plan.order if found.plan.lays[at] != 0)


def turns_of(job: Job, block: Block, found: Ordered) -> tuple[tuple[Job, str], ...]:
    """(the job then, the tree whose turn it is), in the order in which they are felled.

    Raises InputError where the order rests on lays that nobody has planned yet.
    """
    turned = turned_ids(block, found)
    if turned:
        told = tr(
            "the order lays these otherwise than planned; take its lays over first, or let them stay on their lays"
        )
        raise InputError("lays", ", ".join(turned), reason=told)
    now, turns = job, list[tuple[Job, str]]()
    for slot in found.slots:
        tree_id = block.trees[slot.tree].id
        turns.append((now, tree_id))
        now = replace(now, trees=tuple(replace(p, state="down") if p.id == tree_id else p for p in now.trees))
    return tuple(turns)
