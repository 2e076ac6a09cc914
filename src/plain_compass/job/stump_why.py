"""Why one tree of a job lies where it lies: reckoned, and said in words."""

from __future__ import annotations

from collections.abc import Generator
from typing import Any, NamedTuple

from ..core.base.phrase import Phrase, phrase
from ..core.base.quantity import Kind
from ..core.base.steps import finished
from ..core.stump.mistakes import mistakes_of
from ..core.stump.why import Explanation, Why, explanations_in_steps, why_in_steps
from ..core.tree.moved import ACROSS
from .document import Job, case_of
from .fields import quantity_at
from .log_entries import read_fields
from .report import plain
from .spreads import named_input, plan_spreads
from .words.catalogue import capital

TOLD = 2
"""Inputs of the tree that are told for what is left over: the likeliest."""
LEAST_TOLD_DEG = 0.05
"""A share that would be told as nothing is left out."""


class Story(NamedTuple):
    """A miss shared out, what of the tree would explain the rest, and which mistakes the stump looks like."""

    why: Why
    would: tuple[Explanation, ...]
    mistakes: tuple[str, ...]


def story_of(job: Job, tree_id: str) -> Story:
    """What is to be said of a stump. Raises InputError."""
    return finished(story_in_steps(job, tree_id))


def story_in_steps(job: Job, tree_id: str) -> Generator[None, None, Story]:
    """The same a fall at a time."""
    case, plan = case_of(job, tree_id), job.plan(tree_id)
    found = yield from why_in_steps(case, plan.as_cut)
    would = yield from explanations_in_steps(case, plan.as_cut, found, plan_spreads(plan, job.hand))
    return Story(found, would, mistakes_of(case, plan.as_cut, found.shares))


def sentences_of(job: Job, tree_id: str, story: Story | None = None) -> tuple[str, ...]:
    """The same in sentences, in this person's units and vocabulary."""
    if not job.plan(tree_id).as_cut.is_read:
        return (job.speech.phrase("why.nothing_read"),)
    return _told(job, tree_id, story or story_of(job, tree_id))


def _told(job: Job, tree_id: str, story: Story) -> tuple[str, ...]:
    speech = job.speech
    told = [speech.phrase(_miss(story.why))]
    if not story.why.goes:
        told.append(speech.phrase("why.stays"))
    told += [speech.phrase(_would(each, job, tree_id)) for each in story.would[:TOLD]]
    told.append(speech.phrase(_looks(story.mistakes)))
    if story.mistakes:
        told.append(speech.phrase(phrase("mistake.drill", drill=Phrase(f"drill.{story.mistakes[0]}"))))
    return tuple(told)


def _looks(mistakes: tuple[str, ...]) -> Phrase:
    if not mistakes:
        return Phrase("mistake.none")
    return phrase("mistake.looks", names=tuple(Phrase(f"mistake.{key}") for key in mistakes))


def parts_of(found: Why) -> dict[str, float]:
    """Every part of a miss that is worth telling, by name, in the order in which they are made: degrees."""
    shares = {"planned": found.planned_deg, **found.shares, "rest": found.unexplained_deg or 0.0}
    return {name: share for name, share in shares.items() if abs(share) >= LEAST_TOLD_DEG}


def _miss(found: Why) -> Phrase:
    told = parts_of(found) or {"planned": found.planned_deg}
    parts = tuple(phrase("why.part", share=share, name=Phrase(f"why.name.{name}")) for name, share in told.items())
    if found.miss_deg is None:
        return phrase("why.not_read", told=found.told_deg, parts=parts)
    return phrase("why.miss", miss=found.miss_deg, parts=parts)


def _would(each: Explanation, job: Job, tree_id: str) -> Phrase:
    across = each.path.endswith(ACROSS)
    kind = Kind.ANGLE if across else quantity_at(each.path).kind
    return phrase(
        "why.would_more" if each.by > 0 else "why.would_less",
        name=capital(named_input(job.plan(tree_id).tree, each.path, job.speech)),
        by=job.speech.show(abs(each.by), kind),
        chance=job.speech.show(each.chance, Kind.CHANCE),
    )


def why_to_plain(job: Job, tree_id: str) -> dict[str, Any]:
    """The same as plain data for JSON; degrees, left of the lay positive."""
    story, plan = story_of(job, tree_id), job.plan(tree_id)
    found = story.why
    return {
        "tree": tree_id,
        "as_cut": read_fields(plan.as_cut),
        "miss_deg": found.miss_deg,
        "miss_m": found.miss_m(plan.tree.height_m),
        "planned_deg": found.planned_deg,
        "shares_deg": found.shares,
        "told_deg": found.told_deg,
        "unexplained_deg": found.unexplained_deg,
        "goes": found.goes,
        "would_explain": [plain(each) | {"chance": each.chance} for each in story.would],
        "mistakes": list(story.mistakes),
        "sentences": list(sentences_of(job, tree_id, story)),
    }
