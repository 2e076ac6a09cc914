"""A job's trees as one block: their lays, an order with its reasons, days, and what is needed."""

from __future__ import annotations

import math
from collections.abc import Generator, Mapping, Sequence
from dataclasses import replace
from itertools import pairwise

import numpy as np

from ..core.advice.sectors import Takes
from ..core.base.errors import InputError
from ..core.base.frames import bearing_of
from ..core.base.frozen import dataclass
from ..core.base.phrase import Phrase, phrase
from ..core.base.rows import in_blocks
from ..core.base.steps import finished
from ..core.block.cost import Against, costs_of, reasons_of
from ..core.block.days import Job as DayJob
from ..core.block.days import Slot, into_days
from ..core.block.groups import groups_of
from ..core.block.judged import Judged, Turning, graded, judged
from ..core.block.kit import saw_of
from ..core.block.precedence import BARS, HITS, meetings_in_steps
from ..core.block.search import STARTS, Fixed, Plan, search_in_steps
from ..core.block.trees import ANY_DAY, BlockTree, on_lays
from ..core.block.whose import whose
from ..core.judge.unmeasured import missing
from ..core.plan.minutes import ROPE_MIN, ROUND_MIN
from ..core.site.ground import ground_of
from ..core.site.ways_out import kept_away_m
from ..core.stump.hand import time_factor
from ..core.tree.crown import mean_radius_m
from .block_days import day_of
from .block_edits import refuse_circle
from .block_progress import goes_on_from
from .block_wind import windy
from .document import Job, TreePlan, case_alone
from .language import tr
from .words import Speech

JUDGED_AT_ONCE, OWN_AT_ONCE = 3, 5
"""Trees judged together on all their lays, and on their own: the engine is quick with some at once, a step is short."""
MANY_STARTS = 12
"""Starts of one group among many: a whole wood is to be ordered within minutes."""
LEFT_STATES = {"hung": "block.hung", "off": "block.put_off", "over": "block.blown_over"}
"""States in which a tree is not put in order -> what is said of it."""


@dataclass(frozen=True, slots=True, eq=False)
class Block:
    """A block ready to be put in order.

    Attributes:
        trees: those that stand and are measured; left_out: those that stand and are not, with what is lacking.
        groups: indices of those that are ordered together, in the order of the groups.
        fixed: what people decided, by index.
    """

    trees: tuple[BlockTree, ...]
    left_out: tuple[tuple[str, Phrase], ...]
    groups: tuple[tuple[int, ...], ...]
    fixed: Fixed

    def index(self, tree_id: str) -> int:
        """Which of the trees has this id."""
        return next(at for at, tree in enumerate(self.trees) if tree.id == tree_id)


@dataclass(frozen=True, slots=True)
class Ordered:
    """A block in order.

    Attributes:
        plan: order of felling and lays by index; slots: when; late: trees for which there is no day, last in the order.
        against: every meeting, heeded or not.
    """

    plan: Plan
    slots: tuple[Slot, ...]
    late: tuple[int, ...]
    against: tuple[Against, ...]


def block_in_steps(job: Job, *, own_lays: bool = False) -> Generator[None, None, Block]:
    """Judge every standing tree's lays, a few trees at a time.

    Args:
        own_lays: whether none is turned: a first order is there at once, long before all lays are judged.

    Raises InputError where no tree may be felled now, two stand on one spot, or a day is none.
    """
    stands = [plan for plan in job.trees if plan.state != "down"]
    whys = [(plan, _left_out(job, plan)) for plan in stands]
    left_out = [(plan.id, why) for plan, why in whys if why is not None]
    plans, trees = [plan for plan, why in whys if why is None], list[BlockTree]()
    for here in in_blocks(len(plans), OWN_AT_ONCE if own_lays else JUDGED_AT_ONCE):
        found, nobodys = _trees(job, plans[here], own_lays=own_lays)
        trees += found
        left_out += nobodys
        yield
    if not trees:
        raise InputError("trees", 0, reason=tr("no tree of this job stands, is measured and may be felled now"))
    _check_places(trees)
    return Block(tuple(trees), tuple(left_out), groups_of(trees), _fixed(job, trees))


