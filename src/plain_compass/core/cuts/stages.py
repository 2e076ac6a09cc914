"""The cut as a sequence of standing states, and every margin through the continuous depth of each cut.

A state is the wood that still holds, as bands (see ``cuts.form``). Its area and moments come from the section's
slices; what it carries follows by one rule for every form: bending over the modulus of the wood that holds, with the
weight's own help as it leans. For a finished hinge that is the law it folds by.
"""

from __future__ import annotations

import math
from dataclasses import fields, replace

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array, across, clip
from ..cuts import form_of
from ..mechanics.law import HingeLaw, Tipping, standing_on
from ..mechanics.ligament import released_J_m2
from ..mechanics.seats import seat_wanted_m
from ..plan.case import Planned
from ..tree.section import Section, Strips, sound_powers
from ..tree.wood import working_strength
from .form import Bands, CutStep
from .shapes import whole

SWEEP_DEPTHS, SWEEP_EVERY = 200, 4
"""Depths at which the margins are followed: closer together than the chart has pixels. Every fourth slice will do
there."""
FITS_SLACK_m = 1e-6
"""A kerf of just the length a wedge wants is long enough."""
ALMOST_m = 0.002
"""How near to the hinge's rearmost line the kerf counts as done."""
TRAPS_FROM = 0.6
"""Share of the kerf's height, shut at its mouth, from which the bar is held."""
CURVES = ("standing", "side", "split", "kerf")
"""The margins that are followed: standing on what holds, side bending, splitting, and the kerf shutting on the bar."""


@dataclass(frozen=True, slots=True, eq=False)
class States:
    """Standing states in a row; every array has shape (n,).

    Attributes:
        uncut_area_m2: sound wood that still holds.
        standing: bending along the lay over what the wood holds, 1 at the limit.
        side_utilisation: bending across the lay over what the wood holds.
        split_index: splitting index at this moment (indicative).
        kerf_shut: share of the kerf's height that is shut at the back; past ``TRAPS_FROM`` the bar is held.
        mouth_shut: the same at the face's mouth, where weight ahead shuts a kerf that comes in from in front.
        backwards: whether the moment is backwards.
    """

    uncut_area_m2: Array
    standing: Array
    side_utilisation: Array
    split_index: Array
    kerf_shut: Array
    mouth_shut: Array
    backwards: Array

    @property
    def uses(self) -> dict[str, Array]:
        """Use of each of ``CURVES``, 1 at its limit."""
        shut = self.kerf_shut / TRAPS_FROM
        return dict(zip(CURVES, (self.standing, self.side_utilisation, self.split_index, shut), strict=True))


@dataclass(frozen=True, slots=True, eq=False)
class Stage:
    """One step and the standing state after it.

    Attributes:
        step: the step that led to it; None for the uncut tree.
        part: ``face``, ``hinge`` or ``back``.
        kept: the wood that still holds after it, as bands.
        standing, side_utilisation, split_index: the worst within the step.
        split_at: share of the step at which splitting is worst.
        bar_free: whether the bar was free throughout the step.
        sits_back: whether the tree would sit back within it.
        goes: whether it goes by itself after it.
        seat_m: kerf open at the back for a wedge.
        wedge_fits: whether a wedge can be set now.
    """

    step: CutStep | None
    part: str
    kept: Bands
    uncut_area_m2: float
    standing: float
    side_utilisation: float
    split_index: float
    split_at: float
    bar_free: bool
    sits_back: bool
    goes: bool
    seat_m: float
    wedge_fits: bool


@dataclass(frozen=True, slots=True, eq=False)
class Sweep:
    """Margins through the whole cut.

    Attributes:
        progress: 0 uncut to 1 done, in shares of the steps' number, shape (n,).
        ends: progress at which each step is done.
        states: every margin there.
        worst: for each of ``CURVES`` the progress at which it is worst.
    """

    progress: Array
    ends: tuple[float, ...]
    states: States
    worst: dict[str, float]


def steps_of(result: Planned) -> tuple[tuple[str, CutStep], ...]:
    """Every step in order, with its part: face, work on the hinge, back cut."""
    before = whole(result)
    found: list[tuple[str, CutStep]] = []
    for part, key in result.case.cut.forms.items():
        steps = form_of(part, key).steps(result, before)
        found += [(part, step) for step in steps]
        if steps:
            before = steps[-1].kept(1.0)
    return tuple(found)


WITHIN = np.linspace(0.0, 1.0, 17)
"""Shares of a step at which it is looked at: its worst is told, not its end."""


