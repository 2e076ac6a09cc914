"""Where each finding is put right: the step of the work, and the field or tool there that settles or changes it."""

from __future__ import annotations

from typing import NamedTuple

from ..base.levels import LEVELS, Level
from .findings import Finding


class Where(NamedTuple):
    """Where to go.

    Attributes:
        step: key of the step.
        field: path of the field; empty where it is done on the drawing.
    """

    step: str
    field: str = ""


PLACES: tuple[tuple[str, Where], ...] = (
    ("who.company", Where("look", "person.limits.company")),
    ("who.trained", Where("look", "person.limits.trained")),
    ("who.stem", Where("look", "person.limits.biggest_m")),
    ("measured.diameter", Where("look", "tree.trunk.diameter_m")),
    ("measured.height", Where("look", "tree.height_m")),
    ("measured.crown", Where("look", "tree.crown.base_m")),
    ("measured.lean", Where("look", "tree.lean.angle_deg")),
    ("balance.lean", Where("look", "tree.lean.method")),
    ("split.crack", Where("look", "tree.crack")),
    ("around.above", Where("look", "tree.around.dead_limbs")),
    ("around.life", Where("look", "tree.around.nests")),
    ("around.leave", Where("look", "tree.around.leave")),
    ("fork.", Where("look", "tree.fork.kind")),
    ("defect.", Where("look")),
    ("decay.", Where("look", "tree.decay.kind")),
    ("wedge.sound", Where("look", "tree.decay.kind")),
    ("balance.wind", Where("ground", "site.wind_m_s")),
    ("way_out.not_judged", Where("ground", "site.looked")),
    ("landing.not_judged", Where("ground", "site.looked")),
    ("landing.ground_not_judged", Where("ground", "site.looked")),
    ("fall.not_judged", Where("ground", "site.looked")),
    ("rope.", Where("ground", "rope.haul_N")),
    ("duty.", Where("ground")),
    ("way_out.", Where("ground")),
    ("landing.", Where("ground")),
    ("fall.hangs", Where("ground")),
    ("fall.targets", Where("ground")),
    ("fall.drift", Where("cut", "cut.aim_off_deg")),
    ("fall.", Where("fall")),
    ("learned.", Where("stump")),
    ("cut.aloft", Where("cut", "cut.aloft")),
    ("hinge.step", Where("cut", "cut.back.step_m")),
    ("hinge.", Where("cut", "cut.hinge.left_m")),
    ("face.depth", Where("cut", "cut.face.depth_m")),
    ("face.", Where("cut", "cut.face.roof_deg")),
    ("bar.", Where("cut", "kit.bar_m")),
)
"""How ids begin, the more particular first, and where they lead; anything else is changed on the cut."""


def where_of(id: str) -> Where:
    """Where a finding is put right."""
    return next((where for head, where in PLACES if id.startswith(head)), Where("cut"))


TOLD: dict[str, tuple[str, ...]] = {
    "stages": ("split.", "wedge.", "bar.", "balance.sits_back"),
    "fall": ("fall.", "hinge.side", "hinge.holds", "balance.over", "balance.shuts_first", "split.index", "landing."),
}
"""Steps that tell of findings put right elsewhere, and how their ids begin: their sign may not be better than these."""


def level_at_step(findings: tuple[Finding, ...], step: str) -> Level:
    """The sign of a step: the worst of what is put right there, and of what it tells of; unknown where nothing is."""
    told = TOLD.get(step, ())
    here = (f.level for f in findings if (told and f.id.startswith(told)) or where_of(f.id).step == step)
    return max(here, key=LEVELS.index, default=Level.UNKNOWN)
