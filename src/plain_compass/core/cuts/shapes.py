"""Bands, fits and first designs that several forms share."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache

from ..base.phrase import Phrase, phrase
from ..design.cut import Cut
from ..mechanics.hinge import front_line, rear_line, rear_lines
from ..plan.case import Case, Planned
from ..tree.section import Section, section_at
from .form import Band, Bands, FAR_m, Fit

GOOD = Fit("fits", phrase("cut.fits"))


def whole(result: Planned) -> Bands:
    """The stem before anything is cut."""
    section = result.parts.section
    return (Band(-FAR_m, FAR_m, section.back_m - 0.01, 0.0, section.front_m + 0.01, 0.0),)


def hinge_line(result: Planned) -> tuple[float, float]:
    """(forward_m, slope) of the straight line behind the whole hinge: along its ends, back by what its middle keeps."""
    at, slope = rear_line(result.parts.section, result.parts.face, result.case.cut)
    return at - result.case.cut.hinge.middle_m, slope


@lru_cache(maxsize=8)
def hinge_bands(result: Planned) -> Bands:
    """The finished hinge, in as many pieces as it has; each in two where its middle was left thicker."""
    section, face, cut = result.parts.section, result.parts.face, result.case.cut
    front, skew = front_line(section, face, cut.back)
    rears = rear_lines(section, face, cut)
    cut_to: list[Bands] = [
        tuple(Band(low, high, *rear, front, skew) for low, high in result.parts.hinge.spans) for rear in rears
    ]
    if len(cut_to) == 1:
        return cut_to[0]
    middle = (face.end_left_m + face.end_right_m) / 2
    return (*within(cut_to[0], -FAR_m, middle), *within(cut_to[1], middle, FAR_m))


def within(bands: Bands, low: float, high: float) -> Bands:
    """The pieces of bands inside a stretch across the lay."""
    return tuple(
        Band(max(b.from_m, low), min(b.to_m, high), *b[2:]) for b in bands if min(b.to_m, high) > max(b.from_m, low)
    )


def rear_moved(bands: Bands, result: Planned, share: float) -> Bands:
    """Bands whose rear has come a share of the way from the back of the stem to the finished hinge."""
    rear, slope = hinge_line(result)
    back = result.parts.section.back_m - 0.01
    at = back + share * (rear - back)
    return tuple(Band(b.from_m, b.to_m, at, share * slope, b.front_m, b.front_slope) for b in bands)


def strap(result: Planned, depth_m: float, low: float = -FAR_m, high: float = FAR_m) -> Band:
    """Wood left at the back, so deep along the lay, over a stretch across it."""
    back = result.parts.section.back_m
    return Band(low, high, back - 0.01, 0.0, back + depth_m, 0.0)


def bored(result: Planned, held: Bands, share: float, edge_m: float) -> Bands:
    """The hinge, and what is held behind a bore that grows from the hinge back to ``edge_m``."""
    rear, slope = hinge_line(result)
    width = min(result.case.kit.bar_width_m, max(rear - edge_m, 1e-3))
    start = rear - width
    at = start + share * (edge_m - start)
    back = result.parts.section.back_m - 0.01
    return (*held, Band(-FAR_m, FAR_m, back, 0.0, at, slope * (1.0 - share)))


def section_of(case: Case) -> Section:
    """The section at a case's cut."""
    exponent = case.constants.profile_exponent[case.wood.group]
    return section_at(case.tree, case.cut.height_m, case.cut.gun_deg, exponent)


def with_face(**changes: object) -> Callable[[Case], Cut]:
    """A design that sets the face: depth in the middle of the practice's range, and what the form asks for."""

    def design(case: Case) -> Cut:
        depth = sum(case.practice.face_depth_ratio) / 2 * section_of(case).depth_m
        return replace(case.cut, face=replace(case.cut.face, depth_m=depth, **changes))  # type: ignore[arg-type]

    return design


def with_back(form: str, **shares: float) -> Callable[[Case], Cut]:
    """A design that sets the back cut; lengths are given as shares of the wood's depth along the lay."""

    def design(case: Case) -> Cut:
        depth = section_of(case).depth_m
        sized = {name: max(share * depth, 0.01) for name, share in shares.items()}
        step = case.cut.back.step_m or case.practice.step_m[0]
        return replace(case.cut, back=replace(case.cut.back, form=form, step_m=step, **sized))  # type: ignore[arg-type]

    return design


def lean_side(result: Planned) -> str:
    """The side the weight hangs to."""
    return "left" if result.parts.mass.com_left_m > 0 else "right"


def sides_of(result: Planned) -> dict[str, Phrase]:
    """``first`` and ``last``: the side the weight presses on, and the one in tension, which is cut last."""
    pressed = "left" if result.parts.balance.left_m > 0 else "right"
    tense = "right" if pressed == "left" else "left"
    return {"first": phrase(f"side.{pressed}"), "last": phrase(f"side.{tense}")}
