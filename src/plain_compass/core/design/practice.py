"""A practice: one school's ranges and habits over the same physics."""

from __future__ import annotations

from ..base.frozen import dataclass

STOUT_m = 0.05
"""A hinge of five centimetres is stout on any tree (practice of the trade: 25 to 50 mm)."""
BORES = ("always", "forward lean", "split not clear", "never")


@dataclass(frozen=True, slots=True)
class Practice:
    """Ranges a crew works within. Ratios are of the wood's depth along the lay.

    Attributes:
        face_depth_ratio: (low, high) depth of the face.
        opening_deg: (low, high) opening of the face; ``opening_default_deg`` for a fresh design.
        hinge_ratio: (low, high) mean hinge thickness; never under ``hinge_least_m``.
        step_m: (low, high) height of the back cut above the apex.
        level_when_bored_open: whether a bored cut behind an open face may be level.
        tolerance_deg: how far off the lay the top may come to rest.
        order: in which order the face cuts are made, as words.
        bore_when: when this school bores: one of ``BORES``.
        kept_away_lengths: tree lengths within which nobody else may be.
    """

    key: str
    name: str
    note: str
    face_depth_ratio: tuple[float, float]
    opening_deg: tuple[float, float]
    opening_default_deg: float
    hinge_ratio: tuple[float, float]
    hinge_least_m: float
    step_m: tuple[float, float]
    level_when_bored_open: bool
    tolerance_deg: float
    order: str
    bore_when: str = "split not clear"
    kept_away_lengths: float = 2.0

    def hinge_m(self, depth_m: float) -> float:
        """Thickness of a hinge to begin with: the middle of the range, on large stems less, never under the least.

        Past ``STOUT_m`` more thickness steers an ordinary tree no better and only holds it longer against the wedges:
        from there the thin end of the range is enough.
        """
        low, high = self.hinge_ratio
        return max(min((low + high) / 2 * depth_m, max(low * depth_m, STOUT_m)), self.hinge_least_m)
