"""The bar: passes that sweep the planned kerf, what they leave, and what a bore set wrong does at the far end."""

from __future__ import annotations

import math

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import N
from ..tree.section import Section

SLICES = 80
"""Depths at which the width of the kerf is taken: two centimetres or less on any stem a bar goes through."""
NICKS_DEG = 3.0
"""Error of a bore's direction that is reckoned with: what a trained hand keeps."""


@dataclass(frozen=True, slots=True, eq=False)
class Pass:
    """One pass of the bar.

    Attributes:
        side: ``left``, ``right`` (in from that side) or ``face`` (bored through the face).
        outline: the kerf it sweeps, shape (k, 2).
        entry_forward_m, entry_left_m: where the bar goes in; ``nose_forward_m``, ``nose_left_m`` where its nose begins.
        stand: where to stand for it.
        lower_m: how much lower than the first pass it is.
    """

    side: str
    outline: Array
    entry_forward_m: float
    entry_left_m: float
    nose_forward_m: float
    nose_left_m: float
    stand: str
    lower_m: float


@dataclass(frozen=True, slots=True, eq=False)
class BarPlan:
    """How the bar gets through.

    Attributes:
        reach_m: usable length of the bar inside the wood, bark taken off.
        passes: in their order.
        corner: the blind corner that no pass reaches, shape (k, 2); empty where there is none.
        corner_share: its share of the kerf's area.
        far_m: how far a bore out by ``NICKS_DEG`` is off at the far end of its pass.
        nick_use: that over the hinge's thickness there; past 1 the hinge is cut through.
    """

    reach_m: float
    passes: tuple[Pass, ...]
    corner: Array
    corner_share: float
    far_m: float
    nick_use: float


def usable_m(bar_m: float, bark_m: float, *, shaved: bool) -> float:
    """Length of bar inside the wood: bark eats reach unless it is shaved off."""
    return max(bar_m - (0.0 if shaved else bark_m), 0.01)


def off_line_m(length_m: N) -> N:
    """How far a bore out by ``NICKS_DEG`` is off at the end of a length."""
    return length_m * math.tan(math.radians(NICKS_DEG))


def bar_plan(
    section: Section,
    kerf: tuple[float, tuple[float, float]],
    *,
    reach_m: float,
    first: str,
    heart: tuple[float, float] | None,
    thickness_m: tuple[float, float],
) -> BarPlan:
    """Sweep the kerf up to the hinge's rear line.

    Args:
        kerf: its rear edge along the lay, which is the back of the wood or the front of a strap; and the hinge's rear
            line, (position at left = 0, slope).
        reach_m: usable length of the bar.
        first: side from which the first pass goes in.
        heart: (low, high) of a bore through the face across the lay; None without.
        thickness_m: (left, right) thickness of the hinge.

    A bar in from one side reaches ``reach_m`` across from the bark there, at every depth.
    """
    at, low, high = _chords(section, *kerf)
    other = "left" if first == "right" else "right"
    near = np.minimum(high, low + reach_m) if first == "right" else np.maximum(low, high - reach_m)
    whole = float(np.maximum(high - low, 0.0).sum())
    passes = [_pass(first, at, (low, near) if first == "right" else (near, high), 0.0)]
    left_over = (near, high) if first == "right" else (low, near)
    if float((left_over[1] - left_over[0]).max()) > 1e-6:
        from_other = (
            (np.maximum(near, high - reach_m), high) if first == "right" else (low, np.minimum(near, low + reach_m))
        )
        passes.append(_pass(other, at, from_other, 0.003))
        left_over = (near, from_other[0]) if first == "right" else (from_other[1], near)
    if heart is not None:
        passes.append(_pass("face", at, (np.full_like(at, heart[0]), np.full_like(at, heart[1])), 0.0))
        left_over = _less(left_over, heart)
    gap = np.maximum(left_over[1] - left_over[0], 0.0)
    corner = _outline(at, *left_over) if float(gap.max(initial=0.0)) > 1e-4 else np.zeros((0, 2))
    longest = min(float((high - low).max(initial=0.0)), reach_m)
    far = off_line_m(longest)
    end = thickness_m[0] if first == "right" else thickness_m[1]
    return BarPlan(reach_m, tuple(passes), corner, float(gap.sum()) / max(whole, 1e-12), far, far / max(end, 1e-4))


def _less(stretch: tuple[Array, Array], heart: tuple[float, float]) -> tuple[Array, Array]:
    """A stretch with a bore through its middle taken off: nothing where the bore covers it."""
    low, high = stretch
    covered = (low >= heart[0] - 1e-9) & (high <= heart[1] + 1e-9)
    return np.where(covered, high, low), high


def _chords(section: Section, rear_m: float, front_m: tuple[float, float]) -> tuple[Array, Array, Array]:
    """(forward, right end, left end) of the kerf at even depths from rear to the hinge, shapes (SLICES,)."""
    at, slope = front_m
    deepest = at + max(slope * section.right_m, slope * section.left_m)
    forwards = np.linspace(rear_m + 1e-6, max(deepest, rear_m + 1e-4), SLICES)
    strips = section.strips
    inside = (strips.wood_m[:, :, 0].min(axis=1)[None] <= forwards[:, None]) & (
        strips.wood_m[:, :, 1].max(axis=1)[None] >= forwards[:, None]
    )
    inside &= forwards[:, None] <= at + slope * strips.left_m[None]
    half = strips.width_m / 2
    low = np.where(inside, strips.left_m[None], np.inf).min(axis=1) - half
    high = np.where(inside, strips.left_m[None], -np.inf).max(axis=1) + half
    none = ~inside.any(axis=1)
    low[none], high[none] = 0.0, 0.0
    return forwards, low, high


def _outline(at: Array, low: Array, high: Array) -> Array:
    """A region given by its ends at each depth, as a polygon."""
    there = high > low + 1e-9
    if not there.any():
        return np.zeros((0, 2))
    one = np.column_stack([at[there], low[there]])
    other = np.column_stack([at[there], high[there]])
    found: Array = np.vstack([one, other[::-1]])
    return found


def _pass(side: str, at: Array, ends: tuple[Array, Array], lower_m: float) -> Pass:
    """A pass: in from the bark at three quarters of the way to the hinge, or straight in from the face."""
    low, high = ends
    outline, middle = _outline(at, low, high), int(len(at) * 0.75)
    if side == "face":
        aside = float((low[0] + high[0]) / 2)
        return Pass(side, outline, float(at[-1]), aside, float(at[0]), aside, f"bar.stand.{side}", lower_m)
    entry, nose = (low, high) if side == "right" else (high, low)
    forward = float(at[middle])
    return Pass(
        side, outline, forward, float(entry[middle]), forward, float(nose[middle]), f"bar.stand.{side}", lower_m
    )
