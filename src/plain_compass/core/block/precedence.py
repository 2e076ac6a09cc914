"""Who must come before whom: the falling tree swept through those that stand, across ways out, onto those that lie.

All pairs of trees and lays at once, as tables over (tree, lay, other tree, its lay). The falling crown is the footprint
of one tree (``site.landing``); a standing crown is a disc. Plane geometry: it says what may meet, not what holds.
"""

from __future__ import annotations

from collections.abc import Generator, Sequence

import numpy as np
from numpy.typing import NDArray

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.steps import finished
from ..site.landing import STEM_HALF_M
from ..site.ways_out import FROM_LAY_DEG
from ..site.ways_out import LENGTH_M as WAY_M
from .trees import BlockTree

SPREAD = np.tan(np.radians(3.0))
"""How far off its lay the top may come to rest, over its distance: the tolerance of most practices and a half."""
HITS, BARS, BREAKS = "hits", "bars", "breaks"
"""Its crown would hang in the other; it would lie across the other's way out; it would fall onto the other."""
Mask = NDArray[np.bool_]


@dataclass(frozen=True, slots=True, eq=False)
class Meetings:
    """What a tree that falls meets of another one; N trees, L lays, those that a tree has fewer of never taken.

    Attributes:
        hits: (N, L, N): the falling crown or stem meets the other, which stands.
        bars: (N, L, N, L): lying, it crosses a way out of the other, which stands with its lay.
        breaks: (N, L, N, L): it comes down across the other, which lies along its lay.
    """

    hits: Mask
    bars: Mask
    breaks: Mask


def meetings_of(trees: Sequence[BlockTree]) -> Meetings:
    """Every pair under every lay."""
    return finished(meetings_in_steps(trees))


def meetings_in_steps(trees: Sequence[BlockTree]) -> Generator[None, None, Meetings]:
    """The same a table at a time: sixty trees of a dozen lays make tables of half a million places each."""
    turn, (along, aside, away) = lays_rad(trees), _seen_from(trees, trees)
    hits = _hits(trees, trees, along, aside)
    yield
    bars = yield from _bars_in_steps(trees, turn, (turn, along, aside))
    bars[np.arange(len(trees)), :, np.arange(len(trees))] = False
    breaks = _breaks(trees, turn, away)
    yield
    return Meetings(hits=hits, bars=bars, breaks=breaks)


def hits_on(trees: Sequence[BlockTree], others: Sequence[BlockTree], spread: float = SPREAD) -> Mask:
    """Which of other trees, which stand, each would fall into under each of its lays, shape (N, L, M).

    Args:
        spread: how far off its lay the top may rest, over its distance; 0 where a lay is where it does fall.
    """
    along, aside, _ = _seen_from(trees, others)
    return _hits(trees, others, along, aside, spread)


def bars_on(trees: Sequence[BlockTree], others: Sequence[BlockTree], spread: float = SPREAD) -> Mask:
    """Whose ways out each would lie across under each of its lays, shape (N, L, M, lays of the others)."""
    along, aside, _ = _seen_from(trees, others)
    return finished(_bars_in_steps(trees, lays_rad(others), (lays_rad(trees), along, aside), spread))


def _seen_from(trees: Sequence[BlockTree], others: Sequence[BlockTree]) -> tuple[Array, Array, Array]:
    """(metres along each lay, metres aside of it, shape (N, L, M); east and north from each, shape (N, M, 2))."""
    own, its = ((_column(each, "east_m"), _column(each, "north_m")) for each in (trees, others))
    turn = lays_rad(trees)
    ahead = np.stack([np.sin(turn), np.cos(turn)], axis=-1)
    away = np.stack([its[0][None, :] - own[0][:, None], its[1][None, :] - own[1][:, None]], axis=-1)
    along = np.einsum("ilk,ijk->ilj", ahead, away)
    aside = ahead[..., None, 0] * away[:, None, :, 1] - ahead[..., None, 1] * away[:, None, :, 0]
    return along, aside, away


