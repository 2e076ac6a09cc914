"""How long a tree takes: indicative, until the log says how long it took."""

from __future__ import annotations

import math

from ..tree.section import Section
from .case import Case

SET_UP_MIN, SURVEY_MIN = 6.0, 5.0
"""To bring the kit to the tree and clear both ways out; to walk round it and look up."""
KERF_M2_MIN = 0.12
"""Wood a saw goes through in a minute, of both face cuts and the back cut, with looking up in between."""
FACE_SHARE = 0.8
"""Area of both face cuts over that of the section's part in front of the apex, a little more than twice a half."""
PASS_MIN = 0.7
"""To go round the tree for another pass of the bar."""
BLOW_s = 3.0
"""From blow to blow while the wedge goes in."""
LIES_MIN = 4.0
"""Until everything is still and one has looked at stump and crown."""
ROPE_MIN = 20.0
"""To set a rope in the tree and lead it to its anchor."""
ROUND_MIN = SET_UP_MIN + SURVEY_MIN + LIES_MIN
"""What a tree takes beside its cutting, walking and rigging left out."""
SPREAD_LN = 0.35
"""Spread of the logarithm of one tree's minutes about what is told: two in three lie between 0.7 and 1.4 times it."""


def cutting_min(case: Case, section: Section, blows: float, pause_s: float) -> float:
    """Minutes from the first cut to the tree on the ground, as planned.

    Args:
        blows: on all wedges, infinite where they cannot do it; pause_s after each drive, until the top answers.
    """
    sawn_m2 = section.wood_moments.area_m2 * (1.0 + FACE_SHARE * case.cut.face.depth_m / max(section.depth_m, 1e-3))
    driven = blows if math.isfinite(blows) else case.constants.most_blows
    driving = driven * (BLOW_s + pause_s / 4.0) / 60.0
    passes = PASS_MIN * math.ceil(section.depth_m / case.kit.bar_m)
    return sawn_m2 / KERF_M2_MIN + passes + driving
