"""Two V cuts from the sides, for leaners too small to bore."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.cut import BackCut
from ..design.traits import BackTraits, KeptPiece, Marker, Notch, Standing
from ..plan.case import Planned
from ..tree.section import Section
from .form import Band, Bands, CutForm, CutStep, FAR_m, Fit
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, hinge_line, with_back

MOST_m = 0.25
"""Thicker stems can be bored, which leaves a better hinge."""


def _fits(result: Planned) -> Fit:
    if result.parts.section.depth_m > MOST_m:
        return Fit("refused", phrase("cut.back.vees.fits.stems_too_small"), "bored")
    if result.parts.balance.moment_forward_Nm <= 0:
        return Fit("refused", phrase("cut.back.vees.fits.leaners_must_wedged"), "quarter")
    return GOOD


def _rib(result: Planned) -> Band:
    half = result.case.cut.back.strap_m / 2
    rear, slope = hinge_line(result)
    return Band(-half, half, result.parts.section.back_m - 0.01, 0.0, rear, slope)


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    rib, hinge, cut = _rib(result), hinge_bands(result), result.case.cut
    back = rib.rear_m

    def side(share: float, sign: int) -> Band:
        """What is left of one side: it is cut from outside towards the rib."""
        edge, half = rib.to_m, FAR_m if share <= 0 else _half_width(result) * (1 - share) + rib.to_m * share
        low, high = (edge, half) if sign > 0 else (-half, -edge)
        return Band(low, high, back, 0.0, rib.front_m, rib.front_slope)

    def right(share: float) -> Bands:
        return (*hinge, rib, side(0.0, 1)) if share >= 1 else (*hinge, rib, side(share, -1), side(0.0, 1))

    def left(share: float) -> Bands:
        return (*hinge, rib) if share >= 1 else (*hinge, rib, side(share, 1))

    def release(share: float) -> Bands:
        if share >= 1:
            return hinge
        return (
            *hinge,
            Band(rib.from_m, rib.to_m, back + share * (rib.front_m - back), 0.0, rib.front_m, rib.front_slope),
        )

    words = phrase("cut.back.vees.side_v_towards", step=cut.back.step_m)
    return (
        CutStep(
            "right",
            "cut.back.vees.right.title",
            words,
            "cut.back.vees.right.stand",
            "cut.back.vees.right.look",
            CRACK,
            right,
            cut.back.step_m,
        ),
        CutStep(
            "left",
            "cut.back.vees.left.title",
            words,
            "cut.back.vees.left.stand",
            "cut.back.vees.left.look",
            CRACK,
            left,
            cut.back.step_m,
        ),
        CutStep(
            "release",
            "cut.back.vees.release.title",
            phrase("cut.back.vees.release.do", rib=cut.back.strap_m),
            "cut.back.vees.release.stand",
            "cut.back.vees.release.look",
            CRACK,
            release,
            cut.back.step_m,
            releases=True,
        ),
    )


def _half_width(result: Planned) -> float:
    section = result.parts.section
    return max(section.left_m, -section.right_m) + 0.01


def _kept_rib(section: Section, _: Notch, back: BackCut, hinge: Standing) -> tuple[KeptPiece, ...]:
    """The rib between the two V cuts, half way from the back to the hinge."""
    return ((-back.strap_m / 2, back.strap_m / 2, (section.back_m + hinge.forward_m) / 2),)


def _marks(marker: Marker, _section: Section, _notch: Notch, back: BackCut, _rear_m: float) -> None:
    marker.behind("rib_edge", back.strap_m / 2)


FORM = CutForm(
    "vees",
    "back",
    _fits,
    with_back("vees", strap_m=0.3),
    _steps,
    traits=BackTraits("two V cuts from the sides", held=True, kept=_kept_rib, marks=_marks),
    fields=("cut.back.strap_m",),
    labels={"cut.back.strap_m": "cut.back.vees.rib_label"},
    trouble=2,
)
