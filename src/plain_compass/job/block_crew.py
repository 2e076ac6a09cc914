"""The crew of a block as people write it, a line for each: ``Ash, hard trees, up to 60 cm``; and whose a tree is."""

from __future__ import annotations

import re
from dataclasses import replace

from ..core.base.errors import InputError, PlainCompassError
from ..core.base.phrase import phrase
from ..core.base.quantity import Kind, check_name
from ..core.block.crew import Worker
from ..core.block.judged import graded
from ..core.block.whose import Whose, whose
from ..core.judge.who import GRADES, TRAINED, Grade, Stated
from .block import Block, Ordered
from .document import Job, case_alone
from .fields import quantity_at
from .language import in_english, tr
from .typed import parse
from .words import Speech

MOST = 20
"""Of a crew: more are several crews."""
ACCEPTED = tr("Ash, hard trees, up to 60 cm; of trees: plain, demanding, hard or specialist")
"""How one is written."""
WORDS = (*TRAINED.values(), "up to")
"""Words beside names and lengths."""


def worker_of(text: str, units: str) -> Worker:
    """One of the crew as a person types it. Raises InputError."""
    head, *rest = [each.strip() for each in re.split(r"[;,]\s+|;", text.strip())]
    rest = [in_english(each, WORDS) for each in rest]
    if not head:
        raise InputError("crew", text, reason=tr("a name comes first; accepted: {accepted}", accepted=ACCEPTED))
    check_name("crew", head)
    limits = Stated()
    for each in filter(None, rest):
        word = each.lower().removeprefix("trained for ").split(" ")[0]
        if word in GRADES:
            limits = replace(limits, trained=Grade(word))
            continue
        limits = replace(limits, biggest_m=_biggest_m(each, units))
    return Worker(head, limits)


def _biggest_m(text: str, units: str) -> float:
    length = re.sub(r"^(up to|max\.?|most)\s+", "", text, flags=re.IGNORECASE)
    try:
        found = parse(length, Kind.LENGTH, units)
    except PlainCompassError:
        raise InputError("crew", text, reason=tr("accepted: {accepted}", accepted=ACCEPTED)) from None
    quantity_at("person.limits.biggest_m").check(tr("biggest stem"), found)
    return found


def worker_words(worker: Worker, speech: Speech) -> str:
    """One of the crew as they would be typed."""
    limits, said = worker.limits, [worker.name]
    if limits.trained != "not said":
        said.append(tr(TRAINED[limits.trained]))
    if limits.biggest_m is not None:
        said.append(f"{tr('up to')} {speech.show(limits.biggest_m, Kind.LENGTH)}")
    return ", ".join(said)


def with_worker(job: Job, place: int, text: str) -> Job:
    """One of the crew said anew, or one more where the place is past the last; nobody where nothing is typed.

    Raises InputError where it cannot be read, or somebody is there twice.
    """
    crew = [*job.block.crew]
    new = [worker_of(text, job.units)] if text.strip() else []
    crew[place : place + 1] = new
    names = [each.name for each in crew]
    if len(set(names)) < len(names):
        raise InputError("crew", text, reason=tr("that name is there already; accepted: a name of their own for each"))
    if len(crew) > MOST:
        raise InputError("crew", len(crew), reason=tr("accepted: up to {most} of them", most=MOST))
    return replace(job, block=replace(job.block, crew=tuple(crew)))


def whose_of(job: Job, block: Block, found: Ordered, tree: int) -> Whose | None:
    """Whose a tree of the block is on the lay it is given; None where no crew is said."""
    if not job.block.crew:
        return None
    me = block.trees[tree]
    (grade,) = graded([case_alone(job, job.plan(me.id))])
    return whose(job.block.crew, grade, me.lays[found.plan.lays[tree]])


def whose_words(whose: Whose | None, speech: Speech) -> str:
    """Whose a tree is, in a sentence."""
    if whose is None:
        return speech.phrase("block.no_crew")
    grade = phrase(f"grade.{whose.grade}")
    if whose.can:
        return speech.phrase(phrase("block.whose", grade=grade, names=" or ".join(whose.can)))
    key = "block.whose_unsaid" if whose.unsaid else "block.whose_nobody"
    return speech.phrase(phrase(key, grade=grade, names=", ".join(whose.unsaid)))


def crew_words(job: Job, speech: Speech) -> str:
    """Whether there are enough of them; empty where there are."""
    count = len(job.block.crew)
    return speech.phrase("block.no_crew") if not count else speech.phrase("block.crew_alone") if count == 1 else ""
