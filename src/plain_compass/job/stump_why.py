"""Why one tree of a job lies where it lies: reckoned, and said in words."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ..core.base.phrase import Phrase, phrase
from ..core.base.quantity import Kind
from ..core.stump.as_cut import AsCut
from ..core.stump.why import Explanation, Why, explanations, why
from ..core.tree.moved import ACROSS
from .document import Job, case_of
from .fields import quantity_at
from .report import plain
from .spreads import named_input, plan_spreads
from .words.catalogue import capital

TOLD = 2
"""Inputs of the tree that are told for what is left over: the likeliest."""
LEAST_TOLD_DEG = 0.05
"""A share that would be told as nothing is left out."""


def why_of(job: Job, tree_id: str) -> tuple[Why, tuple[Explanation, ...]]:
    """The miss of a tree shared out, and what of the tree would explain the rest. Raises InputError."""
    case, plan = case_of(job, tree_id), job.plan(tree_id)
    found = why(case, plan.as_cut)
    return found, explanations(case, plan.as_cut, found, plan_spreads(plan))


def sentences_of(job: Job, tree_id: str) -> tuple[str, ...]:
    """The same in sentences, in this person's units and vocabulary."""
    speech, as_cut = job.speech, job.plan(tree_id).as_cut
    if not as_cut.is_read:
        return (speech.phrase("why.nothing_read"),)
    return _told(job, tree_id, *why_of(job, tree_id))


def _told(job: Job, tree_id: str, found: Why, would: tuple[Explanation, ...]) -> tuple[str, ...]:
    speech = job.speech
    told = [speech.phrase(_miss(found))]
    if not found.goes:
        told.append(speech.phrase("why.stays"))
    return (*told, *(speech.phrase(_would(each, job, tree_id)) for each in would[:TOLD]))


def _miss(found: Why) -> Phrase:
    shares = {"planned": found.planned_deg, **found.shares, "rest": found.unexplained_deg or 0.0}
    told = [name for name, share in shares.items() if abs(share) >= LEAST_TOLD_DEG] or ["planned"]
    parts = tuple(phrase(f"why.{name}", share=shares[name]) for name in told)
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
    found, would = why_of(job, tree_id)
    plan = job.plan(tree_id)
    read = {name: value for name, value in asdict(plan.as_cut).items() if value != getattr(AsCut(), name)}
    return {
        "tree": tree_id,
        "as_cut": read,
        "miss_deg": found.miss_deg,
        "miss_m": found.miss_m(plan.tree.height_m),
        "planned_deg": found.planned_deg,
        "shares_deg": found.shares,
        "told_deg": found.told_deg,
        "unexplained_deg": found.unexplained_deg,
        "goes": found.goes,
        "would_explain": [plain(each) | {"chance": each.chance} for each in would],
        "sentences": list(_told(job, tree_id, found, would) if plan.as_cut.is_read else sentences_of(job, tree_id)),
    }