def _left_out(job: Job, plan: TreePlan) -> Phrase | None:
    """Why a tree that is not down is not put in order; None where it is."""
    if plan.state in LEFT_STATES:
        return phrase(LEFT_STATES[plan.state])
    lacking = missing(plan.tree)
    if lacking:
        return phrase("block.not_measured", what=Phrase(f"measured.{lacking[0]}.name"))
    hung = next((other for other in job.trees if other.state == "hung" and reaches(job, other, plan)), None)
    return None if hung is None else phrase("block.near_hung", other=hung.id)


def reaches(job: Job, falling: TreePlan, plan: TreePlan) -> bool:
    """Whether somebody at a tree would stand where nobody may be while another one hangs or falls."""
    east_m, north_m = plan.at.east_m - falling.at.east_m, plan.at.north_m - falling.at.north_m
    bearing_deg = bearing_of(east_m, north_m)
    return math.hypot(east_m, north_m) < kept_away_m(job.site, falling.at, falling.tree.height_m, bearing_deg)


def bars_of(job: Job) -> list[float]:
    """Bars of the saws that come along, from short to long, in metres; none where no kit is listed."""
    return sorted({each.bar_m for each in job.block.kits if each.bar_m and each.packed == "yes"})


def _check_places(trees: list[BlockTree]) -> None:
    """Two trees cannot stand on one spot: neither the map nor the order could tell them apart."""
    seen: dict[tuple[float, float], str] = {}
    for tree in trees:
        at = (round(tree.east_m, 1), round(tree.north_m, 1))
        if at in seen:
            raise InputError(
                "at",
                tree.id,
                reason=tr("it stands where {seen} does; give it a place of its own on Ground", seen=seen[at]),
            )
        seen[at] = tree.id


def _trees(job: Job, plans: Sequence[TreePlan], *, own_lays: bool) -> tuple[list[BlockTree], list[tuple[str, Phrase]]]:
    """(trees of these plans, those past the limits of everyone there with that said)."""
    may_turn = [not own_lays and job.block.of(plan.id).lay == "free" for plan in plans]
    turning = [Turning(case_alone(job, plan), turns) for plan, turns in zip(plans, may_turn, strict=True)]
    places = (np.array([plan.at.east_m for plan in plans]), np.array([plan.at.north_m for plan in plans]))
    heights = ground_of(job.site).height_at_m(*places).tolist()
    found = list(map(_tree, [job] * len(plans), plans, heights, judged(turning)))
    if not job.block.crew:
        return found, []
    grades = graded([each.case for each in turning])
    whoses = [whose(job.block.crew, grade, tree.lays[0]) for tree, grade in zip(found, grades, strict=True)]
    nobodys = [
        (tree.id, phrase("block.nobodys", grade=phrase(f"grade.{theirs.grade}")))
        for tree, theirs in zip(found, whoses, strict=True)
        if theirs.is_nobodys
    ]
    return [tree for tree, theirs in zip(found, whoses, strict=True) if not theirs.is_nobodys], nobodys


def _tree(job: Job, plan: TreePlan, ground_m: float, found: Judged) -> BlockTree:
    return BlockTree(
        id=plan.id,
        east_m=plan.at.east_m,
        north_m=plan.at.north_m,
        ground_m=ground_m,
        height_m=plan.tree.height_m,
        length_m=plan.tree.height_m - plan.cut.height_m,
        crown_m=mean_radius_m(plan.tree.crown),
        crown_from_m=max(plan.tree.crown.base_m - plan.cut.height_m, 0.0),
        lays=found.lays,
        minutes=ROUND_MIN + found.cutting_min * time_factor(job.hand),
        may=_may(job, plan.id),
        saw=saw_of(plan.tree.trunk.diameter_m, bars_of(job)),
    )


