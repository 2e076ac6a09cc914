"""Entries of the stump log: made from a tree of a job, judged again, and what each says."""

from __future__ import annotations

import json
from dataclasses import asdict, replace
from typing import Any

from .. import __version__
from ..core.base.errors import InputError
from ..core.plan.case import Case
from ..core.stump.as_cut import AsCut
from ..core.stump.facts import Facts, facts_of
from ..core.stump.told import Told
from ..core.tree.wood import Indicative
from .built import entry_from_plain, without_head
from .document import Job, LogEntry, case_of, with_tree
from .fields import is_choice, is_number, label_of, quantity_at
from .language import tr
from .plain import entry_to_plain
from .stamp import constants_text, fingerprint
from .tables import indicative, practice_of, wood_of
from .words import Speech

FORMAT = "plain-compass-stump"
VERSION = 1
"""Of one entry as it is written by itself."""


def constants_of(entry: LogEntry) -> Indicative:
    """The constants an entry was told by; what it does not say is as it is in force now."""
    if not entry.constants_used:
        return indicative()
    known = asdict(indicative())
    told = json.loads(entry.constants_used)
    return Indicative(**(known | {name: value for name, value in told.items() if name in known}))


def entry_of(job: Job, tree_id: str, told: Told, made: str, id: str) -> LogEntry:
    """The tree of a job with its stump, frozen."""
    case, plan = case_of(job, tree_id), job.plan(tree_id)
    used = constants_text(case.constants)
    return LogEntry(
        tree_id=tree_id,
        id=id,
        made=made,
        place=job.name,
        practice=job.practice,
        model=__version__,
        constants=fingerprint(used),
        constants_used=used,
        plan=plan,
        kit=job.kit,
        site=case.site,
        told=told,
    )


def logged(job: Job, entry: LogEntry) -> Job:
    """The job with an entry, in the place of the one it corrects; its tree is down."""
    others = tuple(each for each in job.log if each.id != entry.id)
    plan = job.plan(entry.tree_id)
    return replace(with_tree(job, plan.id, replace(plan, state="down")), log=(*others, entry))


def entry_of_tree(job: Job, tree_id: str) -> LogEntry | None:
    """The newest entry of a tree of the job."""
    return next((each for each in reversed(job.log) if each.tree_id == tree_id and each.id), None)


def is_in_log(job: Job, tree_id: str) -> bool:
    """Whether the log has the tree's stump as it is read now."""
    entry = entry_of_tree(job, tree_id)
    return entry is not None and entry.plan.as_cut == job.plan(tree_id).as_cut


def case_of_entry(entry: LogEntry, constants: Indicative | None = None) -> Case:
    """The case an entry was planned on, by these constants or by those in force now."""
    return Case(
        tree=entry.plan.tree,
        wood=wood_of(entry.plan.tree.species),
        site=entry.site,
        cut=entry.plan.cut,
        kit=entry.kit,
        practice=practice_of(entry.practice),
        constants=constants or indicative(),
        at=entry.plan.at,
        rope=entry.plan.rope,
    )


def facts_of_entry(entry: LogEntry) -> Facts:
    """What an entry says; nothing of a plan that cannot be assessed."""
    try:
        return facts_of(case_of_entry(entry), entry.plan.as_cut, entry.told)
    except InputError:
        return Facts()


def forms_of(entry: LogEntry) -> str:
    """The cut in short: face, hinge and back."""
    return "/".join(entry.plan.cut.forms.values())


def entry_to_words(entry: LogEntry, speech: Speech) -> tuple[str, ...]:
    """An entry in lines: which tree, what was read, what the plan was."""
    plan = entry.plan
    head = tr(
        "{id}, {name}, {forms}; {place}; entry {entry}",
        id=plan.id,
        name=tr(wood_of(plan.tree.species).name),
        forms=forms_of(entry),
        place=entry.place,
        entry=entry.id,
    )
    read = {path: value for path, value in read_fields(plan.as_cut).items() if not is_choice(f"as_cut.{path}")}
    lines = [f"{speech.say(label_of(f'as_cut.{name}'))}: {_shown(name, value, speech)}" for name, value in read.items()]
    return (head, *lines)


def read_fields(as_cut: AsCut) -> dict[str, Any]:
    """What was read, by field; nothing of what nobody looked at."""
    bare = AsCut()
    return {name: value for name, value in asdict(as_cut).items() if value != getattr(bare, name)}


def _shown(name: str, value: Any, speech: Speech) -> str:
    path = f"as_cut.{name}"
    return speech.show(value, quantity_at(path).kind) if is_number(path) else str(value)


def entry_text(entry: LogEntry) -> str:
    """An entry as one line of JSON."""
    plain = {"format": FORMAT, "version": VERSION, **entry_to_plain(entry)}
    return json.dumps(plain, ensure_ascii=False, allow_nan=False, separators=(",", ":"))


def entry_from(raw: dict[str, Any]) -> LogEntry:
    """An entry from plain data. Raises DocumentError naming the first field that is wrong."""
    return entry_from_plain(without_head(raw))
