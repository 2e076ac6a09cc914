"""What pages the handbook has, and which of them is about a field, a finding, a form of cut or a step of the work."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from functools import cache
from typing import get_args, get_origin, get_type_hints

from ...core.base.levels import Group
from ...core.cuts import PARTS, forms_of
from ...core.judge.limits import LIMITS
from ...core.judge.places import where_of
from ..document import Job, TreePlan
from ..language import spoken, tr
from ..tables import DATA
from ..words.catalogue import glossary, sentences

LESSON_OF = {"look": 1, "ground": 2, "cut": 4, "stages": 8, "fall": 9, "stump": 10}
"""Step of the work -> the lesson about it."""
CHAPTERS = {
    "index": tr("Handbook"),
    "lessons": tr("Ten lessons"),
    "groups": tr("The pegs"),
    "findings": tr("Findings"),
    "forms": tr("Cuts"),
    "fields": tr("Fields"),
    "schools": tr("Where the trade disagrees"),
    "terms": tr("Words"),
    "model": tr("How it reckons"),
    "constants": tr("Constants"),
}
"""Chapter -> its title, in the order in which they are read."""


@cache
def field_paths() -> tuple[str, ...]:
    """Every field a person can set, as its path in a document without numbers of rows."""
    return tuple(dict.fromkeys([*_paths(TreePlan, ""), *(p for p in _paths(Job, "") if not p.startswith(_OWN))]))


_OWN = ("trees", "log", "hand", "block.progress", "block.forecast")
"""What no field of the window sets."""


def _paths(cls: type, head: str) -> Iterator[str]:
    hints = get_type_hints(cls)
    for item in fields(cls):
        path, hint = f"{head}{item.name}", hints[item.name]
        inner = get_args(hint)[0] if get_origin(hint) is tuple else hint
        if "quantity" in item.metadata or "choice" in item.metadata:
            yield path
        elif is_dataclass(inner):
            yield from _paths(inner, f"{path}.")  # type: ignore[arg-type]


@cache
def finding_ids() -> tuple[str, ...]:
    """Every finding by its id, as far as it is one of its own."""
    changed = [key.removesuffix(".change") for key in sentences() if key.endswith(".change") and key.count(".") == 2]
    return tuple(dict.fromkeys([*LIMITS, *changed]))


@cache
def _settled() -> dict[str, tuple[str, ...]]:
    found: dict[str, list[str]] = {}
    for id in finding_ids():
        found.setdefault(where_of(id).field, []).append(id)
    return {path: tuple(ids) for path, ids in found.items()}


def settled_by(path: str) -> tuple[str, ...]:
    """Findings that are put right in a field."""
    return _settled().get(path, ())


def finding_page(id: str) -> str:
    """The page of a finding: of its own, or that of the longest beginning that has one; its limit state's else."""
    parts = id.split(".")
    for count in range(len(parts), 0, -1):
        if ".".join(parts[:count]) in finding_ids():
            return f"finding:{'.'.join(parts[:count])}"
    heads = [each for each in finding_ids() if each.split(".")[0] == parts[0]]
    return f"finding:{heads[0]}" if heads else "findings"


def field_page(path: str) -> str:
    """The page of a field, whichever row of a list it is in."""
    bare = ".".join(part for part in path.split(".") if not part.isdigit())
    return f"field:{bare}" if bare in field_paths() else "fields"


def form_page(key: str) -> str:
    """The page of a form of cut: by ``part.key``, or by its key alone."""
    ids = [f"{part}.{form.key}" for part in PARTS for form in forms_of(part)]
    return next((f"form:{id}" for id in ids if key in (id, id.partition(".")[2])), "forms")


def step_page(step: str) -> str:
    """The lesson of a step of the work, or the handbook's first page."""
    return f"lesson:{LESSON_OF[step]}" if step in LESSON_OF else "index"


def shipped_text(name: str) -> str:
    """A long text that ships, whole, in the language spoken."""
    said = spoken().pages.get(name)
    return (DATA / "help" / name).read_text(encoding="utf-8") if said is None else said


@cache
def lessons() -> tuple[tuple[str, str], ...]:
    """(title, text) of each lesson."""
    text = shipped_text("lessons.md")
    found = []
    for part in text.split("\n# "):
        title, _, body = part.removeprefix("# ").partition("\n")
        found.append((title.strip(), body.strip()))
    return tuple(found)


def page_ids() -> tuple[str, ...]:
    """Every page there is."""
    forms = [f"form:{part}.{form.key}" for part in PARTS for form in forms_of(part)]
    return (
        *CHAPTERS,
        *(f"lesson:{number}" for number in range(1, len(lessons()) + 1)),
        *(f"group:{group}" for group in Group),
        *(f"finding:{id}" for id in finding_ids()),
        *forms,
        *(f"field:{path}" for path in field_paths()),
        *(f"term:{term}" for term in glossary()["terms"]),
    )
