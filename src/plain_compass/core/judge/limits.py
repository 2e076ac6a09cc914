"""The limits of the physics, as shares used up: of many cases at once, and of one in the same words.

Here alone it is said what is held against what. Findings make sentences of it; rose, survey and suggestions read the
numbers. A limit that is not asked of a case (there is no strap, no rope, no wedge) has no share there: not a number.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from functools import lru_cache
from typing import TypeAlias

import numpy as np

from ..base.frozen import dataclass
from ..base.levels import Group, Level
from ..base.polygon import Array
from ..base.quantity import Kind
from ..base.rows import Mask
from ..mechanics.balance import backward_spare_Nm
from ..mechanics.bar import off_line_m, usable_m
from ..mechanics.hinge import bored_m, led_m
from ..mechanics.law import spare_Nm
from ..mechanics.seats import seat_wanted_m
from ..mechanics.splitting import EARLY_MOST
from ..mechanics.wedge import moments_alone_Nm, stands_in_kept
from ..plan.many import Many
from .findings import LEAST_MARGIN, WATCH_FROM, Finding, Limit, Told, against, level_of

BROKEN = 1.5
"""Share of a rule that is broken and has no number of its own: past the limit, and never what rules all others."""
SOUND_SHELL_LEAST = 0.30
"""Shell over radius below which a hollow stem is no longer worked as a sound one (practice of the trade)."""
SOUND_HINGE_LEAST = 0.5
"""Less sound wood than half a hinge steers nothing."""
SOUND_SEAT_LEAST = 0.5
"""A wedge that stands more than half on rot sinks instead of lifting."""
SMALL_STEM_USE = 0.95
"""A small stem that can be pushed is watched, not stopped, for a wedge that finds no room."""
PUSHED_TO_m = 0.35
"""Thickest stem, at breast height, that somebody holds by pushing until a wedge is in (judgement)."""
RUNS_PAST, SHUTS_FIRST = 0.9, 2.0
"""Shares of an overcut: watched wherever there is one, past the limit where its slot shuts before the face."""
LOADED_SHARE, UNEVEN_SHARE = 0.03, 0.10
"""Shares of the side capacity, and of the mean thickness, from which it matters which end is the thicker."""
APART_MOST_m = 0.02
"""Roof and floor that end farther apart in height leave a hinge that is two hinges (practice of the trade)."""
STEPPED, STEP_SLACK_m = 0.2, 1e-4
"""Share of the limit that ends a little apart take under a step that clears both; and how near to it counts."""
MOST_SHOWN = 99.0
"""A share past this is shown as this: nobody reads more digits."""
NOTHING = 1e-6
"""Keeps what there is next to none of from dividing anything."""


Uses: TypeAlias = Mapping[str, float]
"""Share of every limit that is asked of one case, by id."""


@dataclass(frozen=True, slots=True)
class Measure:
    """One limit of the physics.

    Attributes:
        group: the limit state it belongs to.
        uses: its shares over many cases, shape (B,).
        relation: what it is worked out by, as ``docs/model.md`` calls it, trade words in square brackets.
        watch_from: share from which it is watched.
        is_hard: whether it holds or does not, whatever was measured how well; any other has a chance.
    """

    group: Group
    uses: Callable[[Many], Array]
    relation: str
    watch_from: float = WATCH_FROM
    is_hard: bool = False


def _asked(where: Mask | bool, use: Array | float) -> Array:
    return np.where(where, use, np.nan)


def _share(load: Array, capacity: Array | float) -> Array:
    """A load over what carries it: nothing of nothing, all and more where nothing carries it."""
    some = np.asarray(capacity) > 0
    over = load / np.where(some, capacity, 1.0)
    return np.where(some, over, np.where(load > 0, np.inf, 0.0))


def _pushed(many: Many) -> Array:
    """What a push must send over, over what a person gives."""
    return _share(many.wedging.moment_Nm, many.wedging.by_hand_Nm)


def _goes_over(many: Many) -> Array:
    """Lift wanted over lift had on the way told, or what a push must over what a person gives: either will do.

    Nothing where the tree goes by itself.
    """
    return np.where(many.wedging.tilt_deg > 0, np.minimum(many.wedge_plan.lift_use, _pushed(many)), 0.0)


def _holds(many: Many) -> Array:
    """The tilt until which a hinge is needed over that at which the face shuts; side weight is its own limit."""
    return _share(many.use.needed_tilt_deg, many.face.closing_angle_deg)


def _taper(many: Many) -> Array:
    """A thicker end where the weight crushes it: it carries less so, and leads the tree further off."""
    left, right = many.designs.left_m, many.designs.right_m
    uneven = np.abs(left - right) > UNEVEN_SHARE * (left + right) / 2
    if not uneven.any():
        return np.full(len(left), np.nan)
    _, off = led_m(many.mass, many.hinge)
    loaded = np.abs(off) * many.mass.weight_N > LOADED_SHARE * many.strength.side_capacity_Nm
    return _asked(loaded & uneven & (off * (left - right) > 0), BROKEN)


def _overcut(many: Many) -> Array:
    shuts = many.face.slot_deg < many.face.opening_deg
    return _asked(many.designs.overcut_m > 0, np.where(shuts, SHUTS_FIRST, RUNS_PAST))


def _apart(many: Many) -> Array:
    apart = many.designs.apart_m
    # A step that is a step over the higher end too leaves one hinge.
    least = np.array([step_wanted_m(case.practice.step_m[0], case.cut.face.apart_m) for case in many.cases])
    steps = np.array([case.cut.back.step_m for case in many.cases])
    stepped = (steps >= least - STEP_SLACK_m) & (apart <= APART_MOST_m)
    return _asked(apart > 0, np.where(stepped, STEPPED, apart / APART_MOST_m))


def step_wanted_m(least_m: float, apart_m: float) -> float:
    """Height of the back cut over the lower end that leaves a practice's least step over the higher one."""
    return least_m + apart_m


