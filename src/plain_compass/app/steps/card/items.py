"""What the card says, item by item: made once of a snapshot, painted as often as the paper is looked at."""

from __future__ import annotations

from functools import lru_cache

from ....core.cuts.sequence import ground_plan, order_of_cuts, wedge_plan
from ...frame.store import Snapshot
from .flow import Item, heading, notes_in_pieces

KEPT = 2
"""Snapshots whose items are kept: the one on the screen, and one that is being written to a file."""


@lru_cache(maxsize=KEPT)
def plan_items(snapshot: Snapshot) -> tuple[Item, ...]:
    """What is done, in order, and the notes."""
    result, say = snapshot.result, snapshot.speech.phrase
    items = [heading("Order of the cuts")]
    items += [Item(say(line), f"{number}") for number, line in enumerate(order_of_cuts(result), start=1)]
    items += [heading("Wedges"), *(Item(say(line), "·") for line in wedge_plan(result))]
    items += [heading("On the ground"), *(Item(say(line), "·") for line in ground_plan(result))]
    if snapshot.plan.notes.strip():
        items += [heading("Notes"), *notes_in_pieces(snapshot.plan.notes)]
    return tuple(items)


@lru_cache(maxsize=KEPT)
def finding_items(snapshot: Snapshot) -> tuple[Item, ...]:
    """Every finding, worst first."""
    found = [heading("Findings, worst first  (~ indicative)")]
    for finding in snapshot.result.findings:
        about = "~ " if finding.indicative else ""
        found.append(Item(about + snapshot.speech.phrase(finding.sentence), finding.level))
    return tuple(found)
