"""A rope rigged on the plan: where it is set, what pulls, and what that does to the tree and to the rope."""

from __future__ import annotations

import math
from dataclasses import field, replace

from ..base.frames import bearing_of, half_turn_deg, to_tree
from ..base.frozen import dataclass
from ..base.quantity import Kind, choice, quantity
from .ground import rise_to_m
from .rope import SHEAVES, advantage_simple, advantage_three_on_two, bark_efficiency, pull_needed_N, redirect_load_N
from .site import Place, Site

SET = {"none": "no rope", "set": "rope set"}
SYSTEMS = {"1": "straight pull", "2": "2:1", "3": "3:1", "4": "4:1", "5": "5:1", "3 on 2": "3:1 on 2:1"}
SHEAVE_WORDS = {
    "bearing": "bearing pulley",
    "bushed": "plain-bushed pulley",
    "karabiner": "karabiner or shackle",
    "bark": "round bark",
}
ENDS = {"splice": 0.90, "figure eight": 0.75, "bowline": 0.65, "hitch": 0.55}
"""What an end leaves of the rope's strength."""
END_WORDS = {name: name for name in ENDS}
REDIRECTS = {"none": "none", "set": "redirect set"}
TAIL_m = 4.0
"""Rope for the ends."""


@dataclass(frozen=True, slots=True)
class Rope:
    """A rope to the tree, its anchor and its haul.

    The system stands at the anchor and pulls on the line that runs, past a redirect or not, up to the tree.
    """

    use: str = choice("none", SET, "rope", "Whether a rope is set in the tree.")
    attached_m: float = quantity(
        8.0,
        kind=Kind.SPAN,
        low=0.5,
        high=80.0,
        label="rope set at",
        step=0.5,
        help="Height above the ground at which the rope is fast to the stem.",
    )
    anchor: Place = field(default_factory=Place)
    system: str = choice("1", SYSTEMS, "system", "How many legs pull at the load: its advantage without friction.")
    sheave: str = choice("bearing", SHEAVE_WORDS, "sheaves", "What the rope runs over; it decides what friction takes.")
    redirect: str = choice("none", REDIRECTS, "redirect", "Whether the line is led round a corner on its way.")
    corner: Place = field(default_factory=Place)
    haul_N: float = quantity(
        400.0,
        kind=Kind.FORCE,
        low=50.0,
        high=100_000.0,
        label="hauled with",
        step=100.0,
        help="Steady pull at the hauling end: a person standing 0.3 to 0.5 kN, a hand winch 8 to 16 kN.",
    )
    hauler: Place = field(default_factory=Place)
    end: str = choice("figure eight", END_WORDS, "rope's end", "Knot or splice; it weakens the rope.")
    limit_N: float = quantity(
        8_000.0,
        kind=Kind.FORCE,
        low=500.0,
        high=200_000.0,
        label="rope may hold",
        step=500.0,
        help="Working load limit of the rope, before what its knot takes.",
    )
    gear_limit_N: float = quantity(
        12_000.0,
        kind=Kind.FORCE,
        low=500.0,
        high=200_000.0,
        label="gear may hold",
        step=500.0,
        help="Working load limit of the weakest sling, shackle or pulley.",
    )
    length_m: float = quantity(
        50.0, kind=Kind.SPAN, low=5.0, high=500.0, label="rope carried", step=5.0, help="Length of rope there is."
    )


