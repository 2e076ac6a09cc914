"""Four posts on the buttresses, no face: specialist."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from ..cut import Cut
from ..findings import phrase
from ..splitting import rear_posts
from .form import Bands, CutForm, CutStep, FAR_m, Fit
from .plain_back import CRACK
from .shapes import GOOD, hinge_bands, hinge_line, section_of

if TYPE_CHECKING:
    from ..plan import Case, Planned


def _fits(result: Planned) -> Fit:
    standing = [lobe for lobe in result.case.tree.lobes if lobe.state == "standing"]
    if len(standing) < 3:
        return Fit("refused", "There are no buttresses to stand on: four posts want spurs.", "bored")
    if result.parts.balance.moment_forward_Nm <= 0:
        return Fit("refused", "Without a face it goes only with its lean; this tree does not lean that way.", "bored")
    return GOOD


def _design(case: Case) -> Cut:
    depth = section_of(case).depth_m
    post = round(0.14 * depth, 3)
    return replace(
        case.cut,
        face=replace(case.cut.face, form="none", depth_m=round(0.2 * depth, 3)),
        back=replace(case.cut.back, form="posts", strap_m=post),
        hinge=replace(case.cut.hinge, left_m=post, right_m=post),
    )


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    hinge, section, cut = hinge_bands(result), result.parts.section, result.case.cut
    width, back = cut.back.strap_m, section.back_m - 0.01
    line, ((_low, inner_low), (inner_high, _high)) = rear_posts(section, width)
    rears = ((-FAR_m, inner_low, back, 0.0, line, 0.0), (inner_high, FAR_m, back, 0.0, line, 0.0))
    # Nothing is cut ahead of the front posts: what stands there stays with them.
    hinge = tuple((*band[:4], FAR_m, 0.0) for band in hinge)
    rear, slope = hinge_line(result)

    def inner(share: float) -> Bands:
        """The middle goes from the hinge backwards and out at the sides, until only four posts stand."""
        if share >= 1:
            return (*hinge, *rears)
        at = rear + share * (back - rear)
        return (*hinge, *rears, (inner_low, inner_high, back, 0.0, at, slope * (1 - share)))

    def last(share: float) -> Bands:
        if share >= 1:
            return hinge
        return (*hinge, *((b[0], b[1], b[2] + share * (b[4] - b[2]), 0.0, b[4], 0.0) for b in rears))

    return (
        CutStep(
            "middle",
            "Middle out",
            phrase("Bore between the spurs and clear the middle; four posts of {post} stay.", post=(width, "length")),
            "Beside the stem, away from the lean.",
            "Sound wood in every post; the front posts even.",
            CRACK,
            inner,
            cut.back.step_m,
        ),
        CutStep(
            "rear",
            "Rear posts",
            phrase("Cut the rear posts, one after the other, from outside, and go."),
            "To the side of the last post, one foot on the way out.",
            "The top.",
            CRACK,
            last,
            cut.back.step_m,
            releases=True,
        ),
    )


FORM = CutForm(
    "posts",
    "back",
    "four posts, no face",
    "Valuable butts with spurs, with the lean.",
    _fits,
    _design,
    _steps,
    "One front post thinner than the other: the tree turns on the thicker one.",
    "Four posts give no steering and hold the tree on little wood. They are for people trained in "
    "them, on a tree that leans "
    "the way it goes, where a miss costs nothing and nobody is in reach.",
)
