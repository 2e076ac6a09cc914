"""Labels that keep apart: a small search for places where no two lie over one another and none is cut."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSizeF

from ...core.base.frozen import dataclass
from ...core.base.rows import Mask

TRIES = 3_000
"""Places looked at before the best found so far is taken: a millisecond or two."""
APART_PX = 2.0
"""Paper left between two labels."""


@dataclass(frozen=True, slots=True)
class Label:
    """One label to place.

    Attributes:
        key: what it is called.
        size: of its text.
        middles: where its middle may stand, the best first.
    """

    key: str
    size: QSizeF
    middles: tuple[QPointF, ...]

    def boxes(self, page: QRectF) -> list[tuple[float, QRectF]]:
        """Its boxes that lie on the page, each with how far down the list it stands."""
        found = []
        for number, middle in enumerate(self.middles):
            box = QRectF(QPointF(0, 0), self.size)
            box.moveCenter(middle)
            if page.contains(box):
                found.append((float(number), box))
        return found


def placed(labels: Sequence[Label], taken: Sequence[QRectF], page: QRectF) -> dict[str, QRectF]:
    """A box for each label that finds room, in their order of importance; what finds none is left out.

    Args:
        taken: where nothing may lie: fields, handles, words that stand already.
    """
    search = _Search([(each.key, _free(each.boxes(page), taken)) for each in labels])
    search.go(0, 0, 0.0, ())
    return search.best


def placed_in_turn(labels: Sequence[Label], taken: Sequence[QRectF], page: QRectF) -> dict[str, QRectF]:
    """The same without looking back: each label takes the first of its places that is free. Quick enough for a drag."""
    stand, found = [_with_room(other) for other in taken], {}
    for label in labels:
        width, height = label.size.width(), label.size.height()
        for middle in label.middles:
            box = QRectF(middle.x() - width / 2, middle.y() - height / 2, width, height)
            if page.contains(box) and not any(map(box.intersects, stand)):
                found[label.key] = box
                stand.append(_with_room(box))
                break
    return found


def _with_room(box: QRectF) -> QRectF:
    """A box and the paper that is left round it."""
    return box.adjusted(-APART_PX, -APART_PX, APART_PX, APART_PX)


def _free(boxes: list[tuple[float, QRectF]], taken: Sequence[QRectF]) -> list[tuple[float, QRectF]]:
    """Those boxes that leave paper round them towards whatever is taken."""
    stand = [_with_room(other) for other in taken]
    return [(cost, box) for cost, box in boxes if not any(map(box.intersects, stand))]


class _Search:
    """Depth first over the labels: one left out costs more than any place, and an earlier one more than a later.

    Which boxes meet is worked out once for all pairs, as bits of one number a box: it is asked thousands of times.
    """

    def __init__(self, asked: list[tuple[str, list[tuple[float, QRectF]]]]) -> None:
        boxes = [box for _, own in asked for _, box in own]
        meets = _meetings(boxes)
        self.asked: list[tuple[str, list[tuple[float, QRectF, int, int]]]] = []
        number = 0
        for key, own in asked:
            places = []
            for cost, box in own:
                places.append((cost, box, 1 << number, meets[number]))
                number += 1
            self.asked.append((key, places))
        self.best: dict[str, QRectF] = {}
        self.least = float("inf")
        self.tries = 0

    def go(self, at: int, stand: int, cost: float, so_far: tuple[tuple[str, QRectF], ...]) -> None:
        """Place the labels from one on, given those before.

        Args:
            stand: bits of the boxes that are placed.
        """
        if cost >= self.least or self.tries > TRIES:
            return
        if at == len(self.asked):
            self.best, self.least = dict(so_far), cost
            return
        key, places = self.asked[at]
        for more, box, own, meets in places:
            self.tries += 1
            if not meets & stand:
                self.go(at + 1, stand | own, cost + more, (*so_far, (key, box)))
        self.go(at + 1, stand, cost + 1e3 * (len(self.asked) - at), so_far)


def _meetings(boxes: Sequence[QRectF]) -> list[int]:
    """For each box, as bits of one number, which of all it meets or comes too near."""
    if not boxes:
        return []
    low = np.array([(box.left() - APART_PX, box.top() - APART_PX) for box in boxes])
    high = np.array([(box.right() + APART_PX, box.bottom() + APART_PX) for box in boxes])
    bare_low, bare_high = low + APART_PX, high - APART_PX
    over = (low[:, None] < bare_high[None]) & (bare_low[None] < high[:, None])
    meets: Mask = over[:, :, 0] & over[:, :, 1]
    return [int.from_bytes(np.packbits(each, bitorder="little").tobytes(), "little") for each in meets]


def about(at: QPointF, size: QSizeF, away_px: float) -> tuple[QPointF, ...]:
    """Middles of a label round a point it names: below, above, beside it, then at its corners and farther off."""
    found = []
    for off in (away_px, away_px + 10.0, away_px + 22.0, away_px + 36.0):
        across, down = size.width() / 2 + off, size.height() / 2 + off
        sides = ((0.0, down), (0.0, -down), (across, 0.0), (-across, 0.0))
        corners = ((across, down), (-across, down), (across, -down), (-across, -down))
        slid = ((across / 2, down), (-across / 2, down), (across / 2, -down), (-across / 2, -down))
        found += [at + QPointF(*each) for each in (*sides, *slid, *corners)]
    return tuple(found)
