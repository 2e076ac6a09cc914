"""Where a finding comes from: its sentence, its share and chance, the relation, and the inputs with their readings."""

from __future__ import annotations

from ..core.assess import Assessment
from ..core.base.errors import InputError
from ..core.base.paths import value_at
from ..core.base.quantity import Kind
from ..core.judge.chances import Chances
from ..core.judge.findings import Finding
from ..core.judge.limits import LIMITS
from ..core.judge.places import where_of
from .document import Job, TreePlan
from .fall import named_driver
from .fields import label_of, quantity_at
from .language import tr
from .spreads import plan_spreads
from .step_names import STEP_NAMES
from .units import chance_words

LEAST_SHARE = 0.05
"""Part of what is not known of a limit below which an input is not worth a line."""


def explained(job: Job, plan: TreePlan, result: Assessment, chances: Chances | None, id: str) -> tuple[str, ...]:
    """What leads back from a finding, a line each.

    Raises InputError, naming what there is, for an id that is no finding of this tree.
    """
    found = next((each for each in result.findings if each.id == id), None)
    if found is None:
        names = ", ".join(sorted(each.id for each in result.findings))
        raise InputError("finding", id, reason=tr("this tree's findings are {names}", names=names))
    lines = [
        job.speech.phrase(found.sentence),
        *_share(found, job),
        *_relation(id, job),
        *_inputs(job, plan, chances, id),
    ]
    where = where_of(id)
    label = job.speech.say(label_of(where.field)) if where.field else ""
    at = ", ".join(filter(None, (tr(STEP_NAMES[where.step]), label)))
    return (*lines, tr("Put right at: {where}.", where=at), job.speech.phrase(found.change))


def _share(found: Finding, job: Job) -> list[str]:
    if found.use is None:
        return [tr("Seen or answered: there is no number to hold against a limit.")]
    lines = [tr("Uses {use} of its limit.", use=job.speech.show(found.use, Kind.RATIO))]
    if found.chance is not None:
        lines.append(tr("Fails {chance}.", chance=chance_words(found.chance)))
    elif found.id in LIMITS:
        lines.append(tr("It holds or it does not: no chance is asked of it."))
    return lines


def _relation(id: str, job: Job) -> list[str]:
    if id not in LIMITS:
        return []
    return [tr("Worked out by: {relation} (docs/model.md).", relation=job.speech.say(LIMITS[id].relation))]


def _inputs(job: Job, plan: TreePlan, chances: Chances | None, id: str) -> list[str]:
    """What it hangs on, the most first: value, spread, and how it was measured where that is known."""
    if chances is None or id not in chances.ways:
        return []
    shares, spreads, lines = chances.shares(id), plan_spreads(plan), []
    for path, share in sorted(shares.items(), key=lambda each: -each[1]):
        if share < LEAST_SHARE:
            break
        name, part = named_driver(plan, path, job), job.speech.show(share, Kind.RATIO)
        value = _value(job, plan, path, spreads.get(path))
        lines.append(tr("{name}: {value}; {part} of what is not known.", name=name, value=value, part=part))
    return lines


def _value(job: Job, plan: TreePlan, path: str, spread: float | None) -> str:
    """An input as it was measured, with its spread and the ways it was read."""
    try:
        kind = quantity_at(path).kind
        shown = job.speech.show(float(value_at(plan, path)), kind)
    except (KeyError, AttributeError, StopIteration, TypeError):
        return tr("by its kind")
    if spread:
        shown = tr("{value} ± {spread}", value=shown, spread=job.speech.show(spread, kind))
    whats = {path, "lean" if path.startswith("tree.lean") else path}
    ways = dict.fromkeys(reading.by for reading in plan.readings if reading.used and reading.what in whats)
    return tr("{value} ({ways})", value=shown, ways=", ".join(ways)) if ways else shown
