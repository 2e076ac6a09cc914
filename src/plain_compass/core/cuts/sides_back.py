"""Two-sided back cut: the bar is shorter than the tree; the second side a hair lower."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .form import Bands, CutForm, CutStep, Fit
from .moving import driving
from .plain_back import ASIDE, CRACK
from .quarter_back import half_by_half
from .shapes import GOOD, with_back


def _fits(result: Planned) -> Fit:
    reach, parts = result.case.kit.bar_m - result.case.tree.trunk.bark_m, result.parts
    if parts.section.width_m <= reach:
        return Fit("poor", phrase("cut.back.sides.fits.bar_reaches_across"), "plain")
    if parts.section.width_m > 2 * reach:
        return Fit("refused", phrase("cut.back.sides.fits.even_sides_bar"), "bored", "bar.reach")
    if parts.splitting.split_index_plain > 1.0:
        return Fit("refused", phrase("cut.back.sides.fits.cut_behind_split"), "bored", "split.index")
    return GOOD


def _steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    cut, (one, other) = result.case.cut, half_by_half(result, before)
    side = "right" if cut.back.side == "left" else "left"

    step = cut.back.step_m
    return (
        CutStep(
            "first",
            "cut.back.sides.first.title",
            phrase("cut.back.sides.first.do", side=phrase(f"side.{side}"), step=step),
            ASIDE,
            "cut.back.sides.first.look",
            CRACK,
            one,
            cut.back.step_m,
            opens_back=True,
            wedge_after=True,
        ),
        CutStep(
            "second",
            "cut.back.sides.second.title",
            phrase("cut.back.sides.second.do", side=phrase(f"side.{cut.back.side}")),
            phrase("cut.back.sides.second.stand", side=phrase(f"side.{cut.back.side}")),
            "cut.back.sides.second.look",
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
    _fits,
    with_back("sides"),
    _steps,
    traits=BackTraits("from two sides", from_behind=True),
    fields=("cut.back.side", "cut.back.shaved"),
    usual=True,
    trouble=1,
)
