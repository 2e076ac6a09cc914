"""What a plan of a block costs: one number, and what of it stands against which place in the order.

A table holds for every pair what it costs that one is felled before the other, under every lay of each; walking and
rigging are paid from one tree to the next. The weights are judgement (indicative): a stop weighs more than all else.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..advice.sectors import Takes
from ..base.frozen import dataclass
from ..base.polygon import Array
from .precedence import BARS, BREAKS, HITS, Meetings, hits_on, meetings_of
from .trees import HELP, BlockTree, Lay, on_lays

STOP, MUST, BREAKAGE, LOWER, HARM = 1000.0, 200.0, 12.0, 2.0, 60.0
"""A lay that cannot be taken; one felled into another that stands or across its way out; one onto another that lies;
one above another that could roll on it; something dear under a tree. In minutes that one would work to be rid of it."""
STACKED = 1.5
"""Each tree that is felled before one that reaches over a stack: its timber may lie on the stack by then."""
SAW_MIN = 3.0
"""To put one saw away and start the other."""
BUTT_AWAY = 6.0
"""To turn a stem whose butt lies away from the track it leaves by; in part where it lies aslant."""
TURNED = 5.0
"""To lay a tree another way than it was planned: somebody has to plan it anew."""
EFFORT = (0.0, 4.0, 30.0, 0.0, 0.0)
"""What a lay takes, in minutes, by ``HELP``: wedges, a rope; stops are weighed by themselves."""
RIG, WALK_M_MIN = 12.0, 40.0
"""Minutes to rig a rope anew; metres walked in a minute with a saw, over brush."""
NEAR_SHARE = 1.5
"""Trees of each other's lengths apart within which one above another matters."""
LEVEL_M = 0.5
"""A difference in height that is none."""


@dataclass(frozen=True, slots=True, eq=False)
class Costs:
    """Tables over N trees with L lays.

    Attributes:
        own: of each lay by itself, shape (N, L); infinite where a tree has no such lay.
        before: [i, k, j, l]: that i with lay k is felled before j with lay l, shape (N, L, N, L).
        walk: minutes from tree to tree, with another saw where that changes, shape (N, N).
        ropes: whether a lay takes a rope, shape (N, L).
        meets: what meets what under which lays: kept to say why.
    """

    own: Array
    before: Array
    walk: Array
    ropes: Array
    meets: Meetings

    @property
    def shape(self) -> tuple[int, int]:
        """(trees, lays)."""
        count, lays = self.own.shape
        return count, lays


def costs_of(trees: Sequence[BlockTree], meets: Meetings, later: Sequence[BlockTree] = ()) -> Costs:
    """The tables of a block.

    Args:
        later: other trees that stand as long as these are felled: none of these may fall into them.
    """
    most = max(len(tree.lays) for tree in trees)
    own = np.full((len(trees), most), np.inf)
    ropes = np.zeros((len(trees), most))
    for i, tree in enumerate(trees):
        for k, lay in enumerate(tree.lays):
            effort = STOP if lay.is_stop else EFFORT[HELP[lay.takes]]
            own[i, k] = effort + HARM * lay.harm + 10.0 * (1.0 - lay.margin) + (TURNED if k else 0.0)
            own[i, k] += 0.0 if lay.butt_to_way is None else BUTT_AWAY * (1.0 - lay.butt_to_way) / 2.0
            ropes[i, k] = lay.takes == Takes.ROPE
    if later:
        own = own + MUST * hits_on(trees, later).sum(axis=2)
    east = np.array([tree.east_m for tree in trees])
    north = np.array([tree.north_m for tree in trees])
    walk = np.hypot(east[:, None] - east[None, :], north[:, None] - north[None, :])
    # Felled before the other: into it, or across its way out; or onto what comes first and lies there.
    before = MUST * meets.hits[:, :, :, None] + MUST * meets.bars
    before = before + BREAKAGE * np.swapaxes(np.swapaxes(meets.breaks, 0, 2), 1, 3)
    before = before + _above(trees, walk)[:, None, :, None]
    stacked = STACKED * np.array([[bool(lay.stacks) for lay in _padded(tree.lays, most)] for tree in trees])
    before = before + np.where(np.eye(len(trees), dtype=bool)[:, None, :, None], 0.0, stacked[None, None, :, :])
    saws = np.array([tree.saw for tree in trees])
    changes = SAW_MIN * (saws[:, None] != saws[None, :])
    return Costs(own, before, walk / WALK_M_MIN + changes, ropes, meets)