def lays_rad(trees: Sequence[BlockTree]) -> Array:
    """Lays as angles from north, shape (N, L); a tree with fewer repeats its first."""
    most = max(len(tree.lays) for tree in trees)
    rows = [[lay.lay_deg for lay in tree.lays] + [tree.lays[0].lay_deg] * (most - len(tree.lays)) for tree in trees]
    return np.radians(np.array(rows, dtype=np.float64))


def _column(trees: Sequence[BlockTree], name: str) -> Array:
    return np.array([getattr(tree, name) for tree in trees], dtype=np.float64)


def _half_m(trees: Sequence[BlockTree], along: Array, spread: float = SPREAD) -> Array:
    """Half width of what each tree covers at a place along its lay, shape as given with the tree first."""
    shape = (-1,) + (1,) * (along.ndim - 1)
    crown, begins = _column(trees, "crown_m").reshape(shape), _column(trees, "crown_from_m").reshape(shape)
    wide: Array = np.where(along >= begins, crown, STEM_HALF_M) + np.maximum(along, 0.0) * spread
    return wide


def _hits(
    trees: Sequence[BlockTree], others: Sequence[BlockTree], along: Array, aside: Array, spread: float = SPREAD
) -> Mask:
    """A standing crown within the footprint, along it and aside of it; none is ahead of itself."""
    radius, length = _column(others, "crown_m"), _column(trees, "length_m")
    near = (along > 0) & (along < length[:, None, None] + radius)
    met: Mask = near & (np.abs(aside) < _half_m(trees, along, spread) + radius)
    return met


def _bars_in_steps(
    trees: Sequence[BlockTree], its_turn: Array, seen: tuple[Array, Array, Array], spread: float = SPREAD
) -> Generator[None, None, Mask]:
    """A way out of the other, a straight path of some metres to either side of back, crossed by the lying tree.

    Args:
        its_turn: lays of the others, shape (M, K); seen: (lays of the trees, metres along, metres aside).
    """
    turn, along, aside = seen
    found = np.zeros((*turn.shape, *its_turn.shape), dtype=np.bool_)
    length = _column(trees, "length_m")[:, None, None, None]
    for side in (-1.0, 1.0):
        way = its_turn + side * np.radians(FROM_LAY_DEG)
        for share in (0.35, 0.7, 1.0):
            # Places along the way, in the frame of the lying tree: some are enough, a crown is wider than a step.
            step = share * WAY_M
            differs = way[None, None, :, :] - turn[:, :, None, None]
            at = along[..., None] + step * np.cos(differs)
            # Aside counts counterclockwise: a bearing that is larger lies to the right.
            off = aside[..., None] - step * np.sin(differs)
            found |= (at > 0) & (at < length) & (np.abs(off) < _half_m(trees, at, spread))
            yield
    return found


def _breaks(trees: Sequence[BlockTree], turn: Array, away: Array) -> Mask:
    """Two stems along their lays cross: one comes down on the other, whichever is later."""
    count = len(turn)
    length = _column(trees, "length_m")
    differs = turn[None, None, :, :] - turn[:, :, None, None]
    across = np.sin(differs)
    # Where the other's line meets this one's, along each of them, by the sine rule.
    ahead = np.stack([np.sin(turn), np.cos(turn)], axis=-1)
    cross_own = ahead[..., None, 0] * away[:, None, :, 1] - ahead[..., None, 1] * away[:, None, :, 0]
    cross_other = ahead[None, ..., 0] * away[..., None, 1] - ahead[None, ..., 1] * away[..., None, 0]
    with np.errstate(divide="ignore", invalid="ignore"):
        other_at = cross_own[..., None] / across
        own_at = cross_other[:, None, :, :] / across
    on_own = (own_at > 0) & (own_at < length[:, None, None, None])
    lies = on_own & (other_at > 0) & (other_at < length[None, None, :, None])
    lies &= np.abs(across) > 1e-6
    lies[np.arange(count), :, np.arange(count)] = False
    return np.asarray(lies)
