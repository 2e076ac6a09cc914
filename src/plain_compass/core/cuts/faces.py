"""The step that every face shares: the notch is taken out from the front to the apex."""

from __future__ import annotations

from collections.abc import Callable

from ..base.phrase import Phrase, phrase
from ..plan.case import Planned
from .form import Band, Bands, CutStep
from .shapes import whole

LOOK = "step.look"
STOP = "step.stop"
BESIDE = "step.beside"


def face_steps(words: Callable[[Planned], Phrase]) -> Callable[[Planned, Bands], tuple[CutStep, ...]]:
    """The steps of a face whose cutting is told by ``words``."""

    def steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
        section, apex = result.parts.section, result.parts.face.hinge_front_m

        def kept(share: float) -> Bands:
            front = section.front_m + share * (apex - section.front_m)
            return tuple(Band(*band[:4], front, 0.0) for band in whole(result))

        return (CutStep("face", "cut.face.face.title", words(result), BESIDE, LOOK, STOP, kept),)

    return steps


def cutting_words(text: str) -> Callable[[Planned], Phrase]:
    """Words for a face: ``{depth}``, ``{high}``, ``{roof}`` and ``{floor}`` are filled in."""

    def words(result: Planned) -> Phrase:
        cut = result.case.cut
        roof, floor = cut.face.angles_deg
        return phrase(
            text,
            depth=cut.face.depth_m,
            high=cut.height_m,
            roof=roof,
            floor=floor,
            block=cut.face.block_m,
            nip=cut.hinge.nip_m,
            left=cut.face.snipe_left_m,
            right=cut.face.snipe_right_m,
        )

    return words


def two_cuts_on_card(result: Planned) -> tuple[Phrase, ...]:
    """The two face cuts, in the practice's order."""
    cut = result.case.cut
    roof_deg, floor_deg = cut.face.angles_deg
    depth, high = cut.face.depth_m, cut.height_m
    roof = phrase("order.face_roof_down", slope=roof_deg, high=high, depth=depth)
    if roof_deg == 0:
        roof = phrase("order.face_roof_level", high=high, depth=depth)
    floor = phrase("order.face_floor_meet", slope=floor_deg)
    if floor_deg == 0:
        floor = phrase("order.face_floor_level")
    return (floor, roof) if result.case.practice.order == "floor first" else (roof, floor)
