"""Measuring from typed text: readings with their spread in, answers with theirs out, several readings averaged."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..core.base.errors import PlainCompassError
from ..core.base.frozen import dataclass
from ..core.measuring.estimate import Reading, averaged
from ..core.measuring.lean import LeanReading, averaged_lean
from .language import tr
from .person import Person
from .readings import LEAN, Taken
from .spreads import spreads
from .typed import TypedError, parse_typed
from .ways import EYE, KEPT, METHODS, Answer, Wanted
from .words import Speech


class MeasureError(PlainCompassError, ValueError):
    """A measurement that was asked for without all it wants."""


def typed_reading(text: str, wanted: Wanted, units: str, person: Person | None = None) -> Reading:
    """A reading typed as ``20 m``, ``20 m ± 0.3 m`` or ``24 paces``; its spread comes from the table when not typed.

    Raises TypedError with a sentence when either part cannot be read.
    """
    person = person or Person()
    if wanted.kind == EYE:
        return _by_eye(text)
    typed = parse_typed(text, wanted.kind, units, pace_m=person.pace_m)
    if typed.spread is not None:
        return Reading(typed.value, typed.spread)
    if typed.paced:
        return Reading(typed.value, person.pace_spread_ratio * abs(typed.value))
    table, way = wanted.spread
    usual = float(spreads()[table][way])
    return Reading(typed.value, usual if table.endswith("_deg") else usual * abs(typed.value))


def _by_eye(text: str) -> Reading:
    classes = spreads()["lean_by_eye"]
    found = classes.get(text.strip().lower())
    if found is None:
        raise TypedError(text, EYE, "accepted: " + ", ".join(classes))
    return Reading(float(found[0]), float(found[1]))


def measure(
    thing: str, way: str, typed: Mapping[str, str], units: str, person: Person | None = None
) -> tuple[Answer, ...]:
    """Answer one measurement from typed text by name.

    Raises MeasureError when something is missing, InputError when it cannot be read or makes no sense.
    """
    method = METHODS[thing][way]
    readings = {}
    for name, wanted in method.wants.items():
        text = typed.get(name) or wanted.default
        if not text:
            why = tr("measuring {thing} by {way} wants ", thing=thing, way=way) + ", ".join(
                f"--{each}" for each in method.wants
            )
            raise MeasureError(tr("--{name} is missing: {why}.", name=name, why=why))
        readings[name] = typed_reading(text, wanted, units, person)
    return method.answer(readings)


@dataclass(frozen=True, slots=True)
class Repeated:
    """One thing measured several times: the averaged answers, and which of the times stood off the others."""

    answers: tuple[Answer, ...]
    outliers: tuple[int, ...]


def measure_repeated(thing: str, way: str, times: Sequence[Mapping[str, str]], units: str) -> Repeated:
    """Answer each time and average; see ``averaged`` for what is left out. Leans are averaged as vectors."""
    found = [measure(thing, way, typed, units) for typed in times]
    if len(found) == 1:
        return Repeated(found[0], ())
    if thing == "lean":
        readings = tuple(LeanReading(a.estimate.value, b.estimate.value, a.estimate.spread) for a, b, _ in found)
        lean, out = averaged_lean(readings)
        return Repeated(
            (Answer("lean_deg", "angle", lean.angle_deg), Answer("bearing_deg", "bearing", lean.bearing_deg)), out
        )
    means = [
        averaged(tuple(Reading(a.estimate.value, a.estimate.spread) for a in each)) for each in zip(*found, strict=True)
    ]
    answers = tuple(Answer(first.name, first.kind, mean.estimate) for first, mean in zip(found[0], means, strict=True))
    return Repeated(answers, means[0].outliers)


def describe(answers: tuple[Answer, ...], speech: Speech) -> str:
    """The answers as one line, with their spread and what decides it."""
    parts = []
    for answer in answers:
        name = answer.name.rsplit("_", 1)[0].replace("_", " ")
        value, spread = (speech.show(v, answer.kind) for v in (answer.estimate.value, answer.estimate.spread))
        driver = (
            tr(", mostly from the {driver}", driver=answer.estimate.driver) if len(answer.estimate.shares) > 1 else ""
        )
        parts.append(f"{name} {value} ± {spread}{driver if answer.estimate.driver else ''}")
    return "; ".join(parts)


def taken_from(answers: tuple[Answer, ...], way: str, note: str, at: str = "") -> Taken | None:
    """The answers as a reading to be kept; None where they are only worth telling."""
    what = KEPT.get(answers[0].name)
    if what is None:
        return None
    used = answers[:2] if what == LEAN else answers[:1]
    return Taken(
        what, way, tuple(each.estimate.value for each in used), tuple(each.estimate.spread for each in used), note, at
    )