def _may(job: Job, tree_id: str) -> tuple[int, int]:
    """First and last day on which a tree may be felled, counted from the block's first."""
    wanted, begins = job.block.of(tree_id), day_of(job.block.begins, "block.begins")
    first = (day_of(wanted.not_before, tr("not before")) - begins).days if wanted.not_before else ANY_DAY[0]
    last = (day_of(wanted.not_after, tr("not after")) - begins).days if wanted.not_after else ANY_DAY[1]
    return max(first, 0), last


def _fixed(job: Job, trees: list[BlockTree]) -> Fixed:
    at = {tree.id: index for index, tree in enumerate(trees)}
    first = tuple(
        (at[each.earlier], at[each.later]) for each in job.block.first if each.earlier in at and each.later in at
    )
    return Fixed({at[each.id]: 0 for each in job.block.trees if each.lay == "fixed" and each.id in at}, first)


def ordered(block: Block, job: Job, plan: Plan) -> Ordered:
    """As ``ordered_in_steps``, all of it now."""
    return finished(ordered_in_steps(block, job, plan))


def ordered_in_steps(block: Block, job: Job, plan: Plan) -> Generator[None, None, Ordered]:
    """An order put into days, with what stands for and against it.

    One that waits for its season or the wind is overtaken by others: the order is that in which they are felled, those
    for which there is no day last.
    """
    metres = dict(zip(plan.order, _walked_m(block, plan.order), strict=True))
    jobs = []
    for at, tree in enumerate(block.trees):
        ropes = tree.lays[plan.lays[at]].takes == Takes.ROPE
        jobs.append(DayJob(tree.minutes + (ROPE_MIN if ropes else 0.0), metres[at], ropes, tree.may))
    meets = yield from meetings_in_steps(on_lays(block.trees, plan.lays))
    against = reasons_of(meets, plan.order)
    yield
    waits: dict[int, set[int]] = {at: set() for at in range(len(block.trees))}
    for each in against:
        if not each.is_broken:
            waits[each.tree].add(each.other)
    for earlier, later in block.fixed.first:
        waits[later].add(earlier)
    is_windy, begins = windy(job, [tree.id for tree in block.trees]), goes_on_from(job)
    slots, late = into_days(plan.order, jobs, job.block.day_s / 60.0, waits, is_windy, begins)
    yield
    felled = (*(slot.tree for slot in slots), *late)
    if felled != plan.order:
        plan, against = replace(plan, order=felled), reasons_of(meets, felled)
    return Ordered(plan, slots, late, against)


def _walked_m(block: Block, order: tuple[int, ...]) -> list[float]:
    """Metres to each tree from the one before it."""
    places = [(block.trees[at].east_m, block.trees[at].north_m) for at in order]
    return [0.0, *(math.dist(one, other) for one, other in pairwise(places))]


def order_in_steps(block: Block, job: Job, seed: int = 1) -> Generator[Ordered | None, None, Ordered]:
    """Order a block that is judged: the best so far whenever it is better, None between; ends with the best.

    Raises InputError where what was fixed goes round in a circle.
    """
    refuse_circle([tree.id for tree in block.trees], block.fixed.first)
    lays, parts, cost = [0] * len(block.trees), list[tuple[int, ...]](), 0.0
    for number, group in enumerate(block.groups):
        later = [block.trees[at] for each in block.groups[number + 1 :] for at in each]
        best: Plan | None = None
        for plan in _group_in_steps(block, group, later, seed + number):
            is_better = plan is not None and (best is None or plan.cost < best.cost)
            best = plan if is_better else best
            if is_better and plan is not None and len(block.groups) == 1:
                yield ordered(block, job, _whole(block, [_named(group, plan.order)], plan.lays, plan.cost))
            else:
                yield None
        assert best is not None
        parts.append(_named(group, best.order))
        cost += best.cost
        for at, lay in zip(group, best.lays, strict=True):
            lays[at] = lay
    return (yield from ordered_in_steps(block, job, _whole(block, parts, lays, cost)))


def _named(group: tuple[int, ...], order: tuple[int, ...]) -> tuple[int, ...]:
    """A group's order in the indices of the block."""
    return tuple(group[at] for at in order)


