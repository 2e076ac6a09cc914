"""The step that every face shares: the notch is taken out from the front to the apex."""

from __future__ import annotations

from collections.abc import Callable

from ..base.phrase import Phrase, phrase
from ..plan.case import Planned
from .form import Bands, CutStep
from .shapes import whole

LOOK = "Look down the first cut to meet it; then along the whole apex for a cut that ran on."
STOP = "The two cuts do not meet, or one has run past the apex: clean it before the [back cut]."
BESIDE = "Beside the stem, never under side weight or dead wood."


def face_steps(words: Callable[[Planned], Phrase]) -> Callable[[Planned, Bands], tuple[CutStep, ...]]:
    """The steps of a face whose cutting is told by ``words``."""

    def steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
        section, apex = result.parts.section, result.parts.face.hinge_front_m

        def kept(share: float) -> Bands:
            front = section.front_m + share * (apex - section.front_m)
            return tuple((*band[:4], front, 0.0) for band in whole(result))

        return (CutStep("face", "[Face]", words(result), BESIDE, LOOK, STOP, kept),)

    return steps


def told(text: str) -> Callable[[Planned], Phrase]:
    """Words for a face: ``{depth}``, ``{high}``, ``{roof}`` and ``{floor}`` are filled in."""

    def words(result: Planned) -> Phrase:
        cut = result.case.cut
        roof, floor = cut.face.angles_deg
        return phrase(
            text,
            depth=(cut.face.depth_m, "length"),
            high=(cut.height_m, "length"),
            roof=(roof, "angle"),
            floor=(floor, "angle"),
            block=(cut.face.block_m, "length"),
            nip=(cut.hinge.nip_m, "length"),
            left=(cut.face.snipe_left_m, "length"),
            right=(cut.face.snipe_right_m, "length"),
        )

    return words