def stages_of(result: Planned) -> tuple[Stage, ...]:
    """The uncut tree, and each step with the worst that is met within it."""
    steps = steps_of(result)
    through = [step.kept(share) for _, step in steps for share in WITHIN.tolist()]
    states = states_at(result, [whole(result), *through])
    found, wedged = [_stage(result, ("", None), whole(result), picked(states, slice(0, 1)), wedged=False)], False
    for number, (part, step) in enumerate(steps):
        first = 1 + number * len(WITHIN)
        own = picked(states, slice(first, first + len(WITHIN)))
        found.append(_stage(result, (part, step), step.kept(1.0), own, wedged=wedged))
        wedged = wedged or (found[-1].wedge_fits and bool(result.case.cut.wedges))
    return tuple(found)


def picked(states: States, rows: slice) -> States:
    """Some of the states in a row."""
    return States(*(getattr(states, each.name)[rows] for each in fields(States)))


def _stage(result: Planned, own: tuple[str, CutStep | None], kept: Bands, through: States, *, wedged: bool) -> Stage:
    """A step of a part by the states it goes through, the last of them its end."""
    part, step = own
    at_risk = step is not None and ((step.opens_back and not wedged) or part == "face")
    shut = through.kerf_shut if step is None or step.opens_back else through.mouth_shut
    seat, case = seat_m(result, kept), result.case
    backwards, falls = through.backwards.astype(bool), through.standing >= 1.0
    return Stage(
        step=step,
        part=part,
        kept=kept,
        uncut_area_m2=float(through.uncut_area_m2[-1]),
        standing=float(through.standing.max()),
        side_utilisation=float(through.side_utilisation.max()),
        split_index=float(through.split_index.max()),
        split_at=float(WITHIN[int(through.split_index.argmax())]) if step is not None else 1.0,
        bar_free=not at_risk or bool((shut < TRAPS_FROM).all()),
        sits_back=bool((backwards & falls).any()) and not wedged,
        goes=bool(falls[-1] and not backwards[-1]),
        seat_m=seat,
        wedge_fits=bool(step and step.wedge_after and seat >= seat_wanted_m(case.cut, case.kit) - FITS_SLACK_m),
    )


def seat_m(result: Planned, kept: Bands) -> float:
    """Depth of open kerf at the back: the deepest stretch from the bark to the first wood that holds."""
    strips = result.parts.section.strips
    rear = np.full(len(strips.left_m), result.parts.face.hinge_front_m)
    for low, high, at, slope, *_ in kept:
        there = (strips.left_m >= low) & (strips.left_m <= high)
        rear = np.where(there, np.minimum(rear, at + slope * strips.left_m), rear)
    open_m = rear - strips.wood_m[:, :, 0].min(axis=1)
    return max(float(open_m.max()), 0.0)


def sweep_of(result: Planned, depths: int = SWEEP_DEPTHS) -> Sweep:
    """Follow every margin through the continuous depth of each step in turn."""
    steps = steps_of(result)
    progress = np.linspace(0.0, 1.0, depths)
    count = len(steps)
    at = np.minimum((progress * count).astype(int), count - 1)
    kept = [
        steps[i][1].kept(float(min(max(p * count - i, 0.0), 1.0)))
        for i, p in zip(at.tolist(), progress.tolist(), strict=True)
    ]
    states = states_at(result, kept, every=SWEEP_EVERY)
    opens = np.array([steps[i][1].opens_back for i in range(count)])[at]
    states = replace(states, kerf_shut=np.where(opens, states.kerf_shut, 0.0))
    ends = tuple((i + 1) / count for i in range(count))
    return Sweep(progress, ends, states, _worst(progress, states))


def followed_by(before: Sweep, after: Sweep, steps: int) -> Sweep:
    """One sweep for so many steps, and another of the same cut from there on: a mistake made on the way."""
    early = before.progress <= before.ends[steps - 1] if steps else np.zeros(len(before.progress), dtype=bool)
    states = States(
        *(np.where(early, getattr(before.states, f.name), getattr(after.states, f.name)) for f in fields(States))
    )
    return replace(after, states=states, worst=_worst(after.progress, states))


def _worst(progress: Array, states: States) -> dict[str, float]:
    """Progress at which each margin is worst."""
    return {name: float(progress[int(use.argmax())]) for name, use in states.uses.items()}