def _early(many: Many) -> Array:
    """What stands beyond the hinge as a tree cut from behind goes, over what may: nothing where that is cut before."""
    # Not a number where only the hinge lets it go.
    goes = np.fmax(np.asarray(many.splitting.moves_at_m, dtype=np.float64), 0.0)
    beyond = np.maximum(_share(goes, many.hinge.thickness_m) - 1.0, 0.0)
    return _asked(~many.designs.held, beyond / (EARLY_MOST - 1.0))


def _strap(many: Many) -> Array:
    use = many.splitting.strap_utilisation
    assert use is not None
    return use


def _worst(many: Many, of: Array) -> Array:
    """The most of each case's seats."""
    found: Array = np.where(many.seats.used, of, -np.inf).max(axis=1, initial=-np.inf)
    return found


def _drive(many: Many) -> Array:
    """The hardest blow, or all of them, on the way told: past either the wedges are no plan, and a rope is.

    What a push sends over asks nothing of wedges, whether any are placed or not.
    """
    pushed = _pushed(many)
    wanted = np.where(pushed <= 1.0, np.minimum(many.wedge_plan.drive_use, pushed), many.wedge_plan.drive_use)
    return np.where(many.wedging.tilt_deg > 0, wanted, 0.0)


def _sits_back(many: Many) -> Array:
    use = many.balance.sits_back_utilisation
    pushed = (use > 1.0) & (push_back_Nm(many) > 0)
    if pushed.any():
        # Somebody holds a small stem until the wedge is in.
        spare = backward_spare_Nm(many, many.timbers, (many.mass, many.loads), many.cases[0].kit)
        use = np.where(pushed & (spare + push_back_Nm(many) >= 0), SMALL_STEM_USE, use)
    return _asked(use > 0, use)


def push_back_Nm(many: Many) -> Array:
    """What somebody who pushes holds of a stem that would sit back; nothing of one too thick to be pushed."""
    thick = np.array([case.tree.trunk.diameter_m for case in many.cases])
    return np.where(thick <= PUSHED_TO_m, many.wedging.by_hand_Nm, 0.0)


def _shuts_first(many: Many) -> Array:
    shuts = np.asarray(many.wedging.shuts_first)
    return _asked(shuts, BROKEN)


def first_kerf_m(many: Many) -> Array:
    """Kerf behind the hinge in which the first wedge must stand."""
    found: Array = many.sections.depth_m - many.designs.depth_m - many.hinge.reach_m
    return found


def _fits_first(many: Many) -> Array:
    kit = many.cases[0].kit
    needs = np.array([seat_wanted_m(cut, kit) for cut in many.designs.cuts])
    use = _share(needs, first_kerf_m(many))
    # A small stem that stands by itself, or that somebody holds, is tipped by hand or lever: no reason to stop.
    stands = np.nan_to_num(_sits_back(many)) <= 1.0
    return _asked(many.wedging.tilt_deg > 0, np.where(stands, np.minimum(use, SMALL_STEM_USE), use))


