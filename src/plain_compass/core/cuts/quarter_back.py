"""Quarter cut: one half of the back cut first, the wedge set in it, then the other half."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .form import Bands, CutForm, CutStep, FAR_m, Fit, Kept
from .plain_back import ASIDE, CRACK, driving
from .shapes import GOOD, hinge_bands, rear_moved, with_back, within

MOST_m = 0.35


def _fits(result: Planned) -> Fit:
    kit, parts = result.case.kit, result.parts
    if parts.balance.moment_forward_Nm > 0 and not parts.wedging.wanted:
        return Fit("poor", "It leans the way it goes: nothing will shut on the bar.", "plain")
    if parts.section.depth_m > MOST_m:
        return Fit("poor", "A stem this large has room for a wedge behind the bar.", "plain")
    if parts.hinge_back_m - parts.section.back_m < kit.wedge_seat_m:
        return Fit(
            "refused", "There is no seat for a wedge behind the [hinge]: a rope, or pushed by hand if it is slight.", ""
        )
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
            "First half",
            phrase(
                f"Cut the {half} half of the back, {{step}} above the apex, to the [hinge]; set the "
                f"wedge in it and drive it snug.",
                step=(cut.back.step_m, "length"),
            ),
            ASIDE,
            "The other half still carries: the kerf must not shut.",
            CRACK,
            one,
            cut.back.step_m,
            wedge_after=True,
        ),
        CutStep(
            "second",
            "Other half",
            phrase(f"Cut the {cut.back.side} half to meet it, a hair lower, stopping at the [hinge]."),
            "On the side of this half, never straight behind.",
            "The wedge must carry: tap it as the cut goes in.",
            "The kerf shuts on the bar: drive the wedge before going on.",
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
    "quarter cut, wedge first",
    "Small stems with back lean, where the bar would be trapped.",
    _fits,
    with_back("quarter"),
    _steps,
    "The halves do not meet behind the [hinge]: a stump of wood is left that holds and then tears.",
    traits=BackTraits("quarter cut, wedge first", wedge_first=True, wedge_beside_bar=False),
    fields=("cut.back.side",),
)
