"""Rot against the height of the cut: whether raising the cut brings it into sound wood, and how far."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..base.errors import InputError
from ..base.frozen import dataclass
from ..base.polygon import Array
from ..design.designs import designs_of
from ..design.first import resized
from ..judge.limits import SOUND_HINGE_LEAST, SOUND_SHELL_LEAST
from ..mechanics.face import faces_on
from ..mechanics.hinge import hinges_on
from ..plan.case import Case
from ..tree.section import section_at
from ..tree.sections import Place, sections_of

LOWEST_M, STEP_M, MOST_M = 0.1, 0.1, 2.0
"""Cut heights looked at: from as low as a bar gets to as high as anyone cuts from the ground."""


@dataclass(frozen=True, slots=True, eq=False)
class Rising:
    """Soundness at each height at which the tree might be cut.

    Attributes:
        height_m: heights above ground, rising, shape (n,).
        shell_ratio: least sound shell over local radius there, shape (n,).
        hinge_sound: sound share of the same design's hinge, scaled to the stem there, shape (n,).
        lowest_m: lowest height from which both stay above their limits; None when no height reached is enough.
    """

    height_m: Array
    shell_ratio: Array
    hinge_sound: Array
    lowest_m: float | None


def soundness_by_height(case: Case) -> Rising | None:
    """Shell ratio and sound hinge with the cut raised in steps of ten centimetres; None where rot is not known.

    The cut keeps its shape: face and hinge are scaled with the stem, as when the cut height is typed.
    """
    if case.tree.decay.kind == "unknown":
        return None
    exponent = case.constants.profile_exponent[case.wood.group]
    here = section_at(case.tree, case.cut.height_m, case.cut.gun_deg, exponent).depth_m
    top = max(min(MOST_M, case.tree.crown.base_m, case.tree.height_m / 2), case.cut.height_m)
    rows = []
    for height in np.arange(LOWEST_M, top + STEP_M / 2, STEP_M).tolist():
        try:
            section = section_at(case.tree, height, case.cut.gun_deg, exponent)
        except InputError:
            rows.append((height, 0.0, 0.0))
            continue
        cut = replace(resized(case.cut, section.depth_m / here), height_m=height)
        sections, designs = sections_of([Place(case.tree, height, case.cut.gun_deg, exponent)]), designs_of([cut])
        hinge = hinges_on(sections, designs, faces_on(sections, designs, case.kit.kerf_m))
        rows.append((height, section.shell_ratio or 0.0, float(hinge.sound_fraction[0])))
    table = np.array(rows)
    enough = (table[:, 1] >= SOUND_SHELL_LEAST) & (table[:, 2] >= SOUND_HINGE_LEAST)
    return Rising(table[:, 0], table[:, 1], table[:, 2], _from_where_on(table[:, 0], enough))


def _from_where_on(height_m: Array, enough: np.ndarray) -> float | None:
    """The lowest height from which every higher one is enough too."""
    short = np.nonzero(~enough)[0]
    first = 0 if len(short) == 0 else int(short[-1]) + 1
    return float(height_m[first]) if first < len(height_m) else None
