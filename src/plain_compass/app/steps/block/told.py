"""What the page says: rows of the order, why a tree stands where it does, and of the block as a whole."""

from __future__ import annotations

from ....core.fall.fan import Fan
from ....job.block import Block, Ordered, left_words, place_reasons
from ....job.block_crew import crew_words, whose_of, whose_words
from ....job.block_kit import kit_of, piece_words
from ....job.block_report import takes_words
from ....job.block_strip import days_of, done_words
from ....job.block_why import lay_words, miss_words, reach_words, why_not
from ....job.block_wind import day_words, wind_words
from ....job.document import Job
from ....job.language import tr


def order_rows(job: Job, block: Block, found: Ordered) -> list[tuple[str, str, str]]:
    """(id, words, tooltip) of each tree, in order."""
    speech, why = job.speech, place_reasons(block, found, job.speech)
    rows, wrong = [], {each.tree for each in found.against if each.is_broken}
    for number, at in enumerate(found.plan.order, 1):
        tree, lay = block.trees[at], block.trees[at].lays[found.plan.lays[at]]
        turned = (
            ""
            if found.plan.lays[at] == 0
            else tr(", planned {lay_deg}", lay_deg=speech.show(tree.lays[0].lay_deg, "bearing"))
        )
        takes = takes_words(block, found, at, speech)
        bad = " ⊘" if lay.is_stop or at in wrong else ""
        place = "–" if at in found.late else f"{number}"
        head = f"{place}  {tree.id}{bad}   {speech.show(lay.lay_deg, 'bearing')}{turned}"
        words = tr("{head}\n      {takes} · {minutes:.0f} min", head=head, takes=takes, minutes=tree.minutes)
        rows.append((tree.id, words, "\n".join(why[at]) or tr("nothing stands against another place")))
    return rows


def block_lines(job: Job, block: Block, found: Ordered) -> list[str]:
    """When the days are done, who is there, the wind, what is not in the order, what to take along."""
    speech, order = job.speech, [block.trees[slot.tree].id for slot in found.slots]
    pieces = [piece_words(piece, order, speech) for piece in kit_of(job, block, found)]
    alike: dict[str, list[str]] = {}
    for id, told in left_words(block, found, speech):
        alike.setdefault(told, []).append(id)
    out = [f"{', '.join(left)}: {told}" for told, left in alike.items()]
    days = [f"{done_words(job, found, day)}." for day in days_of(found) if any(s.day == day for s in found.slots)]
    about = [*days, crew_words(job, speech), *day_words(job, order, 0, speech), *out]
    return [*filter(None, about), "", tr("To take along:"), *pieces]


def tree_lines(job: Job, block: Block, found: Ordered, id: str, fan: Fan | None) -> list[str]:
    """Of one tree: its wind, whose it is, who else is in reach; why here, why not elsewhere; what a miss does."""
    at, speech, order = block.index(id), job.speech, found.plan.order
    here = place_reasons(block, found, speech)[at]
    none = (tr("Nothing stands against another place; nearness and help put it here."),)
    others = why_not(block, found, at, speech)
    day = next((slot.day for slot in found.slots if slot.tree == at), None)
    wind = [] if day is None else [wind_words(job, id, day, speech)]
    later = [block.trees[each].id for each in order[order.index(at) + 1 :]]
    about = [*wind, whose_words(whose_of(job, block, found, at), speech), reach_words(job, id, later), ""]
    lay = lay_words(job, block, found, at)
    elsewhere = ["", tr("Why not elsewhere:"), *others] if others else []
    miss = miss_words(job, block, found, at, fan)
    return [*about, tr("Why here:"), *(here or none), *lay, *elsewhere, "", tr("If it misses  ~"), *miss]