def _lifted(many: Many) -> Mask:
    """Where it is the wedges that tip the tree: what one person pushes over asks nothing of them."""
    found: Mask = many.placed & (many.wedging.moment_Nm > many.wedging.by_hand_Nm)
    return found


def _room(many: Many) -> Array:
    return _asked(_lifted(many), many.wedge_plan.room_use)


def _seat_sound(many: Many) -> Array:
    known = np.array([case.tree.decay.kind != "unknown" for case in many.cases])
    worst = _worst(many, SOUND_SEAT_LEAST / np.maximum(many.seats.table.sound_fraction, NOTHING))
    return _asked(_lifted(many) & known, worst)


def _carried(many: Many) -> Array:
    count = many.cases[0].kit.wedge_count
    asked = np.where(many.seats.used, many.seats.table.stacked, 0).sum(axis=1)
    return _asked(many.placed & (asked > count), asked / max(count, 0.1))


def _in_strap(many: Many) -> Array:
    table, found = many.seats.table, np.zeros(many.seats.used.shape, dtype=bool)
    for at, cut in enumerate(many.designs.cuts):
        # A section by itself is made for those that keep wood behind.
        if cut.back.traits.keeps_back:
            section = many.sections.section(at)
            found[at] = stands_in_kept(section, cut.back, table.edge_left_m[at], table.edge_forward_m[at])
    return _asked(many.placed & (found & many.seats.used).any(axis=1), BROKEN)


def _spacing(many: Many) -> Array:
    table, used, wide = many.seats.table, many.seats.used, many.cases[0].kit.wedge_width_m
    if used.shape[1] < 2:
        return np.full(len(used), np.nan)
    order = np.argsort(np.where(used, table.edge_left_m, np.inf), axis=1, kind="stable")
    rows = np.arange(len(used))[:, None]
    left, ahead, there = table.edge_left_m[rows, order], table.edge_forward_m[rows, order], used[rows, order]
    near = (there[:, 1:] & (np.hypot(np.diff(left, axis=1), np.diff(ahead, axis=1)) < wide)).any(axis=1)
    return _asked(many.placed & near, BROKEN)


def _stack(many: Many) -> Array:
    stacked = (many.seats.used & (many.seats.table.stacked == 2)).any(axis=1)
    allowed = many.cases[0].kit.stackable != "no"
    return _asked(many.placed & stacked & (not allowed), BROKEN)


def _spits(many: Many) -> Array:
    spits = (many.seats.used & many.seats.table.spits_out).any(axis=1)
    return _asked(many.placed & spits, BROKEN)


def bar_reach_m(many: Many) -> Array:
    """Usable bar inside the wood."""
    bar = many.cases[0].kit.bar_m
    return np.array(
        [usable_m(bar, case.tree.trunk.bark_m, shaved=case.cut.back.shaved == "yes") for case in many.cases]
    )


def bar_across_m(many: Many) -> Array:
    """What the bar must get across: the hinge where wood is held behind it, else the whole stem."""
    return np.where(many.designs.held, many.face.hinge_length_m, many.sections.width_m)


def _bar(many: Many) -> Array:
    # A bore through the face takes the middle that neither side reaches.
    bored = np.array([bored_m(cut.hinge) for cut in many.designs.cuts])
    found: Array = (bar_across_m(many) - bored) / (2 * bar_reach_m(many))
    return found


def bore_room_m(many: Many) -> Array:
    """Kerf between hinge and strap."""
    return many.hinge.back_m - many.sections.back_m - many.designs.kept_m


def _bore_room(many: Many) -> Array:
    wide = many.cases[0].kit.bar_width_m
    return _asked(many.designs.strapped, wide / np.maximum(bore_room_m(many), NOTHING))


def bore_off_m(many: Many) -> Array:
    """How far a bore out of line is off at its far end."""
    found: Array = off_line_m(np.minimum(many.face.hinge_length_m, bar_reach_m(many)))
    return found


def _nick(many: Many) -> Array:
    bored = np.array([cut.back.traits.bored for cut in many.designs.cuts])
    thin = np.minimum(many.designs.left_m, many.designs.right_m)
    return _asked(bored, bore_off_m(many) / np.maximum(thin, 1e-4))


