"""The stump and its cut from above, (forward, left) in metres from the pith."""

from __future__ import annotations

import numpy as np

from ....core.assess import Assessment
from ....core.base.frozen import dataclass
from ....core.base.polygon import Array, across, ahead_of, behind, clip
from ....core.cuts.stages import kept_outlines, steps_of
from ....core.mechanics.hinge import ends_back_m, hinge_outline, rear_line

TAPER = 0.8
"""Width of a wedge at its tip over that at its head, as drawn."""


@dataclass(frozen=True, slots=True, eq=False)
class StumpShapes:
    """Outlines of shape (n, 2); None or empty where this design has no such part.

    Attributes:
        face: wood taken out in front, bark and all; slot: what an overcut takes behind the apex.
        notch: what a face there would take of the wood, cut or not.
        kerf, strap: behind the hinge, and what a strapped cut leaves there.
        held: what other held back cuts leave until they are let go.
        hinge: every piece of the hinge.
        hinge_back_m: (left, right) positions along the lay of the hinge's back at its two ends.
        ticks: chalk ticks across the bark where the tape marks lie, (outer, inner) each.
        wedges: as driven when the tree tips; wedge_middles: along the lay through each pair set side by side.
    """

    bark: Array
    wood: Array
    face: Array | None
    notch: Array
    slot: Array | None
    kerf: Array
    strap: Array | None
    held: tuple[Array, ...]
    hinge: tuple[Array, ...]
    hinge_back_m: tuple[float, float]
    ticks: tuple[tuple[Array, Array], ...]
    wedges: tuple[Array, ...]
    wedge_middles: tuple[Array | None, ...]


def stump_shapes(result: Assessment, *, every: int) -> StumpShapes:
    """Make them, the outlines with each so many points."""
    section, face, cut, hinge = result.parts.section, result.parts.face, result.case.cut, result.parts.hinge
    bark, wood = section.bark[::every], section.wood[::every]
    is_cut = cut.face.traits.is_cut
    is_slotted = is_cut and face.hinge_front_m < face.apex_forward_m
    slot = clip(ahead_of(bark, face.hinge_front_m), 1.0, 0.0, face.apex_forward_m) if is_slotted else None
    wedges, middles = _wedges(result)
    strip = hinge_outline(section, face, cut)
    return StumpShapes(
        bark=bark,
        wood=wood,
        face=ahead_of(bark, face.apex_forward_m) if is_cut else None,
        notch=ahead_of(wood, face.apex_forward_m),
        slot=slot,
        kerf=_kerf(result, bark),
        strap=behind(wood, section.back_m + cut.back.strap_m) if cut.back.strapped else None,
        held=_held(result),
        hinge=tuple(across(strip, low, high) for low, high in hinge.spans),
        hinge_back_m=ends_back_m(face, cut.hinge),
        ticks=_ticks(result),
        wedges=wedges,
        wedge_middles=middles,
    )


def _kerf(result: Assessment, bark: Array) -> Array:
    section, cut = result.parts.section, result.case.cut
    if cut.back.traits.without_face:
        return bark
    rear, rises = rear_line(section, result.parts.face, cut)
    kerf = clip(bark, 1.0, -rises, rear)
    return ahead_of(kerf, section.back_m + cut.back.strap_m) if cut.back.strapped else kerf


def _held(result: Assessment) -> tuple[Array, ...]:
    """A corner, a rib, posts: what the last step that lets nothing go leaves standing. A strap is drawn as such."""
    if not result.case.cut.back.held or result.case.cut.back.strapped:
        return ()
    waiting = [step for part, step in steps_of(result) if part == "back" and not step.releases]
    return kept_outlines(result.parts.section, waiting[-1].kept(1.0)) if waiting else ()


def _ticks(result: Assessment) -> tuple[tuple[Array, Array], ...]:
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    lines = [face.apex_forward_m, *ends_back_m(face, cut.hinge)]
    if cut.back.strapped:
        lines.append(section.back_m + cut.back.strap_m)
    found = []
    for line in lines:
        for left in (True, False):
            pick = (section.bark[:, 1] > 0) == left
            row = int(abs(section.bark[pick, 0] - line).argmin())
            found.append((section.bark[pick][row], section.wood[pick][row]))
    return tuple(found)


def _wedges(result: Assessment) -> tuple[tuple[Array, ...], tuple[Array | None, ...]]:
    kit, shapes, middles = result.case.kit, [], []
    for seat in result.parts.wedging.seats:
        tip = min(seat.edge_forward_m + max(seat.driven_m, kit.wedge_seat_m), seat.edge_forward_m + seat.room_m)
        tail = tip - kit.wedge_length_m
        half = kit.wedge_width_m / 2
        corners = [(-half, tail), (half, tail), (half * TAPER, tip), (-half * TAPER, tip)]
        shapes.append(np.array([[up, seat.edge_left_m - dx] for dx, up in corners]))
        along = np.array([[tail, seat.edge_left_m], [tip, seat.edge_left_m]])
        middles.append(along if seat.stacked == 2 else None)
    return tuple(shapes), tuple(middles)