@dataclass(frozen=True, slots=True)
class Rigging:
    """What a rope does.

    Attributes:
        advantage, ideal_advantage: of the system, with friction and without.
        pull_N: tension at the tree.
        down_deg: how steeply the line leaves the tree, below level.
        off_lay_deg: how far it leaves off the lay, left positive.
        moment_forward_Nm, moment_left_Nm: about the hinge.
        redirect_load_N: on the redirect, without friction; 0 where there is none.
        weakest: which part is nearest to its limit, and ``weakest_use`` how near.
        length_needed_m: of rope, all legs and ends.
        hauler_m: from the stump to the hauler; ``hauler_off_lay_deg`` how far off the lay he stands.
        low_pull_N, high_pull_N: pull at half this height and half as high again that gives the same moment.
    """

    advantage: float
    ideal_advantage: float
    pull_N: float
    down_deg: float
    off_lay_deg: float
    moment_forward_Nm: float
    moment_left_Nm: float
    redirect_load_N: float
    weakest: str
    weakest_use: float
    length_needed_m: float
    hauler_m: float
    hauler_off_lay_deg: float
    low_pull_N: float
    high_pull_N: float


def efficiency_of(sheave: str) -> float:
    """What a half turn over a sheave leaves of a pull."""
    return bark_efficiency(math.pi) if sheave == "bark" else SHEAVES[sheave]


def advantage_of(system: str, efficiency: float) -> float:
    """Advantage of a system by its name."""
    return advantage_three_on_two(efficiency) if system == "3 on 2" else advantage_simple(int(system), efficiency)


def rigged(
    rope: Rope, site: Site, at: Place, lay_deg: float, cut_m: float, fast_m: tuple[float, float] = (0.0, 0.0)
) -> Rigging | None:
    """What the rope does; None where none is set, or where it leads straight down beside the tree.

    Its moment is the whole r x F about the hinge: the part of the pull that leads down turns the tree about its own
    foot too, forward or back as the stem leans there.

    Args:
        fast_m: how far (forward, left) of the hinge's centroid the rope is fast.
    """
    if rope.use != "set":
        return None
    first = rope.corner if rope.redirect == "set" else rope.anchor
    # How much lies between tree and first point, level and in height.
    level = math.hypot(first.east_m - at.east_m, first.north_m - at.north_m)
    if level < 0.5:
        return None
    drop = rope.attached_m - rise_to_m(site, at, first)
    efficiency = efficiency_of(rope.sheave)
    advantage = advantage_of(rope.system, efficiency)
    bend = _bend_deg(rope, at)
    # A sheave's figure is for a half turn; a smaller bend takes its share of it.
    led = efficiency ** (bend / 180.0) if rope.redirect == "set" else 1.0
    pull = rope.haul_N * advantage * led
    down = math.atan2(drop, level)
    bearing = bearing_of(first.east_m - at.east_m, first.north_m - at.north_m)
    forward, left = to_tree(bearing, 1.0, lay_deg)
    lever, sinks = (rope.attached_m - cut_m) * math.cos(down), math.sin(down)
    redirect = redirect_load_N(rope.haul_N * advantage, 180.0 - bend) if rope.redirect == "set" else 0.0
    weakest, use = _weakest(rope, pull, advantage, redirect)
    moment = pull * (lever * forward + sinks * fast_m[0])

    def other(share: float) -> float:
        height = max(rope.attached_m * share - cut_m, 0.3)
        return pull_needed_N(abs(moment), height, level, math.degrees(math.acos(min(abs(forward), 1.0))))

    return Rigging(
        advantage,
        advantage_of(rope.system, 1.0),
        pull,
        math.degrees(down),
        math.degrees(math.atan2(left, forward)),
        moment,
        pull * (lever * left + sinks * fast_m[1]),
        redirect,
        weakest,
        use,
        _length_m(rope, level, drop),
        math.hypot(rope.hauler.east_m - at.east_m, rope.hauler.north_m - at.north_m),
        _off_lay_deg(rope.hauler, at, lay_deg),
        other(0.5),
        other(1.5),
    )


def _off_lay_deg(place: Place, at: Place, lay_deg: float) -> float:
    bearing = bearing_of(place.east_m - at.east_m, place.north_m - at.north_m)
    return abs(half_turn_deg(bearing - lay_deg))


