"""Day and year as rows of words: for the page, a CSV and paper alike."""

from __future__ import annotations

from collections.abc import Mapping

from ..core.tree.wood import Wood
from ..job.csv_rows import harmless, table_text
from ..job.language import tr
from ..job.tables import species_table
from ..job.words import Speech
from .stats import NearMiss, Summary, near_misses, summary_of
from .store import Filter, StumpLog

HEADINGS = {"faller": "Faller", "species": "Species", "cut": "Cut", "saw": "Saw", "place": "Place"}
"""What is counted by, and its heading."""
Rows = list[tuple[str, str]]


def totals(summary: Summary, speech: Speech) -> Rows:
    """(what, how much) of everything together."""
    rows = [(tr("trees felled"), str(summary.count)), (tr("days worked"), str(len(summary.by["day"])))]
    if summary.timed:
        hours = tr(
            "{hours:.1f} h, {minutes:.0f} min a tree",
            hours=summary.time_s / 3600,
            minutes=summary.time_s / summary.timed / 60,
        )
        rows.append(("time", tr("{hours} (of {timed} that say)", hours=hours, timed=summary.timed)))
    rows.append((tr("blows of the maul"), str(summary.blows)))
    if summary.miss_deg is not None:
        rows.append(
            (
                tr("half lay within"),
                tr(
                    "{miss_deg} of the lay ({read} read)",
                    miss_deg=speech.show(summary.miss_deg, "angle"),
                    read=summary.read,
                ),
            )
        )
    if summary.told:
        rows.append(
            (
                tr("within the fan told"),
                tr("{inside} of {told}; nine in ten should", inside=summary.inside, told=summary.told),
            )
        )
    rows.append((tr("too close"), str(len(summary.near))))
    return rows


def counted(summary: Summary) -> dict[str, Rows]:
    """Heading -> (value, how many), the most first."""
    table = species_table()
    found = {}
    for key, heading in HEADINGS.items():
        rows = [(_named(key, value, table), count) for value, count in summary.by[key].items()]
        found[heading] = [(name, str(count)) for name, count in sorted(rows, key=lambda row: -row[1])]
    return found


def _named(key: str, value: str, table: Mapping[str, Wood]) -> str:
    if key == "species" and value in table:
        return table[value].name
    return value or tr("not said")


def by_day(summary: Summary) -> Rows:
    """(day, how many trees), the newest first."""
    return [(day, str(count)) for day, count in sorted(summary.by["day"].items(), reverse=True)]


def told_near(near: NearMiss, speech: Speech) -> tuple[str, str]:
    """(day and place, what happened) of one that was too close."""
    where = ", ".join(filter(None, (near.day, near.place, near.tree, near.cut)))
    return where, ". ".join(filter(None, (speech.say("; ".join(near.happened)), near.words)))


def days_csv(log: StumpLog, wanted: Filter, speech: Speech) -> str:
    """The page as CSV: heading, value, how many; near misses last."""
    summary = summary_of(log, wanted)
    rows = [["heading", "what", "value"], *(["All", name, value] for name, value in totals(summary, speech))]
    for heading, values in counted(summary).items():
        rows += [[heading, harmless(name), value] for name, value in values]
    rows += [["Day", day, value] for day, value in by_day(summary)]
    for each in near_misses(log, summary):
        where, what = told_near(each, speech)
        rows.append([tr("Too close"), harmless(where), harmless(what)])
    return table_text(rows)
