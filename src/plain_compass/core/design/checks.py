"""Checks between fields: each refusal names the field and says what would be accepted."""

from __future__ import annotations

from typing import NamedTuple, TypeAlias

import numpy as np

from ..base.errors import InputError
from ..base.frames import full_turn_deg
from ..base.kept import kept
from ..base.quantity import Kind, check_ranges
from ..site.ground import check_spots
from ..site.rigging import Rope
from ..site.site import Obstacle, Site
from ..tree.section import Section
from ..tree.tree import Tree
from .cut import Cut
from .kit import Kit

LEAST_HINGE_m = 0.002
"""A hinge thinner than a saw's own wobble is none."""
Corner: TypeAlias = tuple[float, float]
MOST_POINTS = 200
"""Corners of one line or area."""
TOP_SHARE = 0.9
"""Share of the height past which no cut is designed."""
LEAST_BACK_M = 0.01
"""Wood that must be left behind the hinge for there to be a back cut at all."""


@kept("ranges of the tree", 256)
def check_tree(tree: Tree) -> None:
    """Raise InputError unless every field of the tree is in range and the fields agree with each other."""
    check_ranges(tree, "tree")
    if not tree.crown.readings:
        raise InputError("tree.crown.readings", "empty", reason="at least one crown edge is wanted")
    bearings = [full_turn_deg(reading.bearing_deg) for reading in tree.crown.readings]
    if len(set(bearings)) < len(bearings):
        twice = next(b for b in bearings if bearings.count(b) > 1)
        raise InputError("tree.crown.readings", twice, kind=Kind.BEARING, reason="two crown edges lie on one bearing")
    if tree.crown.base_m >= tree.height_m:
        raise InputError(
            "tree.crown.base_m",
            tree.crown.base_m,
            kind=Kind.SPAN,
            low=0.0,
            high=tree.height_m - 0.1,
            reason="the crown would begin above the top",
        )
    for name, at in (("at_m", tree.trunk.at_m), ("butt_at_m", tree.trunk.butt_at_m)):
        if at >= tree.height_m:
            raise InputError(
                f"tree.trunk.{name}",
                at,
                kind=Kind.SPAN,
                low=0.0,
                high=tree.height_m - 0.1,
                reason="the tape would be above the top",
            )
    if tree.fork.kind == "second":
        _check_fork(tree)
    for index, limb in enumerate(tree.limbs):
        if limb.height_m >= tree.height_m:
            raise InputError(
                f"tree.limbs.{index}.height_m",
                limb.height_m,
                kind=Kind.SPAN,
                low=0.5,
                high=tree.height_m - 0.1,
                reason="the limb would be above the top",
            )
    if tree.decay.kind == "shell" and not tree.decay.shell:
        raise InputError("tree.decay.shell", "empty", reason="a shell wants at least one probed bearing")


def _check_fork(tree: Tree) -> None:
    fork = tree.fork
    if fork.height_m >= tree.height_m - 0.5:
        raise InputError(
            "tree.fork.height_m",
            fork.height_m,
            kind=Kind.SPAN,
            low=0.0,
            high=tree.height_m - 0.6,
            reason="the stems would part above the top",
        )
    if fork.top_m <= fork.height_m + 0.5:
        raise InputError(
            "tree.fork.top_m",
            fork.top_m,
            kind=Kind.SPAN,
            low=fork.height_m + 0.6,
            high=120.0,
            reason="the second stem would end below its fork",
        )


@kept("ranges of site and kit", 16)
def _check_around(site: Site, kit: Kit) -> None:
    check_ranges(site, "site")
    check_ranges(kit, "kit")
    for index, obstacle in enumerate(site.obstacles):
        check_obstacle(obstacle, f"site.obstacles.{index}.points")
    check_spots(site)


def _check_rope(rope: Rope, tree: Tree) -> None:
    check_ranges(rope, "rope")
    if rope.use == "set" and rope.attached_m >= tree.height_m:
        raise InputError(
            "rope.attached_m",
            rope.attached_m,
            kind=Kind.SPAN,
            low=0.5,
            high=tree.height_m - 0.5,
            reason="the rope would be set above the top",
        )