def _shell(many: Many) -> Array:
    return SOUND_SHELL_LEAST / np.maximum(many.sections.shell_ratio, NOTHING)


def _sound_hinge(many: Many) -> Array:
    known = ~np.isnan(many.sections.shell_ratio)
    return _asked(known, SOUND_HINGE_LEAST / np.maximum(many.hinge.sound_fraction, NOTHING))


@lru_cache(maxsize=1)
def wind_per_newton(many: Many) -> Array:
    """Share of what the plan can bear that one newton of wind takes: against the lay, or across it."""
    gust = many.gust
    against = np.maximum(gust.against, 0.0)
    # What the plan could take from ahead in a calm, and the tree still goes from where its wedges bring it.
    calm = many.loads.forward_Nm + gust.mean_N * gust.arm_m * against
    law, load = many.tipped(calm)
    brought = np.maximum(many.wedge_plan.bring_rad - np.radians(many.cases[0].constants.tip_margin_deg), 0.0)
    back = np.maximum(spare_Nm(law, load, np.where(many.wedging.tilt_deg > 0, brought, 0.0)), 0.0)
    shares = []
    for share, room in ((against, back), (np.abs(gust.aside_left), many.strength.side_capacity_Nm)):
        none = np.where(share > 1e-9, np.inf, 0.0)
        shares.append(np.where(room > 0, share * gust.arm_m / np.where(room > 0, room, 1.0), none))
    return np.maximum(shares[0], shares[1])


def _wind(many: Many) -> Array:
    if many.cases[0].site.wind_m_s is None:
        return np.full(len(many.cases), np.nan)
    force, takes = many.gust.mean_N, wind_per_newton(many)
    # A plan that does not work in a calm is told by what it does not do then.
    use = np.where(force > 0, np.maximum(force, NOTHING) * np.where(np.isfinite(takes), takes, 0.0), 0.0)
    return _asked(np.isfinite(takes), use)


def rope_wanted_Nm(many: Many) -> Array:
    """Moment the rope must give: what tips the tree by its weight alone, and what else holds against the rope."""
    pulls, constants = np.nan_to_num(_rope(many, "moment_forward_Nm")), many.cases[0].constants
    found: Array = moments_alone_Nm(many, many.mass, constants) + np.maximum(pulls - many.loads.forward_Nm, 0.0)
    return found


def _rope(many: Many, name: str) -> Array:
    return np.array([np.nan if each is None else float(getattr(each, name)) for each in many.rigging])


def _rope_pull(many: Many) -> Array:
    gives = _rope(many, "moment_forward_Nm")
    if np.isnan(gives).all():
        return gives
    return _asked(~np.isnan(gives), _share(rope_wanted_Nm(many), np.nan_to_num(gives)))


def _breaks(many: Many) -> Array:
    aloft = np.array([cut.is_aloft for cut in many.designs.cuts])
    return _asked(~aloft, many.resting.break_index)


def _rope_length(many: Many) -> Array:
    found: Array = _rope(many, "length_needed_m") / np.array([case.rope.length_m for case in many.cases])
    return found


