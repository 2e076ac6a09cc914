"""What hands give: a push at the stem, and on a small one a felling lever in the kerf (indicative)."""

from __future__ import annotations

import numpy as np

from ..base.rows import Array
from ..tree.wood import Indicative


def by_hand_Nm(cut_m: Array, diameter_m: Array, constants: Indicative, *, lever: bool) -> Array:
    """Moment about the hinge that one person gives, shape (B,).

    A push at shoulder height on any stem, and what a lever adds at its tip where one is carried and the stem is
    small enough for it.
    """
    push = constants.push_N * np.maximum(constants.push_at_m - cut_m, 0.0)
    found: Array = push + np.where(lever & (diameter_m <= constants.lever_to_m), constants.lever_Nm, 0.0)
    return found
