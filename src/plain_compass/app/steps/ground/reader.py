"""Beside the plan: what one bearing would mean, in sentences."""

from __future__ import annotations

from html import escape

from ....core.advice.rose import Spoke, why_refused
from ....core.advice.sectors import Sector, Sort, Takes
from ....core.base.frames import full_turn_deg
from ....core.base.levels import Level
from ....core.design.cut import BACKS
from ....core.judge.limits import LIMITS
from ....core.plan.case import Case
from ....core.plan.reach import called
from ....core.site.site import COSTS, Cost, Site
from ....job.document import Job
from ....job.words import Speech


def describe(spoke: Spoke, job: Job, case: Case) -> str:
    """One bearing in a few sentences: what rules, what help it needs, what lies there, and why not."""
    speech = job.speech
    show = speech.show
    head = f"<b>{show(spoke.bearing_deg, 'bearing')}</b>"
    reason = speech.ruling(spoke.ruled_by)
    if spoke.level == Level.STOP:
        parts = [f"{head}: not by these numbers, {reason}."]
    else:
        rules = speech.named("groups", spoke.group).lower()
        parts = [f"{head}: least margin {show(max(spoke.margin, 0.0), 'ratio')}, ruled by {rules}."]
    why = why_refused(case, spoke)
    if why is not None:
        parts.append(f"The ground refuses it. {escape(speech.phrase(why))}")
    if BACKS[spoke.back].bored:
        parts.append(speech.say("Judged with a bored [back cut]."))
    parts.append(_help(spoke, job))
    parts += _targets(spoke, case.site)
    return " ".join(parts)


COUNTS = ("no", "one", "two", "three", "four", "five", "six")


def sector_words(sector: Sector, speech: Speech, site: Site) -> tuple[str, str]:
    """(what a sector takes, from where to where), as they stand beside it."""
    first, last = round(sector.from_deg), round(sector.to_deg) - 1
    span = (
        "all the way round" if sector.width_deg >= 360.0 else f"{full_turn_deg(first):.0f}–{full_turn_deg(last):.0f}°"
    )
    return _takes(sector, speech, site), span


def _takes(sector: Sector, speech: Speech, site: Site) -> str:
    sort = sector.sort
    if sort.takes == Takes.REFUSED:
        return _refused(sort, site)
    if sort.takes == Takes.WEDGES:
        count = COUNTS[sort.wedges] if sort.wedges < len(COUNTS) else str(sort.wedges)
        return f"{count} wedge{'s' if sort.wedges > 1 else ''}"
    if sort.takes == Takes.ROPE:
        return f"rope, {speech.show(sector.pull_N, 'force')}"
    if sort.takes == Takes.NOTHING:
        return "goes by itself"
    if sort.why == "cut":
        return speech.say("[face] and [hinge] do not fit")
    if not sort.why:
        return "not with this kit"
    if sort.why == "landing.break":
        return "would break on the ground"
    return f"{speech.named('groups', LIMITS[sort.why].group).lower()} past its limit"


def _refused(sort: Sort, site: Site) -> str:
    name = called(site.obstacles[sort.obstacle]) if sort.obstacle >= 0 else ""
    return {
        "landing.targets": f"hits {name}",
        "landing.hang_up": f"hangs in {name}",
        "landing.tangled": "tears at its neighbour",
        "landing.slide": "slides off downhill",
        "way_out.paths": "no way out",
    }.get(sort.why, "refused")


def _help(spoke: Spoke, job: Job) -> str:
    show = job.speech.show
    if spoke.help == "none":
        return "It goes by itself."
    if spoke.help == "wedges":
        return f"Wedges: lift {show(spoke.lift_m, 'fine_length')}, about {spoke.blows:.0f} blows."
    pull = f"a pull of {show(spoke.pull_N, 'force')} at six tenths of its height"
    if spoke.help == "rope":
        return f"It wants a rope: {pull}."
    return f"Not with this kit: it would take {pull}."


def _targets(spoke: Spoke, site: Site) -> list[str]:
    found = []
    for index in spoke.targets:
        obstacle = site.obstacles[index]
        if obstacle.cost != Cost.NONE:
            found.append(f"{escape(called(obstacle))} ({COSTS[obstacle.cost]})")
    return [f"Under the tree: {', '.join(found)}."] if found else ["Nothing drawn lies under the tree."]
