"""An assessment as plain data and as a table: what the command line prints."""

from __future__ import annotations

import math
from dataclasses import astuple, fields, is_dataclass
from typing import Any

import numpy as np

from ..core.advice.survey import survey
from ..core.assess import Assessment
from ..core.base.errors import ReckoningError
from ..core.base.levels import FindingKind
from ..core.fall.nominal import nominal_fall
from ..core.judge.chances import Chances
from ..core.judge.findings import Finding
from ..core.judge.places import where_of
from ..core.mechanics.hinge import HingeStrength
from ..core.mechanics.resting import Resting
from ..core.plan.driven import driving_of, thinning_of
from ..core.plan.reach import better_side, called, caught, lying
from ..core.site.landing import hits_on
from ..core.site.ways_out import kept_away_m, ways_out
from .document import Job, TreePlan
from .language import tr
from .spreads import measure_better, plan_spreads
from .units import tape_rounded
from .words import Speech

LAW_STEP_DEG = 0.5
"""Step of the table of what the hinge resists."""


def plain(value: Any) -> Any:
    """Plain data for JSON: dataclasses to objects, arrays left out, what is not finite to null."""
    if is_dataclass(value):
        pairs = ((f.name, getattr(value, f.name)) for f in fields(value))
        return {name: plain(held) for name, held in pairs if not isinstance(held, np.ndarray)}
    if isinstance(value, (tuple, list)):
        return [plain(each) for each in value]
    if isinstance(value, float):
        return value if math.isfinite(value) else None
    return value


def _asked(value: Any, *names: str) -> dict[str, Any]:
    """What a result says of itself beside what it holds."""
    return {name: plain(getattr(value, name)) for name in names}


def assessment_to_plain(job: Job, plan: TreePlan, result: Assessment, chances: Chances) -> dict[str, Any]:
    """The assessment grouped as the model names it."""
    parts, speech = result.parts, job.speech
    section, use = parts.section, parts.use
    sound = section.sound_moments
    lay_deg = result.case.cut.lay_deg
    return {
        "tree": plan.id,
        "verdict": {"level": result.verdict.level, "sentence": speech.verdict(result.verdict)},
        "duties": [_duty(finding, speech) for finding in result.findings if finding.kind == FindingKind.DUTY],
        "difficulty": {
            "grade": result.difficulty.grade,
            "reasons": [{"grade": grade, "words": speech.tell(words)} for grade, words in result.difficulty.reasons],
        },
        "balance": plain(parts.mass) | plain(parts.balance) | _asked(parts.balance, "stands_on_hinge", "sits_back"),
        "section": {
            "diameter_m": section.diameter_m,
            "depth_m": section.depth_m,
            "width_m": section.width_m,
            "area_m2": sound.area_m2,
            "second_fall_m4": sound.second_fall_m4,
            "second_side_m4": sound.second_side_m4,
            "shell_ratio": section.shell_ratio,
            "sound_fraction": section.sound_fraction,
        },
        "face": plain(parts.face) | _asked(parts.face, "closing_angle_deg", "hinge_length_m", "shuts_on_overcut"),
        "hinge": _hinge(result),
        "splitting": plain(parts.splitting),
        "wedges": plain(parts.wedging) | _driven(result),
        "ground": _ground(result),
        "rope": None if parts.rigging is None else plain(parts.rigging),
        "wind": plain(parts.gust),
        "butt": _butt(result),
        "ways_out": [
            plain(way) | {"free": way.free}
            for way in ways_out(result.case.site, result.case.at, lay_deg, result.case.cut.ways)
        ],
        "tape_marks": [_mark(mark, speech) for mark in result.tape_marks],
        "findings": [_finding(finding, speech) for finding in result.findings],
        "survey": _survey(job, plan, result, chances),
        "curve": {"tilt_deg": use.tilt_deg.tolist(), "use": [round(float(u), 6) for u in use.use]},
    }


def _ground(result: Assessment) -> dict[str, Any]:
    """What lies under the tree on its lay and what would catch it; empty where nothing is drawn."""
    case = result.case
    hits, catches = hits_on(case.site, case.at, lying(case), case.cut.lay_deg), caught(case, result.parts.mass)
    return {
        "targets": [{"name": tr(called(h.obstacle)), "cost": h.obstacle.cost, "at_m": h.at_m} for h in hits],
        "catches": [
            {
                "name": tr(called(c.obstacle)),
                "tilt_deg": c.tilt_deg,
                "overlap": c.overlap,
                "energy_J": c.energy_J,
                "taken_J": c.taken_J,
                "use": c.use,
            }
            for c in catches
        ],
        "lying": _lying(result.parts.resting),
        "stand": better_side(case, result.parts)[0].side,
        "kept_away_m": kept_away_m(case.site, case.at, case.tree.height_m, case.cut.lay_deg),
    }


