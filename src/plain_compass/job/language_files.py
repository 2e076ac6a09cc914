"""Making and checking the file of a language: everything it may say, and what is missing, surplus or ill-filled."""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterator, Mapping
from functools import cache
from string import Formatter
from typing import Any

from ..core.base.frozen import dataclass
from .language import FORMAT, VERSION, Language
from .tables import DATA
from .words.catalogue import glossary_in_english, sentences_in_english

PAGES = ("lessons.md", "model.md")
"""Long texts that ship, given whole in another language."""
_TERM = re.compile(r"\[([A-Za-z ]+)\]")


@dataclass(frozen=True, slots=True)
class Check:
    """What is to be mended in a language; every entry as ``table: key``, with why where that is not said already.

    Attributes:
        missing: said in English until they are written.
        surplus: not said by this version of the program.
        unfilled: whose placeholders differ from those of the English.
        untaught: which name a trade word that the English does not, or no known one.
    """

    missing: tuple[str, ...]
    surplus: tuple[str, ...]
    unfilled: tuple[str, ...]
    untaught: tuple[str, ...]

    @property
    def is_good(self) -> bool:
        """Whether nothing is to be mended."""
        return not (self.missing or self.surplus or self.unfilled or self.untaught)


@cache
def english() -> dict[str, dict[str, str]]:
    """Everything that can be said otherwise: table of a language file -> key -> English."""
    texts: dict[str, str] = json.loads((DATA / "words" / "texts.json").read_text(encoding="utf-8"))
    said = {f"glossary.{key}": text for key, text in _leaves(glossary_in_english(), ())}
    return {
        "texts": {text: text for text in texts},
        "sentences": sentences_in_english() | said,
        "pages": {name: (DATA / "help" / name).read_text(encoding="utf-8") for name in PAGES},
    }


def made(code: str, name: str, say: Callable[[str], str]) -> str:
    """The content of a language file in which every text is what ``say`` makes of the English."""
    tables = {table: {key: say(text) for key, text in texts.items()} for table, texts in english().items()}
    head: dict[str, Any] = {"format": FORMAT, "version": VERSION, "code": code, "name": name}
    return json.dumps(head | tables, ensure_ascii=False, indent=1) + "\n"


def template(code: str, name: str, known: Language | None = None) -> str:
    """A language file to fill in: what is known already, and an empty text for everything else."""
    said = {table: dict(_table(known, table)) if known else {} for table in english()}
    tables = {table: {key: said[table].get(key, "") for key in texts} for table, texts in english().items()}
    head: dict[str, Any] = {"format": FORMAT, "version": VERSION, "code": code, "name": name}
    return json.dumps(head | tables, ensure_ascii=False, indent=1) + "\n"


def checked(language: Language) -> Check:
    """A language held against what this program says."""
    missing, surplus, unfilled, untaught = [], [], [], []
    for table, texts in english().items():
        said = _table(language, table)
        missing += [f"{table}: {key}" for key in texts if key not in said]
        surplus += [f"{table}: {key}" for key in said if key not in texts]
        both = [(key, texts[key], said[key]) for key in said if key in texts and table != "pages"]
        unfilled += [
            f"{table}: {key}: it names {_named(other)}, the English {_named(text)}"
            for key, text, other in both
            if _holes(text) != _holes(other)
        ]
        untaught += [f"{table}: {key}" for key, text, other in both if not _terms(other) <= _terms(text)]
    return Check(tuple(missing), tuple(surplus), tuple(unfilled), tuple(untaught))


def _table(language: Language, table: str) -> Mapping[str, str]:
    found: Mapping[str, str] = getattr(language, table)
    return found


def _leaves(content: Any, way: tuple[str, ...]) -> Iterator[tuple[str, str]]:
    if isinstance(content, dict):
        for name, each in content.items():
            yield from _leaves(each, (*way, name))
    elif isinstance(content, list):
        for number, each in enumerate(content):
            yield from _leaves(each, (*way, str(number)))
    else:
        yield ".".join(way), content


def _holes(text: str) -> frozenset[str]:
    """The placeholders of a text, each with how it is put in."""
    try:
        parts = list(Formatter().parse(text))
    except ValueError:
        return frozenset({"braces that do not close"})
    return frozenset(f"{name}:{spec}" if spec else name for _, name, spec, _ in parts if name is not None)


def _named(text: str) -> str:
    return ", ".join(sorted(_holes(text))) or "nothing"


def _terms(text: str) -> frozenset[str]:
    return frozenset(name.lower() for name in _TERM.findall(text))
