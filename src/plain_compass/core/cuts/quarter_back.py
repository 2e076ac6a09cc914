"""Quarter cut: one half of the back cut first, the wedge set in it, then the other half."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .form import Bands, CutForm, CutStep, FAR_m, Fit, Kept
from .moving import driving
from .plain_back import ASIDE, CRACK
from .shapes import GOOD, hinge_bands, rear_moved, with_back, within

MOST_m = 0.35
"""Thicker stems have room for a wedge behind the bar and need no quarter first."""


def _fits(result: Planned) -> Fit:
    kit, parts = result.case.kit, result.parts
    if parts.balance.moment_forward_Nm > 0 and not parts.wedging.wanted:
        return Fit("poor", phrase("cut.back.quarter.fits.leans_way_goes"), "plain")
    if parts.section.depth_m > MOST_m:
        return Fit("poor", phrase("cut.back.quarter.fits.stem_large_room"), "plain")
    if parts.hinge_back_m - parts.section.back_m < kit.wedge_seat_m:
        return Fit("refused", phrase("cut.back.quarter.fits.seat_wedge_behind"), "")
    return GOOD


def halves(result: Planned) -> tuple[tuple[float, float], tuple[float, float]]:
    """(first, last) stretch across the lay: the kept side is cut last."""
    left, right = (0.0, FAR_m), (-FAR_m, 0.0)
    return (right, left) if result.case.cut.back.side == "left" else (left, right)


def half_by_half(result: Planned, before: Bands) -> tuple[Kept, Kept]:
    """What holds while the first half of the back is cut, and while the other one is."""
    first, last = halves(result)
    hinge = hinge_bands(result)

    def one(share: float) -> Bands:
        done = within(hinge if share >= 1 else rear_moved(before, result, share), *first)
        return (*done, *within(before, *last))

    def other(share: float) -> Bands:
        done = within(hinge if share >= 1 else rear_moved(before, result, share), *last)
        return hinge if share >= 1 else (*within(hinge, *first), *done)

    return one, other


def _steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    cut, (one, other) = result.case.cut, half_by_half(result, before)
    half = "right" if cut.back.side == "left" else "left"

    return (
        CutStep(
            "first",
            "cut.back.quarter.first.title",
            phrase("cut.back.quarter.first.do", side=phrase(f"side.{half}"), step=cut.back.step_m),
            ASIDE,
            "cut.back.quarter.first.look",
            CRACK,
            one,
            cut.back.step_m,
            wedge_after=True,
        ),
        CutStep(
            "second",
            "cut.back.quarter.second.title",
            phrase("cut.back.quarter.other.do", side=phrase(f"side.{cut.back.side}")),
            "cut.back.quarter.second.stand",
            "cut.back.quarter.second.look",
            "cut.back.quarter.second.stop_if",
            other,
            cut.back.step_m,
            opens_back=not cut.wedges,
            wedge_after=True,
            releases=not result.parts.wedging.wanted,
        ),
        *driving(result),
    )


FORM = CutForm(
    "quarter",
    "back",
    _fits,
    with_back("quarter"),
    _steps,
    traits=BackTraits("quarter cut, wedge first", wedge_first=True, wedge_beside_bar=False),
    fields=("cut.back.side",),
    trouble=1,
)
