"""Many cuts as columns: what the kernels read of a design, one entry a case."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from ..base.polygon import Array
from ..base.rows import Mask
from .cut import Cut


@dataclass(frozen=True, slots=True, eq=False)
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

    def column(value: Callable[[Cut], float]) -> Array:
        return np.array([value(cut) for cut in cuts], dtype=np.float64)

    def mask(holds: Callable[[Cut], object]) -> Mask:
        return np.array([bool(holds(cut)) for cut in cuts])

    angles = np.array([cut.face.angles_deg for cut in cuts], dtype=np.float64)
    return Designs(
        cuts=tuple(cuts),
        height_m=column(lambda cut: cut.height_m),
        gun_deg=column(lambda cut: cut.gun_deg),
        depth_m=column(lambda cut: cut.face.depth_m),
        overcut_m=column(lambda cut: cut.face.overcut_m),
        roof_deg=angles[:, 0],
        floor_deg=angles[:, 1],
        block_m=column(lambda cut: cut.face.block_m if cut.face.traits.blocked_out else 0.0),
        left_m=column(lambda cut: cut.hinge.left_m),
        right_m=column(lambda cut: cut.hinge.right_m),
        middle_m=column(lambda cut: cut.hinge.middle_m),
        step_m=column(lambda cut: cut.back.step_m - cut.face.apart_m),
        apart_m=column(lambda cut: cut.face.apart_m),
        lengthened_m=column(lengthened_m),
        kept_m=column(lambda cut: cut.back.kept_m),
        is_cut=mask(lambda cut: cut.face.traits.is_cut),
        held=mask(lambda cut: cut.back.held),
        strapped=mask(lambda cut: cut.back.strapped),
        from_behind=mask(lambda cut: cut.back.traits.from_behind),
        shaped=mask(is_shaped),
    )


def lengthened_m(cut: Cut) -> float:
    """What a corner cut free adds to the bending fibres, taken over the whole hinge by halves (indicative)."""
    own = cut.hinge.traits.lengthened_m
    return own(cut.hinge) if own else 0.0


def is_shaped(cut: Cut) -> bool:
    """Whether the hinge is shortened, parted, or does not follow the face's own line."""
    hinge, back = cut.hinge.traits, cut.back.traits
    return bool(cut.hinge.nip_m > 0 or hinge.gap_m or hinge.shortened or back.front or back.gap_m)
