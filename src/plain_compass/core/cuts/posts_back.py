"""Four posts on the buttresses, no face: specialist."""

from __future__ import annotations

from dataclasses import replace

from ..base.frames import full_turn_deg
from ..base.phrase import phrase
from ..design.cut import BackCut, Cut
from ..design.traits import BackTraits, KeptPiece, Line, Marker, Notch, Span, Standing
from ..plan.case import Case, Planned
from ..tree.section import Section
from .form import Band, Bands, CutForm, CutStep, FAR_m, Fit
from .plain_back import CRACK
from .posts import Posts, posts_on
from .shapes import GOOD, hinge_bands, hinge_line, section_of, sides_of

SQUARE_DEG = 3.0
"""How far off square the line across the front posts may stand before it is told."""


def _fits(result: Planned) -> Fit:
    standing = [lobe for lobe in result.case.tree.lobes if lobe.state == "standing"]
    if len(standing) < 3:
        return Fit("refused", phrase("cut.back.posts.fits.buttresses_stand_four"), "bored")
    posts = _posts(result)
    if not posts.on_spurs:
        return Fit("refused", phrase("cut.back.posts.fits.spur_stands_ahead"), "bored")
    if result.parts.balance.moment_forward_Nm <= 0:
        return Fit("refused", phrase("cut.back.posts.fits.without_face_goes"), "bored")
    turn = posts.off_square_deg
    if abs(turn) > SQUARE_DEG:
        lay = full_turn_deg(result.case.cut.lay_deg + turn)
        return Fit("poor", phrase("cut.back.posts.fits.folds_off", off=abs(turn), lay=lay))
    return GOOD


def _posts(result: Planned) -> Posts:
    return posts_on(result.parts.section, result.parts.face, result.case.cut.back)


def _design(case: Case) -> Cut:
    section = section_of(case)
    depth = section.depth_m
    post = round(0.14 * depth, 3)
    ahead = [float(f) for f, _ in section.spurs if f > 0]
    # The hinge runs through the front spurs: half a post behind their tips, and half its thickness before that.
    face = section.front_m - 0.85 * sum(ahead) / len(ahead) if ahead else 0.2 * depth
    return replace(
        case.cut,
        face=replace(case.cut.face, form="none", depth_m=round(max(face, 0.1 * depth), 3)),
        back=replace(case.cut.back, form="posts", strap_m=post),
        hinge=replace(case.cut.hinge, left_m=post, right_m=post, middle_m=0.0),
    )


def _between(posts: Posts) -> tuple[tuple[float, float], ...]:
    """The stretches across the lay that no rear post takes: the middle, until it is out."""
    edges = sorted((low, high) for low, high, _ in posts.rear)
    starts = [-FAR_m, *(high for _, high in edges)]
    ends = [*(low for low, _ in edges), FAR_m]
    return tuple((low, high) for low, high in zip(starts, ends, strict=True) if high > low)


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    hinge, section, cut = hinge_bands(result), result.parts.section, result.case.cut
    width, back = cut.back.strap_m, section.back_m - 0.01
    posts = _posts(result)
    rears = tuple(Band(low, high, back, 0.0, line, 0.0) for low, high, line in posts.rear)
    gaps = _between(posts)
    # Nothing is cut ahead of the front posts: what stands there stays with them.
    hinge = tuple(Band(*band[:4], FAR_m, 0.0) for band in hinge)
    rear, slope = hinge_line(result)

    def inner(share: float) -> Bands:
        """The middle goes from the hinge backwards and out at the sides, until only four posts stand."""
        if share >= 1:
            return (*hinge, *rears)
        at = rear + share * (back - rear)
        return (*hinge, *rears, *(Band(low, high, back, 0.0, at, slope * (1 - share)) for low, high in gaps))

    def last(share: float) -> Bands:
        if share >= 1:
            return hinge
        return (
            *hinge,
            *(Band(b.from_m, b.to_m, b.rear_m + share * (b.front_m - b.rear_m), 0.0, b.front_m, 0.0) for b in rears),
        )

    return (
        CutStep(
            "middle",
            "cut.back.posts.middle.title",
            phrase("cut.back.posts.middle.do", post=width),
            "cut.back.posts.middle.stand",
            "cut.back.posts.middle.look",
            CRACK,
            inner,
            cut.back.step_m,
        ),
        CutStep(
            "rear",
            "cut.back.posts.rear.title",
            phrase("cut.back.posts.rear.do", **sides_of(result)),
            "cut.back.posts.rear.stand",
            "cut.back.posts.rear.look",
            CRACK,
            last,
            cut.back.step_m,
            releases=True,
        ),
    )


def _front_posts(section: Section, notch: Notch, back: BackCut) -> tuple[Line, tuple[Span, ...]]:
    """The hinge stands on both front posts, along the line across them."""
    posts = posts_on(section, notch, back)
    return posts.line, tuple((low, high) for low, high, _ in posts.front)


def _rear_posts(section: Section, notch: Notch, back: BackCut, _: Standing) -> tuple[KeptPiece, ...]:
    return posts_on(section, notch, back).rear


def _marks(marker: Marker, section: Section, notch: Notch, back: BackCut, _rear_m: float) -> None:
    for low, high, forward in posts_on(section, notch, back).rear:
        marker.line("post_front", forward, "left" if low + high > 0 else "right")


FORM = CutForm(
    "posts",
    "back",
    _fits,
    _design,
    _steps,
    specialist=True,
    traits=BackTraits(
        "four posts, no [face]",
        held=True,
        kept=_rear_posts,
        bored=True,
        without_face=True,
        front=_front_posts,
        marks=_marks,
    ),
    fields=("cut.back.strap_m",),
    labels={"cut.back.strap_m": "cut.back.posts.post_label"},
)
