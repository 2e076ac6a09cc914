"""The papers a card is made for, and how it is laid out on each. Nothing here needs a screen."""

from __future__ import annotations

from ....core.base.frozen import dataclass
from ....job.language import tr_mark

PX_PER_MM = 96 / 25.4
"""Everything printed is laid out in 1/96 inch, so that a stated scale is true on paper."""


@dataclass(frozen=True, slots=True)
class Paper:
    """One size of paper.

    Attributes:
        wide_mm, tall_mm: as it is held.
        margin_px: what common printers leave white, and a little more.
        drawings_px: height of both drawings where they stand beside one another; 0 where they stand one under the
            other and have the whole first page.
        columns: of text.
        across: strips of the margin band in a row.
        size: of the text, 1 on a full sheet.
        written_on: whether a pencil can be put to it; a telephone's page is only read.
    """

    wide_mm: float
    tall_mm: float
    margin_px: float = 40.0
    drawings_px: float = 346.0
    columns: int = 2
    across: int = 5
    size: float = 1.0
    written_on: bool = True

    @property
    def width(self) -> float:
        """Width in 1/96 inch."""
        return self.wide_mm * PX_PER_MM

    @property
    def height(self) -> float:
        """Height in 1/96 inch."""
        return self.tall_mm * PX_PER_MM

    @property
    def inner(self) -> float:
        """Width between the margins."""
        return self.width - 2 * self.margin_px

    @property
    def beside(self) -> bool:
        """Whether the drawings stand beside one another."""
        return self.columns > 1


PAPERS = {
    "A4": Paper(210.0, 297.0),
    tr_mark("Letter"): Paper(215.9, 279.4, drawings_px=306.0),
    "A5": Paper(148.0, 210.0, margin_px=30.0, drawings_px=0.0, columns=1),
    tr_mark("Telephone"): Paper(
        95.0, 200.0, margin_px=14.0, drawings_px=0.0, columns=1, across=2, size=1.15, written_on=False
    ),
}
"""Name -> paper. The last is as wide as a telephone shows without enlarging."""
USUAL = "A4"
SHEETS, MOST_SHEETS = 6, 200
"""Trees a blank survey sheet is first offered for, and at most made for."""


@dataclass(frozen=True, slots=True)
class LayoutWanted:
    """How a card is wanted: on which paper, and whether with the page to fill in at the stump."""

    paper: str = USUAL
    with_stump_page: bool = True

    @property
    def stump_page_on_paper(self) -> bool:
        """Whether there is such a page: only where a pencil can be put to it."""
        return self.with_stump_page and PAPERS[self.paper].written_on