def _padded(lays: Sequence[Lay], most: int) -> tuple[Lay, ...]:
    """A lay that a tree does not have is never taken: any will do."""
    return (*lays, *[lays[0]] * (most - len(lays)))


def _above(trees: Sequence[BlockTree], apart_m: Array) -> Array:
    """One that stands higher, felled before one near below it: the lower first on slopes, shape (N, N)."""
    ground, long = (np.array([getattr(tree, name) for tree in trees]) for name in ("ground_m", "length_m"))
    is_above = ground[:, None] - ground[None, :] > LEVEL_M
    is_near = apart_m < NEAR_SHARE * np.maximum(long[:, None], long[None, :])
    found: Array = LOWER * (is_above & is_near)
    return found


def total(costs: Costs, order: Sequence[int], lays: Sequence[int]) -> float:
    """What an order with its lays costs."""
    at, lay = np.asarray(order, dtype=np.intp), np.asarray(lays, dtype=np.intp)[np.asarray(order, dtype=np.intp)]
    pairs = costs.before[at[:, None], lay[:, None], at[None, :], lay[None, :]]
    found = float(costs.own[at, lay].sum() + np.triu(pairs, 1).sum())
    return found + between(costs, at.tolist(), lay.tolist())


def between(costs: Costs, order: Sequence[int], lays_in_order: Sequence[int]) -> float:
    """Walking from each to the next, and rigging wherever a rope comes up anew."""
    found, rigged = 0.0, False
    for place, (tree, lay) in enumerate(zip(order, lays_in_order, strict=True)):
        found += float(costs.walk[order[place - 1], tree]) if place else 0.0
        ropes = bool(costs.ropes[tree, lay])
        found += RIG if ropes and not rigged else 0.0
        rigged = ropes
    return found


@dataclass(frozen=True, slots=True)
class Against:
    """Something that stands against a place in the order.

    Attributes:
        kind: ``hits``, ``bars`` or ``breaks``.
        tree, other: indices: the tree that is felled, and the one it meets.
        is_broken: whether the order goes against it; else it is why the order is as it is.
    """

    kind: str
    tree: int
    other: int
    is_broken: bool


def reasons(trees: Sequence[BlockTree], order: Sequence[int], lays: Sequence[int]) -> tuple[Against, ...]:
    """Every meeting of trees under the lays they are given, and whether the order heeds it."""
    return reasons_of(meetings_of(on_lays(trees, lays)), order)


def reasons_of(meets: Meetings, order: Sequence[int]) -> tuple[Against, ...]:
    """The same, of meetings of trees that have one lay each."""
    hits, bars, breaks = meets.hits[:, 0, :], meets.bars[:, 0, :, 0], meets.breaks[:, 0, :, 0]
    place = {tree: at for at, tree in enumerate(order)}
    found = []
    for i in order:
        for j in np.flatnonzero(hits[i] | bars[i] | breaks[i]).tolist():
            # One reason for a pair is enough: what it would hang in before what it would lie across.
            kind = HITS if hits[i, j] else BARS if bars[i, j] else ""
            if kind:
                found.append(Against(kind, i, j, place[i] < place[j]))
            if breaks[i, j] and place[i] > place[j]:
                found.append(Against(BREAKS, i, j, True))
    return tuple(found)
