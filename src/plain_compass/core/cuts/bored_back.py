"""Bored back cut with a strap: the hinge is made in peace, the strap is released last."""

from __future__ import annotations

from ..base.phrase import Phrase, phrase
from ..design.cut import BackCut
from ..design.traits import BackTraits, Marker, Notch
from ..plan.case import Planned
from ..tree.section import Section
from .form import Band, Bands, CutForm, CutStep, Fit
from .moving import driving, wedging_lines
from .plain_back import CRACK
from .shapes import GOOD, bored, hinge_bands, strap, with_back

BORE = "step.bore"


def _fits(result: Planned) -> Fit:
    cut, kit, parts = result.case.cut, result.case.kit, result.parts
    room = parts.hinge_back_m - parts.section.back_m - cut.back.strap_m
    if parts.section.depth_m < 0.20 or room < 0.5 * kit.bar_width_m:
        return Fit("refused", phrase("cut.back.bored.fits.stem_too_small"), "vees")
    if parts.balance.sits_back and parts.wedging.wanted and not cut.wedges:
        return Fit("poor", phrase("cut.back.bored.fits.leans_back_without"), "corner")
    return GOOD


def bore_steps(result: Planned, depth_m: float) -> tuple[CutStep, ...]:
    """The bore, from the hinge back to what is left behind."""
    cut = result.case.cut
    edge = result.parts.section.back_m + depth_m

    def kept(share: float) -> Bands:
        return bored(result, hinge_bands(result), share, edge)

    return (
        CutStep(
            "bore",
            "cut.back.bored.bore.title",
            phrase(
                "cut.back.bored.bore.do",
                step=cut.back.step_m,
                left=cut.hinge.left_m,
                right=cut.hinge.right_m,
                strap=depth_m,
            ),
            BORE,
            "cut.back.bored.bore.look",
            CRACK,
            kept,
            cut.back.step_m,
            wedge_after=True,
        ),
    )


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    cut = result.case.cut

    def released(share: float) -> Bands:
        if share >= 1:
            return hinge_bands(result)
        low, high, rear, _, front, slope = strap(result, cut.back.strap_m)
        return (*hinge_bands(result), Band(low, high, rear + share * (front - rear), 0.0, front, slope))

    wanted = result.parts.wedging.wanted
    release = CutStep(
        "release",
        "cut.back.bored.release.title",
        phrase("cut.back.bored.release.do"),
        "cut.back.bored.release.stand",
        "cut.back.bored.release.look",
        CRACK,
        released,
        cut.back.step_m,
        opens_back=False,
        releases=not wanted,
    )
    return (*bore_steps(result, cut.back.strap_m), release, *driving(result))


def strap_marks(marker: Marker, section: Section, _: Notch, back: BackCut, rear_m: float) -> None:
    """One bore through the stem: it goes in and comes out beside the hinge and runs back to the strap."""
    strap_m = section.back_m + back.strap_m
    marker.line("bore", (rear_m + strap_m) / 2)
    marker.line("strap_edge", strap_m)


def _on_card(result: Planned) -> tuple[Phrase, ...]:
    cut = result.case.cut
    steps = (
        phrase("order.bore_above_apex", step=cut.back.step_m),
        phrase("order.open_bore_towards", left=cut.hinge.left_m, right=cut.hinge.right_m),
        phrase("order.cut_back_strap", strap=cut.back.strap_m),
    )
    if result.parts.wedging.wanted:
        return (*steps, phrase("order.set_wedges_snug"), *wedging_lines(result))
    return (*steps, phrase("order.release_strap_behind"))


FORM = CutForm(
    "bored",
    "back",
    _fits,
    with_back("bored", strap_m=0.12),
    _steps,
    traits=BackTraits(
        "bored, [strap] released last", held=True, strapped=True, keeps_back=True, bored=True, marks=strap_marks
    ),
    usual=True,
    on_card=_on_card,
    trouble=1,
)
