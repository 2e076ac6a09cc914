"""Plain back cut, stepped or level: from behind to the hinge, with wedges set on the way."""

from __future__ import annotations

from ..base.phrase import Phrase, phrase
from ..design.traits import BackTraits
from ..mechanics.splitting import EARLY_MOST
from ..plan.case import Planned
from .form import Bands, CutForm, CutStep, Fit
from .moving import driving, wedging_lines
from .shapes import GOOD, hinge_bands, rear_moved, with_back

ASIDE = "step.aside"
CRACK = "step.crack"


def _fits(result: Planned) -> Fit:
    parts = result.parts
    if parts.splitting.split_index_plain > 1.0:
        if parts.splitting.split_index_bored > 1.0:
            return Fit("poor", phrase("cut.back.plain.fits.thickness_splits"))
        return Fit("refused", phrase("cut.back.plain.fits.cut_behind_split"), "bored", "split.index")
    if (parts.splitting.moves_at_m or 0.0) > EARLY_MOST * parts.hinge.thickness_m:
        return Fit("refused", phrase("cut.back.plain.fits.goes_early"), "bored", "split.early")
    if parts.balance.sits_back:
        return Fit("refused", phrase("cut.back.plain.fits.tree_sit_back"), "quarter", "balance.sits_back")
    if parts.wedging.wanted and not parts.wedging.first_fits:
        return Fit("poor", phrase("cut.back.plain.fits.wedge_fits_behind"), "quarter")
    if parts.splitting.split_index_plain > 0.5:
        return Fit("poor", phrase("cut.back.plain.fits.splitting_check_clear"), "bored")
    return GOOD


def wedge_share(result: Planned) -> float:
    """Share of the back cut after which a wedge fits behind the bar."""
    kit, parts = result.case.kit, result.parts
    needs = kit.wedge_seat_m + kit.bar_width_m
    kerf = parts.hinge_back_m - parts.section.back_m
    return min(max(needs / max(kerf, 1e-6), 0.05), 0.9)


def steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    """In to where a wedge fits, set it; on to the hinge; drive and wait in turn."""
    part, cut, wedging = wedge_share(result), result.case.cut, result.parts.wedging
    step = cut.back.step_m

    def opened(share: float) -> Bands:
        return rear_moved(before, result, share * part) if share * part < 1 else hinge_bands(result)

    def closed(share: float) -> Bands:
        whole = part + share * (1 - part)
        return hinge_bands(result) if share >= 1 else rear_moved(before, result, whole)

    depth = (result.parts.hinge_back_m - result.parts.section.back_m) * part
    found = [
        CutStep(
            "open",
            "cut.back.plain.open.title",
            phrase("cut.back.plain.open.do", step=step, depth=depth),
            ASIDE,
            "cut.back.plain.open.look",
            "cut.back.plain.open.stop_if",
            opened,
            cut.back.step_m,
            opens_back=True,
            wedge_after=True,
        ),
        CutStep(
            "hinge",
            "cut.back.plain.hinge.title",
            phrase("cut.back.plain.hinge.do", left=cut.hinge.left_m, right=cut.hinge.right_m),
            ASIDE,
            "cut.back.plain.hinge.look",
            CRACK,
            closed,
            cut.back.step_m,
            opens_back=not cut.wedges,
            wedge_after=True,
            releases=not wedging.wanted,
        ),
    ]
    return (*found, *driving(result))


def _on_card(result: Planned) -> tuple[Phrase, ...]:
    kit, cut = result.case.kit, result.case.cut
    needs = kit.wedge_seat_m + kit.bar_width_m
    first = phrase("order.back_cut", step=cut.back.step_m)
    if cut.wedges:
        first = phrase("order.back_cut_wedged", step=cut.back.step_m, needs=needs)
    stop = phrase("order.cut_stop_hinge", left=cut.hinge.left_m, right=cut.hinge.right_m)
    return (first, stop, *wedging_lines(result))


FORM = CutForm(
    "plain",
    "back",
    _fits,
    with_back("plain"),
    steps,
    traits=BackTraits("plain, from behind", from_behind=True),
    usual=True,
    on_card=_on_card,
)
