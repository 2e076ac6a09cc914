"""Why not the other order, in words: what an earlier or a later place would break or cost."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import takewhile

from ..core.base.frames import full_turn_deg
from ..core.base.phrase import Phrase, phrase
from ..core.base.quantity import Kind
from ..core.block.misses import missed_into
from ..core.block.other_orders import Elsewhere, elsewhere, held, nearest_unbroken
from ..core.block.trees import on_lays
from ..core.fall.fan import Fan
from ..core.plan.reach import called
from .block import Block, Ordered, bars_of, reaches, reason_words
from .document import Job
from .units import chance_words
from .words import Speech

LEAST_TOLD = 0.005
"""Chances below one in two hundred are not told one by one."""
ASLANT = 0.5
"""Cosine of the angle from which a butt no longer points to a track: sixty degrees."""
NO_MORE_MIN = 0.5
"""Minutes below which two orders cost the same."""


def broken_words(block: Block, other: Elsewhere, speech: Speech) -> list[str]:
    """What another order breaks, a sentence each."""
    lines = [reason_words(block, each, speech) for each in other.broken]
    names = [(block.trees[earlier].id, block.trees[later].id) for earlier, later in other.undone]
    lines += [speech.phrase(phrase("block.undone", earlier=one, later=two)) for one, two in names]
    return list(dict.fromkeys(lines))


def moved_words(block: Block, found: Ordered, tree: int, place: int, speech: Speech) -> str:
    """What a tree moved to a place breaks, and the nearest place that breaks nothing; empty where this one does not.

    Place is counted from 0. Pairs people decided are left out: moving a tree decides them anew.
    """
    now = held(block.trees, found.plan.lays, found.plan.order)
    other = elsewhere(now, tree, place)
    if not other.breaks:
        return ""
    nearest = nearest_unbroken(now, tree, place)
    stays = nearest == now.order.index(tree)
    key = "block.moved_stays" if stays else "block.moved_nearest"
    broken = "; ".join(broken_words(block, other, speech))
    return speech.phrase(phrase(key, tree=block.trees[tree].id, place=place + 1, broken=broken, nearest=nearest + 1))


def why_not(block: Block, found: Ordered, tree: int, speech: Speech) -> list[str]:
    """Why a tree does not stand elsewhere: the nearest place on either side that breaks something, or what it costs."""
    block_held, lines = held(block.trees, found.plan.lays, found.plan.order, block.fixed.first), list[str]()
    now = block_held.order.index(tree)
    for places, key in ((range(now - 1, -1, -1), "earlier"), (range(now + 1, len(block.trees)), "later")):
        others = [(place, elsewhere(block_held, tree, place)) for place in places]
        barred = next(((place, other) for place, other in others if other.breaks), None)
        free = list(takewhile(lambda each: not each[1].breaks, others))
        if free:
            place, best = min(free, key=lambda each: each[1].minutes)
            kind = "same" if best.minutes < NO_MORE_MIN else "dearer"
            lines.append(
                speech.phrase(phrase(f"block.{key}_{kind}", place=place + 1, more=f"{max(best.minutes, 0.0):.0f}"))
            )
        if barred:
            broken = "; ".join(broken_words(block, barred[1], speech))
            lines.append(speech.phrase(phrase(f"block.{key}_breaks", place=barred[0] + 1, broken=broken)))
    return lines


def lay_words(job: Job, block: Block, found: Ordered, tree: int) -> list[str]:
    """What of its lay counts for the order and the day: stacks under it, its butt and the track, its saw."""
    me, speech = block.trees[tree], job.speech
    lay, told = me.lays[found.plan.lays[tree]], list[Phrase]()
    told += [phrase("block.over_stack", stack=called(job.site.obstacles[index])) for index in lay.stacks]
    if lay.butt_to_way is not None:
        side = "to" if lay.butt_to_way > ASLANT else "away" if lay.butt_to_way < -ASLANT else "aslant"
        told.append(phrase(f"block.butt_{side}"))
    bars_m = bars_of(job)
    if len(bars_m) > 1:
        told.append(phrase("block.saw", bar=speech.show(bars_m[me.saw], Kind.LENGTH)))
    return [speech.phrase(each) for each in told]


def reach_words(job: Job, tree_id: str, ids: Sequence[str]) -> str:
    """Which of the trees that still stand are where nobody else may be while one falls: nobody works at them then."""
    plan = job.plan(tree_id)
    within = [each for each in ids if reaches(job, plan, job.plan(each))]
    if within and len(within) == len(ids):
        return job.speech.phrase("block.reach_all")
    told = phrase("block.reach", others=", ".join(within)) if within else phrase("block.alone_there")
    return job.speech.phrase(told)


def miss_words(job: Job, block: Block, found: Ordered, tree: int, fan: Fan | None) -> list[str]:
    """What a tree that falls as its fan says does to those felled after it, a sentence each, or why nobody knows."""
    speech, me = job.speech, block.trees[tree]
    if found.plan.lays[tree] != 0:
        return [speech.phrase("block.miss_turned")]
    if fan is None:
        return [speech.phrase("block.miss_reckoning")]
    order = found.plan.order
    after = order[order.index(tree) + 1 :]
    later = on_lays([block.trees[at] for at in after], [found.plan.lays[at] for at in after])
    bearings = full_turn_deg(me.lays[0].lay_deg - fan.landings.off_deg)
    told = []
    for each in missed_into(me, bearings, later):
        names = {"tree": me.id, "other": later[each.other].id}
        for key, share in (("hangs", each.hangs), ("bars", each.bars)):
            if share >= LEAST_TOLD:
                told.append(speech.phrase(phrase(f"block.miss_{key}", odds=chance_words(share), **names)))
    return told or [speech.phrase("block.miss_none")]
