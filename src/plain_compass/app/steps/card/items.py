"""What the card says, item by item: made once of a snapshot, painted as often as the paper is looked at."""

from __future__ import annotations

from functools import lru_cache

from ....core.base.levels import FindingKind
from ....core.cuts.sequence import ground_plan, order_of_cuts, wedge_plan
from ....job.language import tr
from ...frame.store import Snapshot
from .flow import DONE, TO_DO, Item, heading, notes_in_pieces

KEPT = 2
"""Snapshots whose items are kept: the one on the screen, and one that is being written to a file."""


@lru_cache(maxsize=KEPT)
def plan_items(snapshot: Snapshot) -> tuple[Item, ...]:
    """What is done, in order, and the notes."""
    result, say = snapshot.result, snapshot.speech.phrase
    items = [heading(tr("Order of the cuts"))]
    items += [Item(say(line), f"{number}") for number, line in enumerate(order_of_cuts(result), start=1)]
    items += [heading(tr("Wedges")), *(Item(say(line), "·") for line in wedge_plan(result))]
    items += [heading(tr("On the ground")), *(Item(say(line), "·") for line in ground_plan(result))]
    if snapshot.plan.notes.strip():
        items += [heading(tr("Notes")), *notes_in_pieces(snapshot.plan.notes)]
    return tuple(items)


@lru_cache(maxsize=KEPT)
def finding_items(snapshot: Snapshot) -> tuple[Item, ...]:
    """What is to do on the site with its ticks, every finding, worst first, and how the plan is made."""
    speech, findings = snapshot.speech, snapshot.result.findings
    duties = [finding for finding in findings if finding.kind == FindingKind.DUTY]
    facts = [finding for finding in findings if finding.kind == FindingKind.FACT]
    found = [heading(tr("To do on site"))]
    for duty in duties:
        done = f" ({duty.done.who or 'done'}, {duty.done.at})" if duty.done else ""
        found.append(Item(speech.phrase(duty.sentence) + done, DONE if duty.done else TO_DO))
    found.append(heading(tr("Findings, worst first  (~ indicative)")))
    for finding in findings:
        if finding.kind in (FindingKind.LIMIT, FindingKind.UNKNOWN):
            about = "~ " if finding.indicative else ""
            told = f"{about}{speech.phrase(finding.sentence)} {speech.odds(finding)}".rstrip()
            found.append(Item(told, finding.level))
    if facts:
        found += [heading(tr("How it is made")), *(Item(speech.phrase(fact.sentence), "·") for fact in facts)]
    return tuple(found)
