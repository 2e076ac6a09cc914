"""Sections of many cases at once, as edges: what the kernels integrate over.

Trees that share a butt and a cut height share an outline, which is only turned to each lay.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import fields
from functools import cached_property

import numpy as np

from ..base.edges import Edges, edges_of
from ..base.frames import squares_turned_on, turned_on
from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.polygon import Array
from ..base.rows import Index, Mask
from ..base.strips import Integrals, strip
from ..base.thickness import Lines, even_lines
from .section import Section, section_at
from .tree import Tree

COLUMNS = ("front_m", "back_m", "left_m", "right_m", "diameter_m", "rotten", "rot_back_m", "rot_front_m", "shell_ratio")
"""What is one value a section."""


@dataclass(frozen=True, slots=True)
class Place:
    """Where one section is taken: of which tree, at which height, turned to which lay, on which taper."""

    tree: Tree
    height_m: float
    lay_deg: float
    exponent: float

    def section(self) -> Section:
        """It by itself. Raises InputError where bark, buttresses or decay do not fit."""
        return section_at(self.tree, self.height_m, self.lay_deg, self.exponent)


@dataclass(frozen=True, eq=False)
class Sections:
    """B sections in the tree's frame, origin at the pith; every column has shape (B,).

    Attributes:
        taken: each by itself, or where it is taken; see ``section``.
        edges, wood: the outline less its rot, and the wood alone, u to the left and v along the lay.
        front_m, back_m, left_m, right_m: outermost wood.
        diameter_m: mean diameter over bark.
        sound: integrals over the sound wood.
        rotten: whether there is any rot, and from where to where along the lay; not a number where there is none.
        shell_ratio: as of ``Section``; not a number where decay is unknown.
    """

    taken: tuple[Section | Place, ...]
    edges: Edges
    wood: Edges
    front_m: Array
    back_m: Array
    left_m: Array
    right_m: Array
    diameter_m: Array
    sound: Integrals
    rotten: Mask
    rot_back_m: Array
    rot_front_m: Array
    shell_ratio: Array

    def __len__(self) -> int:
        return len(self.taken)

    def section(self, at: int) -> Section:
        """One of them by itself."""
        one = self.taken[at]
        return one if isinstance(one, Section) else one.section()

    @property
    def depth_m(self) -> Array:
        """Depth of the wood along the lay: the D of ``%D``."""
        return self.front_m - self.back_m

    @property
    def width_m(self) -> Array:
        """Width of the wood across the lay."""
        return self.left_m - self.right_m

    @cached_property
    def lines(self) -> Lines:
        """Lines along the lay through the sound wood, for what has no exact strip: the thickness squared."""
        return even_lines(self.edges)

    def reach_m(self, turn_rad: Array) -> Array:
        """Radius of the wood from the pith; angles from straight behind, left positive, shape (B, s) as given."""
        u, v = np.sin(turn_rad)[:, :, None], -np.cos(turn_rad)[:, :, None]
        u0, v0, u1, v1 = (each[:, None] for each in (self.wood.u0, self.wood.v0, self.wood.u1, self.wood.v1))
        aside0, aside1 = u * v0 - v * u0, u * v1 - v * u1
        hit = ((aside0 <= 0) != (aside1 <= 0)) & (u * (u0 + u1) + v * (v0 + v1) > 0)
        du, dv = u1 - u0, v1 - v0
        radius = (u0 * dv - v0 * du) / np.where(hit, u * dv - v * du, 1.0)
        found: Array = np.where(hit, radius, 0.0).max(axis=2)
        return found


def sections_of(places: Sequence[Place]) -> Sections:
    """Take them all. Raises InputError where one of them does not fit."""
    if len(places) == 1:
        return alone_in(places[0].section())
    # Trees that differ only in crown or lean have one butt.
    butts = {id(place.tree): (place.tree.trunk, place.tree.lobes, place.tree.decay) for place in places}
    numbers: dict[tuple[object, ...], int] = {}
    own = {tree: numbers.setdefault(butt, len(numbers)) for tree, butt in butts.items()}
    shared: dict[tuple[object, ...], list[int]] = {}
    for at, place in enumerate(places):
        outline = own[id(place.tree)], place.tree.height_m, place.height_m, place.exponent
        shared.setdefault(outline, []).append(at)
    groups = [_turned([places[at] for at in group]) for group in shared.values()]
    if len(groups) == 1:
        return groups[0]
    order = np.argsort(np.array([at for group in shared.values() for at in group]))
    return _stacked(groups, order, tuple(places))


def along_lays_m(place: Place, lays_deg: Array) -> tuple[Array, Array]:
    """(front, back) outermost wood of one butt along several lays, shapes as given; see ``Sections``."""
    wood = place.section().wood
    forward, _ = turned_on(wood[None, :, 0], wood[None, :, 1], np.radians(lays_deg - place.lay_deg)[:, None])
    return forward.max(axis=1), forward.min(axis=1)


@kept("section at the cut", 16)
def alone_in(section: Section) -> Sections:
    """One section, kept while nothing but the cut in it, or the tree above it, changes."""
    return _outlined(section, np.zeros(1), (section,))


def _turned(places: list[Place]) -> Sections:
    """Sections of one outline: as it stands on the first one's lay, turned on to the others'."""
    turn_deg = np.array([place.lay_deg - places[0].lay_deg for place in places])
    return _outlined(places[0].section(), turn_deg, tuple(places))


def _outlined(base: Section, turn_deg: Array, taken: tuple[Section | Place, ...]) -> Sections:
    turn = np.radians(turn_deg)

    def turned(points: Array) -> Array:
        return np.stack(turned_on(points[None, :, 0], points[None, :, 1], turn[:, None]), axis=-1)

    wood, rot = turned(base.wood), turned(base.rot)
    outline, alone = edges_of(wood, rot), edges_of(wood, rot[:, :0])
    one = edges_of(base.wood[None], base.rot[None])
    ends = np.array([base.back_m]), np.array([base.front_m])
    many = len(taken)
    return Sections(
        taken=taken,
        edges=outline,
        wood=alone,
        front_m=wood[:, :, 0].max(axis=1),
        back_m=wood[:, :, 0].min(axis=1),
        left_m=wood[:, :, 1].max(axis=1),
        right_m=wood[:, :, 1].min(axis=1),
        diameter_m=np.full(many, base.diameter_m),
        sound=_turned_integrals(strip(one, *ends, Integrals), turn),
        rotten=np.full(many, len(base.rot) > 0),
        rot_back_m=rot[:, :, 0].min(axis=1, initial=np.inf) if len(base.rot) else np.full(many, np.nan),
        rot_front_m=rot[:, :, 0].max(axis=1, initial=-np.inf) if len(base.rot) else np.full(many, np.nan),
        shell_ratio=np.full(many, math.nan if base.shell_ratio is None else base.shell_ratio),
    )


def _turned_integrals(of: Integrals, turn_rad: Array) -> Integrals:
    """Integrals of one region after a turn about the origin, for each turn."""
    v, u = turned_on(of.v, of.u, turn_rad)
    vv, uu, uv = squares_turned_on(of.vv, of.uu, of.uv, turn_rad)
    return Integrals(one=np.broadcast_to(of.one, turn_rad.shape), v=v, vv=vv, u=u, uu=uu, uv=uv)


def _stacked(groups: list[Sections], order: Index, places: tuple[Place, ...]) -> Sections:
    """Groups one under another, in the order in which they were asked for."""

    def edges(name: str) -> Edges:
        return _padded([getattr(group, name) for group in groups]).rows(order)

    def column(name: str) -> Array:
        found: Array = np.concatenate([getattr(group, name) for group in groups])[order]
        return found

    sound = (np.concatenate([getattr(group.sound, item.name) for group in groups])[order] for item in fields(Integrals))
    plain = {name: column(name) for name in COLUMNS}
    return Sections(places, edges("edges"), edges("wood"), sound=Integrals(*sound), **plain)  # type: ignore[arg-type]


def _padded(many: list[Edges]) -> Edges:
    """Edges of several groups under one another; shorter outlines end in edges of no length."""
    most, count = max(each.u0.shape[1] for each in many), sum(len(each) for each in many)
    table = np.zeros((4, count, most))
    first = 0
    for each in many:
        rows = slice(first, first + len(each))
        for side, values in enumerate((each.u0, each.v0, each.u1, each.v1)):
            table[side, rows, : values.shape[1]] = values
        first += len(each)
    return Edges(*table)
