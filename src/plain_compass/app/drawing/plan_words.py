"""What is written on the stump from above beside its dimensions: rot, weight, the hinge's length, the quarters."""

from __future__ import annotations

import math

from PySide6.QtCore import QLineF, QPointF, QRectF

from ...core.base.quantity import Kind
from ...job.language import tr
from .canvas import Canvas
from .labels import about
from .layout import ring_radius
from .scale import polygon, towards
from .words import Word, placed_words, square

CENTRE, OFF = tr("centre of weight"), tr("weight, off the stump")
"""What is said at the mark of the weight, over the stump and off it."""
UNSOUNDED = tr("not sounded: rot unknown")
CENTRE_PX = 7.0
"""Radius of the mark of the weight."""
OUTSIDE_PX, LEADER_FROM_PX = 16.0, 50.0
"""How far outside the ring a word may stand, and from how far off its mark a line leads to it."""
AWAY_PX = 2.0
"""Between what is named and its word."""


def centre_mark(c: Canvas) -> tuple[QPointF, bool]:
    """Where the weight is marked, and whether that is off the stump, where it is marked on the ring."""
    mass = c.result.parts.mass
    reach = ring_radius(c.result, c.scale, c.gap) - 10 * c.size
    at = c.scale.point(-mass.com_left_m, mass.com_forward_m) - c.scale.origin
    distance = math.hypot(at.x(), at.y())
    outside = distance > reach
    return c.scale.origin + (at * (reach / distance) if outside else at), outside


def plan_words(c: Canvas) -> list[tuple[Word, QRectF]]:
    """Every word with its box, what matters most placed first."""
    words = [*_rot(c), _weight(c), *_aimed_off(c), *_quarters(c), *_length(c)]
    return placed_words(words, [*c.taken, *_solid(c)], c.page)


def _solid(c: Canvas) -> list[QRectF]:
    """What no word may cover: wedges, hinge and strap, the mark of the weight, dimension lines, the lay's arrow."""
    stump = c.stump
    wood = [*stump.wedges, *stump.hinge, *((stump.strap,) if stump.strap is not None else ())]
    front = c.scale.point(0, float(c.result.parts.section.bark[:, 0].max()))
    ring = ring_radius(c.result, c.scale, c.gap)
    arrow = QRectF(front.x() - 8, c.scale.origin.y() - ring - 24, 16, front.y() - c.scale.origin.y() + ring + 24)
    edge = float(c.result.parts.section.bark[:, 1].max()) + c.gap / 3 / c.scale.px_per_m
    measures = (c.scale.point(side * edge, 0).x() for side in (-1, 1))
    return [
        *(QRectF(x - 5, arrow.top(), 10, 2 * (c.scale.origin.y() - arrow.top())) for x in measures),
        *(polygon(c.scale.plan(each)).boundingRect() for each in wood),
        square(centre_mark(c)[0], CENTRE_PX * c.size),
        arrow,
    ]


def _word(c: Canvas, text: str, *middles: QPointF, wanted: bool = False) -> Word:
    return Word(text, middles, c.palette.ink, c.palette.cut, size=12 * c.size, wanted=wanted)


def _around(c: Canvas, text: str, at: QPointF, away_px: float) -> tuple[QPointF, ...]:
    return about(at, _word(c, text).box_size, away_px)


def _rot(c: Canvas) -> list[Word]:
    """Rot where it is known; where it is not, that is said."""
    rot, section = c.result.parts.section.rot, c.result.parts.section
    if len(rot):
        middle = polygon(c.scale.plan(rot)).boundingRect().center()
        return [_word(c, tr("rot"), middle, *_around(c, "rot", middle, AWAY_PX))]
    if section.shell_ratio is not None:
        return []
    radius = section.diameter_m / 2
    places = [c.scale.point(across * radius, up * radius) for up in (-0.35, -0.6, -0.1) for across in (0, 0.3, -0.3)]
    below = c.scale.origin + QPointF(0, ring_radius(c.result, c.scale, c.gap) + 12 * c.size)
    return [_word(c, UNSOUNDED, *places, below, below + QPointF(0, 40), wanted=True)]


def _weight(c: Canvas) -> Word:
    """What its mark is: beside it, else round the ring, where a line leads to it."""
    at, outside = centre_mark(c)
    text = OFF if outside else CENTRE
    near = _around(c, text, at, (CENTRE_PX + AWAY_PX) * c.size)
    return _word(c, text, *near, *_round_the_ring(c, text, at))


def _round_the_ring(c: Canvas, text: str, at: QPointF) -> list[QPointF]:
    """Places outside the ring, the nearest to a point first."""
    half, radius = _word(c, text).box_size.width() / 2, ring_radius(c.result, c.scale, c.gap) + OUTSIDE_PX * c.size
    found = []
    for turn in range(0, 360, 15):
        out = towards(turn)
        found.append(c.scale.origin + QPointF(out.x() * (radius + half), out.y() * radius))
    return sorted(found, key=lambda place: math.hypot(place.x() - at.x(), place.y() - at.y()))


def weight_leader(c: Canvas, words: list[tuple[Word, QRectF]]) -> QLineF | None:
    """From the mark of the weight to its word, where that does not stand beside it."""
    at = centre_mark(c)[0]
    box = next((box for word, box in words if word.text in (CENTRE, OFF)), None)
    if box is None:
        return None
    near = QPointF(min(max(at.x(), box.left()), box.right()), min(max(at.y(), box.top()), box.bottom()))
    line = QLineF(at, near)
    return line if line.length() > LEADER_FROM_PX * c.size else None


def _aimed_off(c: Canvas) -> list[Word]:
    """The lay, where the face is aimed beside it."""
    aimed = c.result.case.cut.aim_off_deg
    if not aimed:
        return []
    radius, out = ring_radius(c.result, c.scale, c.gap), towards(aimed)
    return [_word(c, tr("lay"), *(c.scale.origin + out * (radius + by * c.size) for by in (-48, 24, 34)))]


def _quarters(c: Canvas) -> list[Word]:
    """N, E, S, W on the ring; north beside its handle."""
    radius, gun = ring_radius(c.result, c.scale, c.gap), c.result.case.cut.gun_deg
    beside = math.degrees(18 * c.size / radius)
    found = []
    for quarter, letter in enumerate("NESW"):
        away = (-beside, beside) if letter == "N" else (0.0, beside, -beside)
        places = tuple(
            c.scale.origin + towards(90 * quarter - gun + turned) * (radius + by * c.size)
            for by in (-12, 16)
            for turned in away
        )
        colour = c.palette.ink if letter == "N" else c.palette.quiet
        found.append(Word(letter, places, colour, strong=True, size=12 * c.size))
    return found


def _length(c: Canvas) -> list[Word]:
    """Length of the hinge, read off rather than typed, in the room the face leaves."""
    face = c.result.parts.face
    text = c.speech.say(
        tr("[hinge] {hinge_length_m} long", hinge_length_m=c.speech.show(face.hinge_length_m, Kind.LENGTH))
    )
    word = _word(c, text)
    if c.stump.face is None or word.box_size.width() > 0.9 * face.hinge_length_m * c.scale.px_per_m:
        return []
    depth = c.result.case.cut.face.depth_m
    places = tuple(c.scale.point(0, face.apex_forward_m + part * depth) for part in (0.45, 0.3, 0.6))
    return [Word(text, places, c.palette.quiet, size=12 * c.size)]