def _bend_deg(rope: Rope, at: Place) -> float:
    """How far a redirect turns the line, on the plan: 0 straight on, 180 straight back."""
    one = math.atan2(rope.corner.east_m - at.east_m, rope.corner.north_m - at.north_m)
    other = math.atan2(rope.anchor.east_m - rope.corner.east_m, rope.anchor.north_m - rope.corner.north_m)
    return abs(half_turn_deg(math.degrees(other - one)))


def _weakest(rope: Rope, pull_N: float, advantage: float, redirect_N: float) -> tuple[str, float]:
    """(part, share of its working limit): the line with its end, the anchor's gear, the redirect."""
    line = max(pull_N, rope.haul_N * advantage)
    parts = {"rope": line / (rope.limit_N * ENDS[rope.end]), "anchor": line / rope.gear_limit_N}
    if redirect_N:
        parts["redirect"] = redirect_N / rope.gear_limit_N
    worst = max(parts, key=lambda name: parts[name])
    return worst, parts[worst]


def _length_m(rope: Rope, level_m: float, drop_m: float) -> float:
    """Line up to the tree, past the redirect, the legs of the system over a fifth of it, and on to the hauler."""
    line = math.hypot(level_m, drop_m)
    if rope.redirect == "set":
        line += math.hypot(rope.anchor.east_m - rope.corner.east_m, rope.anchor.north_m - rope.corner.north_m)
    legs = {"1": 1, "3 on 2": 5}.get(rope.system) or int(rope.system)
    haul = math.hypot(rope.hauler.east_m - rope.anchor.east_m, rope.hauler.north_m - rope.anchor.north_m)
    return line + (legs - 1) * 0.2 * line + haul + TAIL_m


def rope_along(rope: Rope, at: Place, lay_deg: float) -> Rope:
    """A rope that is set, led straight ahead along a lay: as high, as far off and as hard; the hauler stands aside."""
    if rope.use != "set":
        return rope

    def away_m(place: Place) -> float:
        return round(math.hypot(place.east_m - at.east_m, place.north_m - at.north_m), 1)

    def placed(bearing_deg: float, off_m: float) -> Place:
        turn = math.radians(bearing_deg)
        return Place(round(at.east_m + off_m * math.sin(turn), 1), round(at.north_m + off_m * math.cos(turn), 1))

    ahead = placed(lay_deg, away_m(rope.anchor))
    aside = placed(lay_deg + ASIDE_DEG, away_m(rope.hauler))
    return replace(rope, anchor=ahead, corner=placed(lay_deg, away_m(rope.corner)), hauler=aside)


def turned_rope_of(rope: Rope, at: Place, by_deg: float) -> Rope:
    """A rope that is set, led the same way on a lay turned clockwise: anchor, corner and hauler turn about the tree."""
    if rope.use != "set":
        return rope
    sin, cos = math.sin(math.radians(by_deg)), math.cos(math.radians(by_deg))

    def turned(place: Place) -> Place:
        east, north = place.east_m - at.east_m, place.north_m - at.north_m
        return Place(at.east_m + east * cos + north * sin, at.north_m + north * cos - east * sin)

    return replace(rope, anchor=turned(rope.anchor), corner=turned(rope.corner), hauler=turned(rope.hauler))


ASIDE_DEG = 25.0
"""How far aside of the lay whoever hauls stands."""


def initial_rope(rope: Rope, at: Place, lay_deg: float, height_m: float) -> Rope:
    """A rope set for the first time: at six tenths, anchored one and a half lengths off along the lay, hauled aside."""

    def place(bearing_deg: float, away_m: float) -> Place:
        turn = math.radians(bearing_deg)
        return Place(round(at.east_m + away_m * math.sin(turn), 1), round(at.north_m + away_m * math.cos(turn), 1))

    return replace(
        rope,
        use="set",
        attached_m=round(0.6 * height_m, 1),
        anchor=place(lay_deg, 1.5 * height_m),
        corner=place(lay_deg, 1.5 * height_m),
        hauler=place(lay_deg + ASIDE_DEG, 1.7 * height_m),
    )
