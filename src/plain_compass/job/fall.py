"""A tree's fall reckoned for a job, and what is written of it: plain data, CSV, GeoJSON."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterator
from typing import Any, NamedTuple

import numpy as np

from ..core.assess import Assessment, awaiting_fall, with_fall
from ..core.base.errors import ReckoningError
from ..core.fall.fan import Fan, fan_in_steps, fan_of
from ..core.fall.nominal import NominalFall, nominal_fall
from ..core.fall.rods import BROKE_BY
from ..core.judge.chances import Chances
from ..core.judge.fall import hit_chances, wrongs_told
from ..core.stump.hand import SHIPPED, Hand
from .document import Job, TreePlan
from .language import tr
from .spreads import judged_tree, named_input, spreads_of
from .units import chance_words
from .words import Speech

SAMPLES, SEED = 2048, 1
"""Falls of the fan: a chance of one in twenty is known to half a hundredth. A power of two, as the sequence wants
it."""
FIRST_SAMPLES = 512
"""What a first quick look is made from while the rest is reckoned."""
OWN_INPUTS = {
    "cut.aim": tr("aiming the [face]"),
    "cut.hinge_left": tr("[hinge] left, as cut"),
    "cut.hinge_right": tr("[hinge] right, as cut"),
    "site.wind": tr("the wind"),
    "wood.rupture": tr("strength of this tree's wood"),
    "wood.elasticity": tr("stiffness of this tree's wood"),
    "wood.shear": tr("shear strength of this tree's wood"),
    "wood.across": tr("how readily this tree splits"),
    "wood.density": tr("weight of this tree's wood"),
    "wood.fibre": tr("how far this tree's fibres bend"),
}


WRONGS = {
    "sits_back": tr("sits back"),
    "stays_up": tr("does not go over"),
    "splits": tr("splits"),
    "lost_early": tr("loses its [hinge] early"),
    "hangs": tr("hangs"),
    "breaks": tr("breaks on the ground"),
}
"""Each way in which a fall may go wrong, as it is said."""
JSON_NAMES = {"lost_early": "hinge_lost_early"}


class Draw(NamedTuple):
    """How many likely falls are drawn, from which seed, and whether with neighbours and all that is cut into."""

    samples: int = SAMPLES
    seed: int = SEED
    whole: bool = True


QUICK = Draw(FIRST_SAMPLES, whole=False)
"""A first look."""


def fan_for(plan: TreePlan, result: Assessment, draw: Draw = Draw(), hand: Hand = SHIPPED) -> Fan:  # noqa: B008 - frozen
    """The likely falls of one tree as it was measured, and as it is cut by this hand."""
    known = spreads_of(plan, hand)
    return fan_of(result, known.found, known.cutting, draw.samples, draw.seed, whole=draw.whole)


def fall_in_steps(plan: TreePlan, result: Assessment, hand: Hand = SHIPPED) -> Iterator[tuple[NominalFall, Fan] | None]:
    """A first quick look, then the whole, a few milliseconds at a time; None while there is nothing new."""
    fall, known = nominal_fall(result), spreads_of(plan, hand)
    yield None
    yield fall, fan_for(plan, result, QUICK, hand)
    for fan in fan_in_steps(result, known.found, known.cutting, SAMPLES, SEED):
        yield None if fan is None else (fall, fan)


def with_its_fall(plan: TreePlan, result: Assessment, hand: Hand = SHIPPED) -> Assessment:
    """An assessment with its fall reckoned and judged."""
    try:
        return with_fall(result, nominal_fall(result), fan_for(plan, result, hand=hand))
    except ReckoningError:
        return awaiting_fall(result, failed=True)


def judged_with_fall(job: Job, tree_id: str) -> tuple[Assessment, Chances]:
    """One tree judged whole, its fall included: what the window says of it once all is reckoned."""
    result, chances = judged_tree(job, tree_id)
    return with_its_fall(job.plan(tree_id), result, job.hand), chances


def named_driver(plan: TreePlan, path: str, job: Job) -> str:
    """What a person calls an input of the fall."""
    own = OWN_INPUTS.get(path)
    return job.speech.say(own) if own else named_input(plan.tree, path, job.speech)


def butt_words(speech: Speech, fall: NominalFall) -> str:
    """What the butt does."""
    return speech.tell(f"butt.{fall.butt.replace(' ', '_')}")


def fall_to_plain(job: Job, plan: TreePlan, result: Assessment, fall: NominalFall, fan: Fan) -> dict[str, Any]:
    """The fall as the model names it, for JSON."""
    east, north = plan.at.east_m, plan.at.north_m
    butt_east, butt_north = fall.butt_at(result.case.cut.gun_deg)
    return {
        "tree": plan.id,
        "lay_deg": result.case.cut.lay_deg,
        "gun_deg": result.case.cut.gun_deg,
        "fall": {
            "goes": fall.goes,
            "start_deg": fall.start_deg,
            "time_s": fall.time_s,
            "tip_speed_m_s": fall.tip_speed_m_s,
            "bearing_error_deg": fall.bearing_error_deg,
            "off_lay_m": fall.off_lay_m,
            "hinge_broke_by": fall.hinge_broke_by,
            "hinge_broke_at_deg": fall.hinge_broke_at_deg,
            "first_contact": fall.first_contact,
            "end_deg": fall.end_deg,
            "top_at": {"east_m": east + fall.top_east_m, "north_m": north + fall.top_north_m},
            "butt_at": {"east_m": east + butt_east, "north_m": north + butt_north},
            "butt": butt_words(job.speech, fall),
        },
        "spread": {
            "samples": len(fan.samples),
            "bearing_error_deg": _percentiles(fan.off_deg),
            "off_lay_m": _percentiles(fan.off_m),
            "reach_m": _percentiles(fan.reach_m),
            "chances": {
                **{
                    JSON_NAMES.get(chance.key, chance.key): chance.share for chance in wrongs_told(result.findings, fan)
                },
                "hits": [
                    {"name": name, "cost": cost, "share": chance.share, "words": chance_words(chance.share)}
                    for name, cost, chance in hit_chances(result, fan)
                ],
            },
            "drivers": [
                {"input": path, "name": named_driver(plan, path, job), "share": share} for path, share in fan.drivers
            ],
            "aim_off_deg": result.case.cut.aim_off_deg + fan.aim_off_deg,
            "close_calls": fan.close_calls,
            "stepped": fan.stepped,
        },
    }


def _percentiles(values: tuple[float, float, float]) -> dict[str, float]:
    return dict(zip(("p5", "p50", "p95"), values, strict=True))


COLUMNS = (
    "sample",
    "bearing_error_deg",
    "reach_m",
    "top_east_m",
    "top_north_m",
    "time_s",
    "tip_speed_m_s",
    "hinge_broke_at_deg",
    "hinge_broke_by",
    "split_index",
    "hangs_on",
    "fell",
)


def samples_csv(plan: TreePlan, result: Assessment, fan: Fan) -> str:
    """Every likely fall as a row."""
    lands, falls = fan.landings, fan.falls
    obstacles = result.case.site.obstacles
    text = io.StringIO()
    out = csv.writer(text, lineterminator="\n")
    out.writerow(COLUMNS)
    speed = falls.rate_rad_s * fan.samples.rods.length_m
    for row in range(len(fan.samples)):
        hung = int(lands.hangs[row])
        numbers = (
            lands.off_deg[row],
            lands.reach_m[row],
            plan.at.east_m + lands.east_m[row],
            plan.at.north_m + lands.north_m[row],
            falls.time_s[row],
            speed[row],
            math.degrees(falls.broke_rad[row]),
        )
        out.writerow(
            (
                row + 1,
                *(f"{float(number):.4f}" for number in numbers),
                BROKE_BY[int(falls.broke_by[row])],
                f"{float(fan.samples.split_index[row]):.4f}",
                (obstacles[hung].name or obstacles[hung].kind) if hung >= 0 else "",
                "yes" if falls.fell[row] else "no",
            )
        )
    return text.getvalue()


def fan_outline(fan: Fan, lay_deg: float, points: int = 16) -> list[tuple[float, float]]:
    """The fan from the stump: between its 5 and 95 of a hundred by bearing, to its 95 of a hundred by distance."""
    low, _, high = fan.off_deg
    reach = fan.reach_m[2]
    turns = np.radians(lay_deg - np.linspace(low, high, points))
    return [(0.0, 0.0), *((reach * math.sin(t), reach * math.cos(t)) for t in turns.tolist())]
