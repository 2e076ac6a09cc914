"""Beside the plan: what one bearing would mean, in sentences."""

from __future__ import annotations

from html import escape

from ....core.advice.rose import Spoke, why_refused
from ....core.base.levels import Level
from ....core.design.cut import BACKS
from ....core.plan.case import Case
from ....core.plan.reach import called
from ....core.site.site import COSTS, Cost, Site
from ....job.document import Job


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
