"""Many cuts as columns: what the kernels read of a design, one entry a case."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..base.frozen import dataclass
from ..base.polygon import Array
from ..base.rows import Mask
from .cut import Cut


@dataclass(frozen=True, eq=False)
class Designs:
    """The numbers of B cuts; every column has shape (B,).

    Attributes:
        cuts: the cuts themselves, for forms that have a shape of their own.
        roof_deg, floor_deg: as the form uses them: a level cut counts as zero.
        block_m: height blocked out at the apex; 0 where none is.
        step_m: of the back cut over the higher end of the face, where roof and floor end apart.
        apart_m: how far apart these end in height.
        lengthened_m: what a corner cut free adds to the bending fibres, over the whole hinge (indicative).
        kept_m: how far forward the wood that is kept at the back reaches.
        is_cut: whether there is a face at all.
        held, strapped: whether wood is left behind, and whether that is a strap right across.
        from_behind: whether the kerf is open behind from the start.
        shaped: whether the hinge is anything but one plain stretch along the face's line.
    """

    cuts: tuple[Cut, ...]
    height_m: Array
    gun_deg: Array
    depth_m: Array
    overcut_m: Array
    roof_deg: Array
    floor_deg: Array
    block_m: Array
    left_m: Array
    right_m: Array
    middle_m: Array
    step_m: Array
    apart_m: Array
    lengthened_m: Array
    kept_m: Array
    is_cut: Mask
    held: Mask
    strapped: Mask
    from_behind: Mask
    shaped: Mask


def designs_of(cuts: Sequence[Cut]) -> Designs:
    """The columns of some cuts."""
    numbers = np.array([_numbers(cut) for cut in cuts], dtype=np.float64).T
    flags = np.array([_flags(cut) for cut in cuts], dtype=bool).T
    return Designs(tuple(cuts), *np.ascontiguousarray(numbers), *np.ascontiguousarray(flags))


def _numbers(cut: Cut) -> tuple[float, ...]:
    """A row of the columns that are numbers, in their order."""
    face, hinge, back = cut.face, cut.hinge, cut.back
    return (
        cut.height_m,
        cut.gun_deg,
        face.depth_m,
        face.overcut_m,
        *face.angles_deg,
        face.block_m if face.traits.blocked_out else 0.0,
        hinge.left_m,
        hinge.right_m,
        hinge.middle_m,
        back.step_m - face.apart_m,
        face.apart_m,
        lengthened_m(cut),
        back.kept_m,
    )


def _flags(cut: Cut) -> tuple[bool, ...]:
    """A row of those that are yes or no, in their order."""
    back = cut.back
    return cut.face.traits.is_cut, back.held, back.strapped, back.traits.from_behind, is_shaped(cut)


def lengthened_m(cut: Cut) -> float:
    """What a corner cut free adds to the bending fibres, taken over the whole hinge by halves (indicative)."""
    own = cut.hinge.traits.lengthened_m
    return own(cut.hinge) if own else 0.0


def is_shaped(cut: Cut) -> bool:
    """Whether the hinge is shortened, parted, or does not follow the face's own line."""
    hinge, back = cut.hinge.traits, cut.back.traits
    return bool(cut.hinge.nip_m > 0 or hinge.gap_m or hinge.shortened or back.front or back.gap_m)
