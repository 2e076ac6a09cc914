"""Sets of cases as one file: open JSON, checked like a job, every case with a truth the core can tell."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import field, replace
from pathlib import Path
from typing import Any

from ..core.assess import check
from ..core.base.errors import InputError, PlainCompassError
from ..core.base.frozen import dataclass
from ..core.base.quantity import name
from ..core.practice.skills import Task
from ..core.stump.as_cut import AsCut
from .disk import JobFileError
from .document import Job, TreePlan
from .headed import Head, headed_text, read_headed
from .language import tr
from .practice_case import SetCase, asked_of, case_of_set, make_case
from .practice_words import truth_of

HEAD = Head("plain-compass-practice-set", 1, tr("is no set of practice"))
MOST = 1000
"""Cases in one set: more is no set for people."""
SOMEBODYS = ("faller", "saw", "felt", "words", "date", "hit", "posts")
"""What was read of a stump that says whose it was, or how it came out."""


@dataclass(frozen=True, slots=True)
class PracticeSet:
    """Some cases under a name."""

    name: str = name("Practice", "name")
    cases: tuple[SetCase, ...] = field(default_factory=tuple)


def made_set(task: str, level: int, seed: int, count: int) -> PracticeSet:
    """So many cases of one sort, their seeds one after another."""
    return _made(task, level, seed, [asked_of(task, place) for place in range(_checked(count))])


def mixed_set(level: int, seed: int, count: int) -> PracticeSet:
    """Cases of all sorts by turns."""
    tasks = [task for task in Task for _ in range(2 if task == Task.LOOK else 1)]
    places = range(_checked(count))
    asks = [asked_of(tasks[place % len(tasks)], place // len(tasks) + place) for place in places]
    return _made("mixed", level, seed, asks)


def _checked(count: int) -> int:
    if not 1 <= count <= MOST:
        raise InputError("cases", count, reason=tr("accepted: 1 to {most}", most=MOST))
    return count


def _made(name: str, level: int, seed: int, asks: Sequence[str]) -> PracticeSet:
    cases = tuple(make_case(each, level, seed + place) for place, each in enumerate(asks))
    return PracticeSet(tr("{name}, level {level}, seed {seed}", name=name, level=level, seed=seed), cases)


def set_text(practice: PracticeSet) -> str:
    """As a file."""
    return headed_text(HEAD, practice)


def read_set(path: Path) -> PracticeSet:
    """A set from a file. Raises JobFileError with a sentence naming the case and the field that is wrong."""
    found, file = read_headed(PracticeSet, path, HEAD), path.name
    if not 1 <= len(found.cases) <= MOST:
        raise JobFileError(
            tr("{file} has {count} cases; accepted: 1 to {most}.", file=file, count=len(found.cases), most=MOST)
        )
    for number, kept in enumerate(found.cases, 1):
        try:
            check_case_of_set(kept)
        except PlainCompassError as error:
            raise JobFileError(tr("{file}, case {number}: {error}", file=file, number=number, error=error)) from None
    return found


def check_case_of_set(kept: SetCase) -> None:
    """Raise InputError, naming the field, unless the core can say what is true of a case."""
    check(case_of_set(kept))
    truth_of(kept)


def case_from_tree(job: Job, plan: TreePlan, asks: str) -> SetCase:
    """A real tree, or a stump that was read, as a case: names, notes and readings taken out.

    Raises InputError where the core cannot say what is true of it.
    """
    bare = replace(plan, id="P-001", notes="", readings=(), duties=(), state="standing", as_cut=_nobodys(plan.as_cut))
    site = replace(job.site, name="", obstacles=(), origin_east_deg=None, origin_north_deg=None)
    kept = SetCase(asks=asks, practice=job.practice, plan=bare, site=site, kit=job.kit)
    check_case_of_set(kept)
    return kept


def _nobodys(as_cut: AsCut) -> AsCut:
    taken_out: dict[str, Any] = dict.fromkeys(SOMEBODYS, "")
    return replace(as_cut, **taken_out)


def with_case(practice: PracticeSet, kept: SetCase) -> PracticeSet:
    """One more case in a set."""
    return replace(practice, cases=(*practice.cases, kept))