def states_at(result: Planned, kept: list[Bands], every: int = 1) -> States:
    """Judge every set of bands at once.

    Args:
        every: take only each so many slices of the section: quicker, where a curve is looked at.
    """
    parts, case = result.parts, result.case
    section, strips = parts.section, _thinned(parts.section.strips, every)
    zero, first, second = _held(strips, kept)
    width, left = strips.width_m, strips.left_m
    area = np.maximum(zero.sum(axis=1) * width, 1e-9)
    centre = first.sum(axis=1) * width / area
    centre_left = (zero * left).sum(axis=1) * width / area
    fall = np.maximum(second.sum(axis=1) * width - area * centre**2, 1e-15)
    side = np.maximum((zero * left**2).sum(axis=1) * width - area * centre_left**2 + area * width**2 / 12, 1e-15)
    strength = working_strength(case.wood, case.tree.condition, case.constants)
    pulled_forward = parts.mass.com_forward_m + parts.loads.harmed_Nm / parts.mass.weight_N
    pulled_left = parts.mass.com_left_m + parts.loads.left_Nm / parts.mass.weight_N
    forward, aside = parts.mass.weight_N * (pulled_forward - centre), parts.mass.weight_N * (pulled_left - centre_left)
    rear, front, low, high = _extremes(section, kept)
    reach = np.where(forward >= 0, centre - rear, front - centre)
    share = case.constants.peak_share * strength.rupture_Pa
    capacity = share * fall / np.maximum(reach, 1e-6)
    across_m = np.where(aside > 0, centre_left - low, high - centre_left)
    side_capacity = share * side / np.maximum(across_m, 1e-6)
    law = _law(result, capacity, fall, front - rear)
    load = Tipping(np.full(len(kept), parts.mass.bent_toppling_Nm), forward, np.zeros(len(kept)))
    shuts = np.arctan2(case.kit.kerf_m, np.maximum(centre - section.back_m, 1e-3))
    standing, tilt = standing_on(law, load, np.where(forward < 0, shuts, law.peaks_rad))
    behind, before = (
        np.tan(tilt) * (arm / case.kit.kerf_m) for arm in (centre - section.back_m, section.front_m - centre)
    )
    return States(
        area,
        standing,
        np.abs(aside) / side_capacity,
        _split(result, strips, kept, forward, capacity),
        np.where(forward < 0, behind, 0.0),
        np.where(forward > 0, before, 0.0),
        forward < 0,
    )


def _law(result: Planned, peak_Nm: Array, fall_m4: Array, deep_m: Array) -> HingeLaw:
    """How what holds resists as it folds: its fibres are as long as it is deep, front to rear."""
    case, strength = result.case, result.parts.strength
    constants, step = case.constants, max(case.cut.back.step_m, 0.0)
    fibre = np.maximum(constants.hinge_length_factor * deep_m + step, 1e-6)
    thick, base = result.parts.hinge.thickness_m, math.radians(strength.break_angle_deg)
    elasticity = working_strength(case.wood, case.tree.condition, constants).elasticity_Pa
    return HingeLaw(
        stiffness_Nm=elasticity * fall_m4 / fibre,
        peak_Nm=peak_Nm,
        break_rad=base * np.cbrt(thick / np.maximum(deep_m, 1e-3)),
        peaks_at=np.full(len(peak_Nm), strength.peaks_at),
        softens_over=np.full(len(peak_Nm), strength.softens_over),
        tail=np.full(len(peak_Nm), strength.tail),
    )


def _thinned(strips: Strips, every: int) -> Strips:
    """Each so many slices, wider to make up for those left out."""
    if every == 1:
        return strips
    start = every // 2
    return Strips(
        strips.left_m[start::every],
        strips.width_m * len(strips.left_m) / len(strips.left_m[start::every]),
        strips.wood_m[start::every],
        strips.rot_m[start::every],
    )


def _held(strips: Strips, kept: list[Bands]) -> tuple[Array, Array, Array]:
    """Thickness, first and second moment of the sound wood within the bands, by slice; shapes (n, s)."""
    left = strips.left_m
    most = max((len(bands) for bands in kept), default=1) or 1
    table = np.zeros((len(kept), most, 6))
    table[:, :, 0], table[:, :, 1] = 1.0, -1.0
    for row, bands in enumerate(kept):
        if bands:
            table[row, : len(bands)] = bands
    zero = np.zeros((len(kept), len(left)))
    first, second = zero.copy(), zero.copy()
    for column in range(most):
        low, high, rear, rear_slope, front, front_slope = (table[:, column, i][:, None] for i in range(6))
        # A slice at the edge of a band counts by the share of it that lies inside.
        half = strips.width_m / 2
        inside = np.clip((np.minimum(high, left + half) - np.maximum(low, left - half)) / (2 * half), 0.0, 1.0)
        rears, fronts = rear + rear_slope * left, front + front_slope * left
        one, two, three = sound_powers(strips, np.minimum(rears, fronts), fronts)
        zero += inside * one
        first += inside * two
        second += inside * three
    return zero, first, second


