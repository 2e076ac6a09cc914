"""The glossary at work: vocabulary, and sentences with quantities in a person's own units."""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Any

from ..core.base.errors import InputError
from ..core.base.phrase import Phrase
from ..core.base.quantity import Quantity
from ..core.judge.findings import Finding, Verdict
from .tables import DATA
from .typed import TypedError
from .units import shown


@cache
def glossary() -> dict[str, Any]:
    """The glossary file: terms, vocabularies, labels and cautions."""
    content: dict[str, Any] = json.loads((DATA / "words.json").read_text(encoding="utf-8"))
    return content


def vocabularies() -> dict[str, str]:
    """Every vocabulary, key -> how it is described."""
    found: dict[str, str] = glossary()["vocabularies"]
    return found


@dataclass(frozen=True, slots=True)
class Speech:
    """How this person is spoken to: units and vocabulary."""

    units: str = "metric"
    words: str = "hinge"

    def say(self, template: str) -> str:
        """Replace ``[term]`` by the vocabulary's word; ``[Term]`` begins with a capital; other brackets stay."""
        return re.sub(r"\[([A-Za-z ]+)\]", lambda match: self._term(match[1]), template)

    def _term(self, name: str) -> str:
        term = glossary()["terms"].get(name.lower())
        if not term:
            return f"[{name}]"
        word: str = term[self.words]
        return word[:1].upper() + word[1:] if name[:1].isupper() else word

    def show(self, value: float | None, kind: str) -> str:
        """A quantity with its unit."""
        return shown(value, kind, self.units)

    def phrase(self, phrase: Phrase) -> str:
        """A whole sentence."""
        return _sentence(self, phrase)

    def label(self, quantity: Quantity) -> str:
        """The name of an input."""
        return self.say(quantity.label)

    def meanings(self, template: str) -> list[str]:
        """What the vocabulary words of a template mean, a sentence each."""
        terms = glossary()["terms"]
        names = [name.lower() for name in re.findall(r"\[([A-Za-z ]+)\]", template)]
        return [f"{self._term(name.title())}: {self.say(terms[name]['meaning'])}" for name in names if name in terms]

    def named(self, table: str, key: str) -> str:
        """A label of one of the glossary's tables, such as ``groups`` or ``marks``."""
        return self.say(glossary()[table][key])

    def ruling(self, finding_id: str) -> str:
        """What a finding says against a plan, as a clause; its limit state where there is no clause of its own."""
        clause = glossary()["ruled_by"].get(finding_id)
        group = finding_id.partition(".")[0]
        return self.say(clause) if clause else self.named("groups", group).lower()

    def cautions(self) -> tuple[str, ...]:
        """What every plan and card carries."""
        return tuple(self.say(text) for text in glossary()["cautions"])

    def compared(self, finding: Finding) -> str:
        """Value against limit, short; empty when there is nothing to compare."""
        if finding.value is None or finding.limit is None:
            return ""
        about = "~ " if finding.indicative else ""
        return f"{about}{self.show(finding.value, finding.kind)} against {self.show(finding.limit, finding.kind)}"

    def verdict(self, verdict: Verdict) -> str:
        """The verdict as one or two sentences."""
        text = f"{verdict.lead} {self.phrase(verdict.ruling.sentence)}"
        if verdict.more and verdict.level != "clear":
            what = {"stop": "stop", "watch": "to watch", "unknown": "unknown"}[verdict.level]
            plural = "s" if what == "stop" and verdict.more > 1 else ""
            text += f" And {verdict.more} more {what}{plural}."
        return text

    def error(self, error: Exception, label: str = "") -> str:
        """An error as a sentence in this person's units, naming the field, the value and what would be accepted."""
        if isinstance(error, TypedError) or not isinstance(error, InputError):
            return str(error)
        name = self.say(label) if label else error.field
        given = self._given(error)
        because = f": {self.say(error.reason)}" if error.reason else ""
        return f"{name[:1].upper()}{name[1:]} {given}{because}; accepted: {self._accepted(error)}."

    def _given(self, error: InputError) -> str:
        given = error.given
        is_number = isinstance(given, (int, float)) and not isinstance(given, bool)
        return self.show(float(given), error.kind) if is_number else f"“{given}”"  # type: ignore[arg-type]

    def _accepted(self, error: InputError) -> str:
        low, high = error.low, error.high
        if low is not None and high is not None:
            return f"{self.show(low, error.kind)} to {self.show(high, error.kind)}"
        if high is not None:
            return f"up to {self.show(high, error.kind)}"
        return f"{self.show(low, error.kind)} or more" if low is not None else "something else"


@lru_cache(maxsize=2048)
def _sentence(speech: Speech, phrase: Phrase) -> str:
    """A phrase in someone's speech; remembered, since most stay the same while one thing is dragged."""
    values = {name: speech.show(value, kind) for name, value, kind in phrase.values}
    text = speech.say(phrase.template).format(**values)
    return text[:1].upper() + text[1:]
