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
from ....job.language import tr
from ....job.words import Speech


def describe(spoke: Spoke, job: Job, case: Case) -> str:
    """One bearing in a few sentences: what rules, what help it needs, what lies there, and why not."""
    speech = job.speech
    show = speech.show
    head = f"<b>{show(spoke.bearing_deg, 'bearing')}</b>"
    reason = speech.ruling(spoke.ruled_by)
    if spoke.level == Level.STOP:
        parts = [tr("{head}: not by these numbers, {reason}.", head=head, reason=reason)]
    else:
        rules = speech.named("groups", spoke.group).lower()
        parts = [
            tr(
                "{head}: least margin {margin}, ruled by {rules}.",
                head=head,
                margin=show(max(spoke.margin, 0.0), "ratio"),
                rules=rules,
            )
        ]
    why = why_refused(case, spoke)
    if why is not None:
        parts.append(tr("The ground refuses it. {why}", why=escape(speech.phrase(why))))
    if BACKS[spoke.back].bored:
        parts.append(speech.say("Judged with a bored [back cut]."))
    parts.append(_help(spoke, job, case))
    parts += _targets(spoke, case.site)
    return " ".join(parts)


COUNTS = (tr("no"), tr("one"), tr("two"), tr("three"), tr("four"), tr("five"), tr("six"))


def sector_words(sector: Sector, speech: Speech, site: Site) -> tuple[str, str]:
    """(what a sector takes, from where to where), as they stand beside it."""
    first, last = round(sector.from_deg), round(sector.to_deg) - 1
    span = (
        tr("all the way round")
        if sector.width_deg >= 360.0
        else f"{full_turn_deg(first):.0f}–{full_turn_deg(last):.0f}°"
    )
    return _takes(sector, speech, site), span


def _takes(sector: Sector, speech: Speech, site: Site) -> str:
    sort = sector.sort
    if sort.takes == Takes.REFUSED:
        return _refused(sort, site)
    if sort.takes == Takes.WEDGES:
        count = COUNTS[sort.wedges] if sort.wedges < len(COUNTS) else str(sort.wedges)
        return tr("{count} wedges" if sort.wedges > 1 else "{count} wedge", count=count)
    if sort.takes == Takes.ROPE:
        return tr("rope, {pull}", pull=speech.show(sector.pull_N, "force"))
    if sort.takes == Takes.NOTHING:
        return tr("goes by itself")
    if sort.why == "cut":
        return speech.say("[face] and [hinge] do not fit")
    if not sort.why:
        return tr("not with this kit")
    if sort.why == "landing.break":
        return tr("would break on the ground")
    return tr("{named} past its limit", named=speech.named("groups", LIMITS[sort.why].group).lower())


def _refused(sort: Sort, site: Site) -> str:
    name = tr(called(site.obstacles[sort.obstacle])) if sort.obstacle >= 0 else ""
    return {
        "landing.targets": tr("hits {name}", name=name),
        "landing.hang_up": tr("hangs in {name}", name=name),
        "landing.tangled": tr("tears at its neighbour"),
        "landing.slide": tr("slides off downhill"),
        "way_out.paths": tr("no way out"),
    }.get(sort.why, "refused")


GOES_ON = {
    "stack": tr("a second wedge on the first"),
    "thin": tr("the [hinge] thinned"),
    "stack and thin": tr("a second wedge on the first, and the [hinge] thinned"),
}
"""How wedging goes on where the wedges that are placed do not do it."""


def _help(spoke: Spoke, job: Job, case: Case) -> str:
    show = job.speech.show
    if case.rope.use == "set":
        return tr("With the rope led ahead along this lay, as hard as it is set.")
    if spoke.help == "none":
        return tr("It goes by itself.")
    if spoke.help == "wedges" and spoke.way == "jack":
        return tr("The jack: lift {lift_m}.", lift_m=show(spoke.lift_m, "fine_length"))
    if spoke.help == "wedges":
        lift_m = show(spoke.lift_m, "fine_length")
        if spoke.way in GOES_ON:
            how = job.speech.say(GOES_ON[spoke.way])
            return tr(
                "Wedges: lift {lift_m}, about {blows:.0f} blows; {how}.", lift_m=lift_m, blows=spoke.blows, how=how
            )
        return tr("Wedges: lift {lift_m}, about {blows:.0f} blows.", lift_m=lift_m, blows=spoke.blows)
    pull = tr("a pull of {pull_n} at six tenths of its height", pull_n=show(spoke.pull_N, "force"))
    if spoke.help == "rope":
        return tr("It wants a rope: {pull}.", pull=pull)
    return tr("Not with this kit: it would take {pull}.", pull=pull)


def _targets(spoke: Spoke, site: Site) -> list[str]:
    found = []
    for index in spoke.targets:
        obstacle = site.obstacles[index]
        if obstacle.cost != Cost.NONE:
            found.append(f"{escape(tr(called(obstacle)))} ({tr(COSTS[obstacle.cost])})")
    return (
        [tr("Under the tree: {names}.", names=", ".join(found))]
        if found
        else [tr("Nothing drawn lies under the tree.")]
    )