def _lying(resting: Resting) -> dict[str, Any]:
    """The stem on the ground, with the bending along it."""
    along = {"along_m": resting.along_m, "lies_m": resting.lies_m, "break_index_along": resting.index}
    found: dict[str, Any] = plain(resting)
    return found | {name: [round(float(each), 4) for each in held] for name, held in along.items()}


def _survey(job: Job, plan: TreePlan, result: Assessment, chances: Chances) -> dict[str, Any]:
    found = survey(result.case, plan_spreads(plan, job.hand))
    sentence = measure_better(plan, result, chances, job.speech)
    return {"measure_better": sentence, "inputs": [plain(each) for each in found]}


def _hinge(result: Assessment) -> dict[str, Any]:
    hinge, use = result.parts.hinge, result.parts.use
    return {
        "length_m": hinge.length_m,
        "thickness_m": hinge.thickness_m,
        "sound_fraction": hinge.sound_fraction,
        "area_m2": hinge.region.area_m2,
        "second_fall_m4": hinge.region.second_fall_m4,
        "second_side_m4": hinge.region.second_side_m4,
        **plain(result.parts.strength),
        "hinge_law": _law(result),
        "steered_deg": hinge.steered_deg,
        "lets_go_deg": use.lets_go_deg,
        "lets_go_by": use.lets_go_by,
        "needed_tilt_deg": use.needed_tilt_deg,
        "side_utilisation": use.side_utilisation,
    }


def _law(result: Assessment) -> dict[str, Any]:
    """Resistance of the hinge against tilt, every half degree until it has parted."""
    tilts = np.arange(0.0, min(result.parts.strength.break_angle_deg, 90.0) + 1.0, LAW_STEP_DEG)
    one = HingeStrength(*(np.array([value]) for value in astuple(result.parts.strength)))
    moments = one.law.moments_Nm(np.radians(tilts))[0]
    return {"tilt_deg": tilts.tolist(), "moment_Nm": [round(float(each), 2) for each in moments]}


def _driven(result: Assessment) -> dict[str, Any]:
    """A thinner hinge on which the wedges reach, and what is to be seen while they are driven."""
    thinning = thinning_of(result.case, result.parts)
    return {
        "thinned_to_m": thinning.to_m,
        "thinning_refused": thinning.refused,
        "driving_table": [plain(line) for line in driving_of(result.case, result.parts)],
    }


def _butt(result: Assessment) -> dict[str, Any] | None:
    """What the butt does; nothing where the tree does not go."""
    try:
        fall = nominal_fall(result)
    except ReckoningError:
        return None
    return {"does": fall.butt, "along_m": fall.butt_m} if fall.goes else None


def _mark(mark: Any, speech: Speech) -> dict[str, Any]:
    shown = {
        side: None if value is None else round(tape_rounded(value, speech.units), 6)
        for side, value in (("left_rounded_m", mark.left_m), ("right_rounded_m", mark.right_m))
    }
    return {**plain(mark), **shown}


def _duty(finding: Finding, speech: Speech) -> dict[str, Any]:
    """What is to be done, and who did it when; nobody yet where it is still to do."""
    done = None if finding.done is None else {"who": finding.done.who, "at": finding.done.at}
    return {"id": finding.id, "about": finding.about, "sentence": speech.phrase(finding.sentence), "done": done}


def _finding(finding: Finding, speech: Speech) -> dict[str, Any]:
    return {
        "id": finding.id,
        "group": finding.group,
        "level": finding.level,
        "value": plain(finding.value),
        "limit": plain(finding.limit),
        "margin": plain(finding.margin),
        "kind": finding.kind,
        "unit": finding.unit,
        "chance": plain(finding.chance),
        "beta": plain(finding.beta),
        "sentence": speech.phrase(finding.sentence),
        "change": speech.phrase(finding.change),
        "source": finding.source,
        "indicative": finding.indicative,
        "where": dict(where_of(finding.id)._asdict()),
    }


def table(job: Job, plan: TreePlan, result: Assessment) -> str:
    """The findings as a table for a terminal, worst first, the verdict above and the cautions' gist below."""
    speech = job.speech
    rows = [("level", "what", "value", "limit", tr("what the numbers say"))]
    for finding in result.findings:
        about = "~" if finding.indicative else ""
        value = "–" if finding.value is None else about + speech.show(finding.value, finding.unit)
        limit = "–" if finding.limit is None else speech.show(finding.limit, finding.unit)
        what = speech.named("groups", finding.group)
        rows.append((finding.level, what, value, limit, speech.phrase(finding.sentence)))
    widths = [max(len(row[i]) for row in rows) for i in range(4)]
    lines = ["  ".join([*(cell.ljust(w) for cell, w in zip(row[:4], widths, strict=True)), row[4]]) for row in rows]
    head = f"{plan.id}: {speech.verdict(result.verdict)}"
    foot = tr("~ indicative. The competent person on the spot decides.")
    return "\n".join([head, "", *lines, "", foot])
