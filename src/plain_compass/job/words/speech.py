"""Speech: the catalogue at work: vocabulary, and sentences with quantities in a person's own units."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import TYPE_CHECKING

from ...core.base.errors import InputError
from ...core.base.frozen import dataclass
from ...core.base.levels import Level
from ...core.base.phrase import Phrase, Row, Value
from ...core.base.quantity import KINDS, Quantity
from ...core.judge.findings import Finding, Verdict
from ..language import tr
from ..typed import TypedError
from ..units import shown
from .catalogue import capital, glossary, listed, sentences, sentences_in_english, small

if TYPE_CHECKING:
    from ...core.advice.mend import Mends  # what only those who ask for advice need

PLACE = re.compile(r"\{(\w+)(?::(\w+))?\}")
"""A placeholder in a sentence: its name, and the kind of its quantity or how its words begin."""


@dataclass(frozen=True, slots=True)
class Speech:
    """How this person is spoken to: units and vocabulary."""

    units: str = "metric"
    words: str = "hinge"

    def say(self, template: str) -> str:
        """A text in the language spoken, with ``[term]`` replaced by the vocabulary's word.

        ``[Term]`` begins with a capital; other brackets stay.
        """
        return re.sub(r"\[([A-Za-z ]+)\]", lambda match: self._term(match[1]), tr(template))

    def _term(self, name: str) -> str:
        term = glossary()["terms"].get(name.lower())
        if not term:
            return f"[{name}]"
        word: str = term[self.words]
        return word[:1].upper() + word[1:] if name[:1].isupper() else word

    def show(self, value: float | None, kind: str) -> str:
        """A quantity with its unit."""
        return shown(value, kind, self.units)

    def tell(self, what: Phrase | str) -> str:
        """The words of a phrase, or of a key of the catalogue, to stand inside a sentence."""
        return _filled(self, what if isinstance(what, Phrase) else Phrase(what))

    def phrase(self, what: Phrase | str) -> str:
        """A whole sentence: the same begun with a capital."""
        return capital(self.tell(what))

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
        return tr(
            "{about}{value} against {limit}",
            about=about,
            value=self.show(finding.value, finding.unit),
            limit=self.show(finding.limit, finding.unit),
        )

    def lead(self, verdict: Verdict) -> str:
        """How the verdict begins."""
        if verdict.level == Level.CLEAR:
            key = "verdict.ready" if verdict.duties > 1 else "verdict.ready_one" if verdict.duties else "verdict.done"
            return self.phrase(Phrase(key, (("count", float(verdict.duties)),)))
        return self.phrase(f"verdict.{verdict.level}")

    def verdict(self, verdict: Verdict) -> str:
        """The verdict as one or two sentences: what stands against the plan, or what is still to be done."""
        if verdict.ruling is None:
            return self.lead(verdict)
        more = f"verdict.more_{verdict.level}" + ("s" if verdict.more > 1 else "")
        parts = [self.lead(verdict), self.phrase(verdict.ruling.sentence), self.odds(verdict.ruling)]
        if verdict.more and verdict.level != Level.CLEAR:
            parts.append(self.phrase(Phrase(more, (("count", float(verdict.more)),))))
        return " ".join(part for part in parts if part)

    def no_mend(self, mends: Mends) -> str:
        """What is said where nothing at hand mends a limit: what would, if anything does; nothing beside mends."""
        if mends.mends:
            return ""
        if not mends.would:
            return self.phrase("mend.nothing")
        return self.phrase(Phrase("mend.would", (("what", mends.would[0].asked),)))

    def odds(self, finding: Finding) -> str:
        """How likely a limit is to fail, as a short sentence; nothing where that is not reckoned, or next to never."""
        if finding.chance is None or finding.level == Level.CLEAR or finding.id.startswith("fall."):
            return ""
        return self.phrase(Phrase("verdict.odds", (("chance", finding.chance),)))

    def error(self, error: Exception, label: str = "") -> str:
        """An error as a sentence in this person's units, naming the field, the value and what would be accepted."""
        if isinstance(error, TypedError) or not isinstance(error, InputError):
            return str(error)
        name = self.say(label) if label else error.field
        given = self._given(error)
        because = f": {self.say(error.reason)}" if error.reason else ""
        if error.low is None and error.high is None and "accepted" in error.reason:
            # What would be accepted is said already.
            return f"{capital(name)} {given}{because}."
        return tr(
            "{name} {given}{because}; accepted: {accepted}.",
            name=capital(name),
            given=given,
            because=because,
            accepted=self._accepted(error),
        )

    def _given(self, error: InputError) -> str:
        given = error.given
        is_number = isinstance(given, (int, float)) and not isinstance(given, bool)
        return self.show(float(given), error.kind) if is_number else f"“{given}”"  # type: ignore[arg-type]

    def _accepted(self, error: InputError) -> str:
        low, high = error.low, error.high
        if low is not None and high is not None:
            return tr("{low} to {high}", low=self.show(low, error.kind), high=self.show(high, error.kind))
        if high is not None:
            return tr("up to {high}", high=self.show(high, error.kind))
        return tr("{low} or more", low=self.show(low, error.kind)) if low is not None else tr("something else")


@lru_cache(maxsize=4096)
def _filled(speech: Speech, phrase: Phrase) -> str:
    """A phrase in someone's speech; remembered, since most stay the same while one thing is dragged."""
    sentence = sentences()[phrase.key]
    try:
        return _put_in(speech, sentence, phrase)
    except KeyError:
        english = sentences_in_english().get(phrase.key, sentence)
        if english == sentence:
            raise
        # A language that names what is not there is told of by its check, and must not end a day's work.
        return _put_in(speech, english, phrase)


def _put_in(speech: Speech, sentence: str, phrase: Phrase) -> str:
    values = dict(phrase.values)
    return PLACE.sub(lambda place: _shown(speech, values[place[1]], place[2] or ""), speech.say(sentence))


def _shown(speech: Speech, value: Value, how: str) -> str:
    """A value inside a sentence. A person's own words are put in as they are, brackets and all."""
    if isinstance(value, Phrase):
        text = speech.tell(value)
        return capital(text) if how == "capital" else small(text) if how == "small" else text
    if isinstance(value, Row):
        return ", ".join(_shown(speech, each, "") for each in value.items)
    if isinstance(value, tuple):
        return listed([_shown(speech, each, "") for each in value])
    if isinstance(value, str):
        # A name; or a word of the core's own, such as a kind of obstacle nobody has named.
        return tr(value)
    if how not in KINDS:
        raise KeyError(f"a quantity wants a kind in its place, not {how!r}")
    return speech.show(value, how)
