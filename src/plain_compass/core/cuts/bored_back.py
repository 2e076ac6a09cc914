"""Bored back cut with a strap: the hinge is made in peace, the strap is released last."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.cut import BackCut
from ..design.traits import BackTraits, Marker, Notch
from ..plan.case import Planned
from ..tree.section import Section
from .form import Bands, CutForm, CutStep, Fit
from .plain_back import CRACK, driving
from .shapes import GOOD, bored, hinge_bands, strap, with_back

BORE = "Aside; the lower half of the nose goes in first, never the upper."


def _fits(result: Planned) -> Fit:
    cut, kit, parts = result.case.cut, result.case.kit, result.parts
    room = parts.hinge_back_m - parts.section.back_m - cut.back.strap_m
    if parts.section.depth_m < 0.20 or room < 0.5 * kit.bar_width_m:
        return Fit("refused", "The stem is too small for the bar to be bored in between [hinge] and [strap].", "vees")
    if parts.balance.sits_back and parts.wedging.wanted and not cut.wedges:
        return Fit(
            "poor", "It leans back: without wedges beside the [strap] it sits on the bar when released.", "corner"
        )
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
            "Bore",
            phrase(
                "Bore {step} above the apex and open it towards the [hinge]: {left} left, {right} "
                "right; then back, leaving {strap}.",
                step=(cut.back.step_m, "length"),
                left=(cut.hinge.left_m, "length"),
                right=(cut.hinge.right_m, "length"),
                strap=(depth_m, "length"),
            ),
            BORE,
            "The colour of the dust: rot met now means stop and think. Both ends of the [hinge], from both sides.",
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
        return (*hinge_bands(result), (low, high, rear + share * (front - rear), 0.0, front, slope))

    wanted = result.parts.wedging.wanted
    release = CutStep(
        "release",
        "Release",
        phrase("Look up, check the way out, set the wedges if wanted; release the [strap] from behind and go."),
        "To the side of the [strap], arms out, the way out behind you.",
        "The top, then the way out; nobody else in the zone.",
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


FORM = CutForm(
    "bored",
    "back",
    "bored, [strap] released last",
    "Forward lean, heavy or splitting trees, time to get away; the default for forward lean.",
    _fits,
    with_back("bored", strap_m=0.12),
    _steps,
    "Bored at an angle: the nose comes out through the far corner of the [hinge].",
    traits=BackTraits(
        "bored, [strap] released last", held=True, strapped=True, keeps_back=True, bored=True, marks=strap_marks
    ),
    usual=True,
)