def check_obstacle(obstacle: Obstacle, path: str) -> None:
    """A spot is one point, a line at least two, an area at least three that do not cross over."""
    least, most = {"spot": (1, 1), "line": (2, MOST_POINTS), "area": (3, MOST_POINTS)}[obstacle.shape]
    count = len(obstacle.points)
    if not least <= count <= most:
        raise InputError(
            path, count, kind=Kind.COUNT, low=least, high=most, reason=f"so many points make no {obstacle.shape}"
        )
    if obstacle.shape == "area" and crosses_itself(tuple((p.east_m, p.north_m) for p in obstacle.points)):
        raise InputError(path, count, kind=Kind.COUNT, low=3, high=most, reason="the area's border crosses itself")
    if obstacle.kind in ("tree", "save") and obstacle.base_m > obstacle.height_m:
        raise InputError(
            path.replace("points", "base_m"), obstacle.base_m, kind=Kind.SPAN, low=0.0, high=obstacle.height_m
        )


@kept("ranges of site and kit", 4096)
def crosses_itself(corners: tuple[Corner, ...]) -> bool:
    """Whether two sides of a closed outline cross each other; sides that only touch do not.

    Args:
        corners: (east, north) of each corner in order, the first not repeated.
    """
    begin = np.array(corners)
    along = np.roll(begin, -1, axis=0) - begin
    # turn[i, j]: on which side of side i's line corner j lies; exactly 0 for the side's own corners.
    away = begin[None, :, :] - begin[:, None, :]
    turn = along[:, None, 0] * away[:, :, 1] - along[:, None, 1] * away[:, :, 0]
    apart = turn * np.roll(turn, -1, axis=1) < 0
    np.fill_diagonal(apart, False)
    return bool((apart & apart.T).any())


def check_case(tree: Tree, site: Site, cut: Cut, kit: Kit, rope: Rope) -> None:
    """Raise InputError unless every field is in range and the fields agree with each other."""
    check_tree(tree)
    _check_around(site, kit)
    check_ranges(cut, "cut")
    _check_rope(rope, tree)
    if cut.height_m > TOP_SHARE * tree.height_m:
        raise InputError(
            "cut.height_m",
            cut.height_m,
            kind=Kind.LENGTH,
            low=0.02,
            high=TOP_SHARE * tree.height_m,
            reason="nothing worth cutting stands above it",
        )


class Room(NamedTuple):
    """The wood along the lay that a cut must fit into: its front from the pith, and its depth."""

    front_m: float
    depth_m: float


def check_cut_fits(section: Section | Room, cut: Cut) -> None:
    """Raise InputError unless face, hinge and strap fit into the section one behind the other."""
    front, depth = section.front_m, section.depth_m
    if cut.face.depth_m >= front:
        raise InputError(
            "cut.face.depth_m",
            cut.face.depth_m,
            kind=Kind.LENGTH,
            low=0.005,
            high=front - 0.001,
            reason="the [face] would reach past the pith",
        )
    room = depth - cut.face.depth_m
    if cut.face.overcut_m > 0.3 * room:
        raise InputError(
            "cut.face.overcut_m",
            cut.face.overcut_m,
            kind=Kind.LENGTH,
            low=0.0,
            high=0.3 * room,
            reason="the [overcut] would run through the [hinge]",
        )
    strap = cut.back.strap_m if cut.back.strapped else 0.0
    room -= cut.face.overcut_m + LEAST_BACK_M
    if strap > 0.6 * room:
        raise InputError(
            "cut.back.strap_m",
            strap,
            kind=Kind.LENGTH,
            low=0.005,
            high=0.6 * room,
            reason="the [strap] would meet the [hinge]",
        )
    room -= strap
    for name in ("left_m", "right_m"):
        thickness = getattr(cut.hinge, name)
        if thickness > room:
            raise InputError(
                f"cut.hinge.{name}",
                thickness,
                kind=Kind.LENGTH,
                low=0.0,
                high=room,
                reason="the [hinge] would reach the back of the stem",
            )
    thickest = max(cut.hinge.left_m, cut.hinge.right_m)
    if thickest < LEAST_HINGE_m:
        raise InputError(
            "cut.hinge.left_m", thickest, kind=Kind.LENGTH, low=0.005, high=room, reason="there would be no [hinge]"
        )