def _extremes(section: Section, kept: list[Bands]) -> tuple[Array, Array, Array, Array]:
    """(rearmost, foremost, rightmost, leftmost) wood that holds, by state; shapes (n,)."""
    wood_low, wood_high = section.right_m, section.left_m
    rows = []
    for bands in kept:
        rears, fronts, lows, highs = [], [], [], []
        for low, high, rear, rear_slope, front, front_slope in bands:
            a, b = max(low, wood_low), min(high, wood_high)
            if b <= a:
                continue
            rears += [rear + rear_slope * a, rear + rear_slope * b]
            fronts += [front + front_slope * a, front + front_slope * b]
            lows.append(a)
            highs.append(b)
        if not rears:
            rows.append((0.0, 0.0, 0.0, 0.0))
            continue
        rows.append((max(min(rears), section.back_m), min(max(fronts), section.front_m), min(lows), max(highs)))
    found = np.array(rows)
    return found[:, 0], found[:, 1], found[:, 2], found[:, 3]


def _split(result: Planned, strips: Strips, kept: list[Bands], forward_Nm: Array, capacity_Nm: Array) -> Array:
    """Splitting index: the front, ahead of the nearest kerf behind the apex, against what the stem resists.

    Where wood is left behind, the ligament sees no more than it can fold at; from behind it sees the whole moment;
    once only the hinge is left it is folded, whatever moves the tree.
    """
    parts, case = result.parts, result.case
    section, apex = parts.section, parts.face.hinge_front_m
    rears = [_rears(bands, apex, section) for bands in kept]
    # Behind the stem where nothing is cut yet.
    uncut = section.back_m - 0.01
    kerf = np.array([max(max(each, default=uncut), uncut) for each in rears])
    open_ = kerf > section.back_m
    zero, first, second = sound_powers(
        strips, np.broadcast_to(kerf[:, None], (len(kept), len(strips.left_m))), np.full((1, 1), 9.0)
    )
    width = strips.width_m
    area = np.maximum(zero.sum(axis=1) * width, 1e-12)
    centre = first.sum(axis=1) * width / area
    front = np.maximum(second.sum(axis=1) * width - area * centre**2, 1e-15)
    pieces = strips.wood_m[None, :, :, :]
    there = ((pieces[..., 0] < kerf[:, None, None]) & (kerf[:, None, None] < pieces[..., 1])).any(axis=2)
    breadth = np.maximum(there.sum(axis=1) * width, 1e-6)
    held = np.array([_is_held(bands, apex) for bands in kept])
    strength = working_strength(case.wood, case.tree.condition, case.constants)
    ligament, _, _ = sound_powers(strips, kerf[:, None], np.full((len(kept), len(strips.left_m)), apex))
    folds = case.constants.peak_share * case.wood.rupture_Pa / 6 * (ligament**2).sum(axis=1) * width
    # Half a back cut folds nothing yet: the kerf must have come to the hinge over the whole width.
    finished = ~held & np.array([bool(each) and min(each) >= parts.hinge_back_m - ALMOST_m for each in rears])
    moment = np.clip(np.where(held, np.minimum(forward_Nm, folds), np.minimum(forward_Nm, capacity_Nm)), 0.0, None)
    moment = np.where(finished, np.maximum(moment, folds), moment)
    energy = released_J_m2(
        moment, breadth, np.full(1, strength.elasticity_Pa), front, np.full(1, section.sound_moments.second_fall_m4)
    )
    energy = np.where(finished, np.maximum(energy, _overcut_J_m2(result)), energy)
    found: Array = np.where(open_, energy / parts.splitting.resistance_J_m2, 0.0)
    return found


def _overcut_J_m2(result: Planned) -> float:
    """What the slot of an overcut sets free as it shuts."""
    splitting = result.parts.splitting
    return splitting.split_index_overcut * splitting.resistance_J_m2


def _rears(bands: Bands, apex: float, section: Section) -> list[float]:
    """Where the kerf stops behind each band that reaches the apex, in the middle of the band's width."""
    low, high = section.right_m, section.left_m
    return [
        rear + slope * (max(one, low) + min(other, high)) / 2
        for one, other, rear, slope, front, _ in bands
        if front >= apex - 1e-6
    ]


def _is_held(bands: Bands, apex: float) -> bool:
    """Whether wood stands behind the kerf."""
    return any(front < apex - 1e-6 for _, _, _, _, front, _ in bands)


def kept_outlines(section: Section, kept: Bands) -> tuple[Array, ...]:
    """The wood within each band, as polygons in plan: exact, by half-planes; shape (k, 2) each."""
    found = []
    for low, high, rear, rear_slope, front, front_slope in kept:
        piece = across(section.wood, low, high)
        piece = clip(clip(piece, 1.0, -front_slope, front), -1.0, rear_slope, -rear)
        if len(piece) >= 3:
            found.append(piece)
    return tuple(found)