def _group_in_steps(
    block: Block, group: tuple[int, ...], later: list[BlockTree], seed: int
) -> Generator[Plan | None, None, Plan]:
    """Order one group by itself; None while its tables are made."""
    trees = [block.trees[at] for at in group]
    costs = costs_of(trees, (yield from meetings_in_steps(trees)), later)
    inside = {at: place for place, at in enumerate(group)}
    lays = {inside[at]: lay for at, lay in block.fixed.lays.items() if at in inside}
    first = tuple((inside[a], inside[b]) for a, b in block.fixed.first if a in inside and b in inside)
    return (yield from search_in_steps(costs, Fixed(lays, first), seed, MANY_STARTS if later else STARTS))


def _whole(block: Block, parts: list[tuple[int, ...]], lays: Sequence[int], cost: float) -> Plan:
    """The groups one after another; what was fixed across groups is put right by moving the later one back."""
    order = [at for part in parts for at in part]
    for earlier, later in block.fixed.first:
        if order.index(earlier) > order.index(later):
            order.remove(later)
            order.insert(order.index(earlier) + 1, later)
    return Plan(tuple(order), tuple(lays), cost)


def first_in_steps(job: Job) -> Generator[None, None, tuple[Block, Ordered]]:
    """A first order, every tree on its own lay. Raises InputError as the two it is made of."""
    block = yield from block_in_steps(job, own_lays=True)
    for found in order_in_steps(block, job):
        if found is not None:
            return block, found
        yield
    raise AssertionError("an order ends with the best")


def planned_block(job: Job, seed: int = 1) -> tuple[Block, Ordered]:
    """The block and its order, all of it now."""
    block = finished(block_in_steps(job))
    return block, finished(order_in_steps(block, job, seed))


def reason_words(block: Block, against: Against, speech: Speech) -> str:
    """Why one comes before another, or what is wrong with the order."""
    names = {"tree": block.trees[against.tree].id, "other": block.trees[against.other].id}
    key = f"block.{against.kind}_broken" if against.is_broken else f"block.{against.kind}"
    return speech.phrase(phrase(key, **names))


def place_reasons(block: Block, found: Ordered, speech: Speech) -> Mapping[int, tuple[str, ...]]:
    """Tree -> why it stands where it does, a sentence each: what it comes before, what it waits for, what is wrong."""
    told: dict[int, list[str]] = {at: [] for at in range(len(block.trees))}
    for each in found.against:
        words = reason_words(block, each, speech)
        told[each.tree].append(words)
        if not each.is_broken:
            told[each.other].append(words)
    return {at: tuple(dict.fromkeys(lines)) for at, lines in told.items()}


def waits_words(block: Block, found: Ordered, speech: Speech) -> Mapping[int, tuple[str, ...]]:
    """Tree -> what it waits for, in short, those alike together; and what is wrong with its place."""
    told: dict[int, list[str]] = {at: [] for at in range(len(block.trees))}
    for at, lines in told.items():
        mine = [each for each in found.against if each.tree == at]
        lines += [reason_words(block, each, speech) for each in mine if each.is_broken]
        for kind in (HITS, BARS):
            others = [block.trees[each.other].id for each in mine if each.kind == kind and not each.is_broken]
            lines += [speech.tell(phrase(f"block.waits_{kind}", others=", ".join(others)))] if others else []
    return {at: tuple(lines) for at, lines in told.items()}


def left_words(block: Block, found: Ordered, speech: Speech) -> list[tuple[str, str]]:
    """(id, why) of each tree that is not felled in this order: left out of it, or without a day."""
    left = [(id, speech.tell(what)) for id, what in block.left_out]
    return [*left, *((block.trees[at].id, speech.tell("block.no_day")) for at in found.late)]


def taken_over(job: Job, block: Block, found: Ordered) -> Job:
    """The job with every tree on the lay the order gives it; cuts turn with their lays."""
    lays = {tree.id: tree.lays[found.plan.lays[at]].lay_deg for at, tree in enumerate(block.trees)}
    trees = tuple(
        replace(plan, cut=replace(plan.cut, lay_deg=lays[plan.id])) if plan.id in lays else plan for plan in job.trees
    )
    return replace(job, trees=trees)
