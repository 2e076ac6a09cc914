"""Two-sided back cut: the bar is shorter than the tree; the second side a hair lower."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .form import Bands, CutForm, CutStep, Fit
from .plain_back import ASIDE, CRACK, driving
from .quarter_back import half_by_half
from .shapes import GOOD, with_back


def _fits(result: Planned) -> Fit:
    reach, parts = result.case.kit.bar_m - result.case.tree.trunk.bark_m, result.parts
    if parts.section.width_m <= reach:
        return Fit("poor", "The bar reaches across from one side.", "plain")
    if parts.section.width_m > 2 * reach:
        return Fit("refused", "Even from two sides the bar leaves wood in the middle.", "bored")
    if parts.splitting.split_index_plain > 1.0:
        return Fit("refused", "Cut from behind it would split up the stem.", "bored")
    return GOOD


def _steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    cut, (one, other) = result.case.cut, half_by_half(result, before)
    side = "right" if cut.back.side == "left" else "left"

    step = (cut.back.step_m, "length")
    return (
        CutStep(
            "first",
            "First side",
            phrase(
                f"From the {side}, {{step}} above the apex, past the middle and to the [hinge]; set a wedge.", step=step
            ),
            ASIDE,
            "How deep the nose is: mark it on the bar.",
            CRACK,
            one,
            cut.back.step_m,
            opens_back=True,
            wedge_after=True,
        ),
        CutStep(
            "second",
            "Second side",
            phrase(
                f"Step over to the {cut.back.side}; from there a hair lower, so that the saw stays "
                f"with the stump, to the [hinge]."
            ),
            f"On the {cut.back.side}; step over behind the stump only while the first side still stands wedged.",
            "No blind corner in the middle: look along the kerf.",
            CRACK,
            other,
            cut.back.step_m,
            opens_back=not cut.wedges,
            wedge_after=True,
            releases=not result.parts.wedging.wanted,
        ),
        *driving(result),
    )


FORM = CutForm(
    "sides",
    "back",
    "from two sides",
    "A bar shorter than the tree.",
    _fits,
    with_back("sides"),
    _steps,
    "The two sides do not meet: a blind corner in the middle holds, then tears out.",
    traits=BackTraits("from two sides", from_behind=True),
    fields=("cut.back.side", "cut.back.shaved"),
    usual=True,
)