LIMITS: Mapping[str, Measure] = {
    "balance.over": Measure(Group.BALANCE, _goes_over, "ways on of wedging"),
    "balance.sits_back": Measure(Group.BALANCE, _sits_back, "standing, sitting back"),
    "balance.shuts_first": Measure(Group.BALANCE, _shuts_first, "shutting of the [face]"),
    "hinge.side": Measure(Group.HINGE, lambda many: many.use.side_utilisation, "use of the [hinge]"),
    "hinge.holds": Measure(Group.HINGE, _holds, "tilt until which it is needed", 0.9),
    "hinge.taper": Measure(Group.HINGE, _taper, "steering by taper", is_hard=True),
    "face.overcut": Measure(Group.FACE, _overcut, "shutting of the [face]", is_hard=True),
    "face.apart": Measure(Group.FACE, _apart, "shutting of the [face]", 0.25, is_hard=True),
    "split.index": Measure(Group.SPLIT, lambda many: many.splitting.split_index, "energy of a crack up the stem", 0.5),
    "split.early": Measure(Group.SPLIT, _early, "going early"),
    "split.strap": Measure(Group.SPLIT, _strap, "[strap] in tension"),
    "wedge.fits_first": Measure(Group.WEDGE, _fits_first, "standing, sitting back", 1.0, is_hard=True),
    "wedge.drive": Measure(Group.WEDGE, _drive, "driving a wedge"),
    "wedge.room": Measure(Group.WEDGE, _room, "lift and force of wedges", 0.9),
    "wedge.sound": Measure(Group.WEDGE, _seat_sound, "where wedges stand"),
    "wedge.carried": Measure(Group.WEDGE, _carried, "where wedges stand", is_hard=True),
    "wedge.in_strap": Measure(Group.WEDGE, _in_strap, "where wedges stand", is_hard=True),
    "wedge.spacing": Measure(Group.WEDGE, _spacing, "where wedges stand", is_hard=True),
    "wedge.stack": Measure(Group.WEDGE, _stack, "driving a wedge", is_hard=True),
    "wedge.holds": Measure(Group.WEDGE, _spits, "driving a wedge", is_hard=True),
    "bar.reach": Measure(Group.BAR, _bar, "reach of the bar", 0.95),
    "bar.bore_room": Measure(Group.BAR, _bore_room, "reach of the bar", 0.9),
    "bar.nick": Measure(Group.BAR, _nick, "reach of the bar"),
    "decay.shell": Measure(Group.DECAY, _shell, "area and second moments"),
    "decay.hinge": Measure(Group.DECAY, _sound_hinge, "area and second moments"),
    "landing.break": Measure(Group.LANDING, _breaks, "lying stem"),
    "rope.pull": Measure(Group.BALANCE, _rope_pull, "loads beside the weight", 0.9),
    "rope.weakest": Measure(Group.BALANCE, lambda many: _rope(many, "weakest_use"), "redirect's load"),
    "rope.length": Measure(Group.BALANCE, _rope_length, "real advantage of tackle", 0.95),
    "balance.wind": Measure(Group.BALANCE, _wind, "drag of a crown"),
}
"""Every limit of the physics that has a number, each declared once, in the order in which they are told."""


@dataclass(frozen=True, eq=False)
class Shares:
    """Every limit of B cases, in the order of ``LIMITS``; not a number where it is not asked.

    Attributes:
        use: shares used up, shape (limits, B).
    """

    many: Many
    use: Array

    def at(self, row: int) -> dict[str, float]:
        """Shares of one case, of what is asked there."""
        uses = zip(IDS, self.use[:, row].tolist(), strict=True)
        return {id: use for id, use in uses if use == use}

    def ruling(self) -> tuple[Array, Array]:
        """(place in ``IDS`` of the limit with the least margin, that margin), by case."""
        margins = np.where(np.isnan(self.use), np.inf, np.clip(1.0 - self.use, LEAST_MARGIN, 1.0))
        least = margins.argmin(axis=0)
        return least, margins[least, np.arange(margins.shape[1])]

    def ruling_at(self, row: int, leaving_out: tuple[str, ...]) -> tuple[int, float]:
        """The same of one case, without the limits whose ids begin so."""
        margins = [
            math.inf if use != use or id.startswith(leaving_out) else min(max(1.0 - use, LEAST_MARGIN), 1.0)
            for id, use in zip(IDS, self.use[:, row].tolist(), strict=True)
        ]
        least = min(range(len(IDS)), key=margins.__getitem__)
        return least, margins[least]


IDS = tuple(LIMITS)


def shares_of(many: Many, without: frozenset[str] = frozenset()) -> Shares:
    """Every limit of every case, but for those that are not asked for."""
    none = np.full(len(many.cases), np.nan)
    return Shares(many, np.array([none if id in without else kind.uses(many) for id, kind in LIMITS.items()]))


def level_at(id: str, use: float) -> Level:
    """Level of a share of one limit."""
    return level_of(use, LIMITS[id].watch_from)


def judged(
    limit: Limit,
    uses: Uses,
    compared: tuple[float, float, Kind] | None,
    told: Told,
    *,
    indicative: bool = False,
    watch_from: float | None = None,
) -> Finding:
    """The finding about one limit of one case.

    Args:
        uses: shares of the case, by id.
        compared: (value, limit, kind) as they are shown; nothing shows the share itself, in percent.
        watch_from: share from which it is watched where that is not the limit's own.
    """
    use = uses[limit.id]
    shown = compared or (min(use, MOST_SHOWN), 1.0, Kind.RATIO)
    watched = LIMITS[limit.id].watch_from if watch_from is None else watch_from
    return against(limit, use, shown, told, watch_from=watched, indicative=indicative)
