"""Split-level corner cut: a bored upper cut keeps one corner at the back, an undercut lets it go."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.cut import BackCut
from ..design.traits import BackTraits, KeptPiece, Marker, Notch, Standing
from ..plan.case import Planned
from ..tree.section import Section
from .bored_back import BORE
from .form import Band, Bands, CutForm, CutStep, FAR_m, Fit
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, hinge_line, with_back


def _fits(result: Planned) -> Fit:
    if result.parts.section.depth_m < 0.25:
        return Fit("refused", phrase("cut.back.corner.fits.stem_too_small"), "quarter")
    if result.parts.balance.moment_forward_Nm > 0:
        return Fit("poor", phrase("cut.back.corner.fits.back_weight_levered"), "bored")
    return GOOD


def _corner(result: Planned) -> Band:
    """The corner kept: across from its side inwards twice the strap's depth, along to the strap's depth."""
    section, back = result.parts.section, result.case.cut.back
    half = max(section.left_m, -section.right_m) + 0.01
    inner = half - 2 * back.strap_m
    low, high = (inner, FAR_m) if back.side == "left" else (-FAR_m, -inner)
    return Band(low, high, section.back_m - 0.01, 0.0, section.back_m + back.kept_m, 0.0)


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    cut, corner, hinge = result.case.cut, _corner(result), hinge_bands(result)
    rear, slope = hinge_line(result)
    back = result.parts.section.back_m - 0.01
    inner = corner.from_m if cut.back.side == "left" else corner.to_m

    def kept(share: float) -> Bands:
        """Bored along the hinge, then out through the open side; the corner's side stays up to its own line."""
        at = rear + share * (back - rear)
        open_side = (-FAR_m, inner) if cut.back.side == "left" else (inner, FAR_m)
        corner_front = rear + share * (corner.front_m - rear)
        own = Band(*corner[:4], corner_front, slope * (1 - share))
        return (*hinge, own) if share >= 1 else (*hinge, own, Band(*open_side, back, 0.0, at, slope * (1 - share)))

    def released(share: float) -> Bands:
        if share >= 1:
            return hinge
        return (
            *hinge,
            Band(
                corner.from_m,
                corner.to_m,
                corner.rear_m + share * (corner.front_m - corner.rear_m),
                0.0,
                corner.front_m,
                0.0,
            ),
        )

    return (
        CutStep(
            "upper",
            "cut.back.corner.upper.title",
            phrase(
                "cut.back.corner.bore.do",
                side=phrase(f"side.{cut.back.side}"),
                step=cut.back.step_m,
                corner=cut.back.kept_m,
            ),
            BORE,
            "cut.back.corner.upper.look",
            CRACK,
            kept,
            cut.back.step_m,
            wedge_after=True,
        ),
        CutStep(
            "under",
            "cut.back.corner.under.title",
            phrase("cut.back.corner.under.do", lower=cut.back.lower_m),
            phrase(
                "cut.back.corner.undercut.stand", side=phrase("side.right" if cut.back.side == "left" else "side.left")
            ),
            "cut.back.corner.under.look",
            "cut.back.corner.under.stop_if",
            released,
            cut.back.step_m - cut.back.lower_m,
            releases=True,
        ),
    )


def _kept(section: Section, _: Notch, back: BackCut, _hinge: Standing) -> tuple[KeptPiece, ...]:
    """The corner on its side, twice the strap's width either way."""
    low, high = section.right_m, section.left_m
    width, edge = 2 * back.strap_m, section.back_m + back.kept_m
    return ((high - width, high, edge),) if back.side == "left" else ((low, low + width, edge),)


def _inner_edge_m(section: Section, back: BackCut) -> float:
    return section.width_m / 2 - 2 * back.strap_m


def _marks(marker: Marker, section: Section, _notch: Notch, back: BackCut, _rear_m: float) -> None:
    marker.line("corner_edge", section.back_m + 2 * back.strap_m, back.side)


FORM = CutForm(
    "corner",
    "back",
    _fits,
    with_back("corner", strap_m=0.12),
    _steps,
    traits=BackTraits(
        "split-level, one corner kept",
        held=True,
        kept_straps=2,
        keeps_back=True,
        inner_edge_m=_inner_edge_m,
        kept=_kept,
        bored=True,
        wedge_beside_bar=False,
        marks=_marks,
    ),
    fields=("cut.back.side", "cut.back.strap_m", "cut.back.lower_m"),
    labels={"cut.back.strap_m": "cut.back.corner.corner_half_label"},
    trouble=3,
)
