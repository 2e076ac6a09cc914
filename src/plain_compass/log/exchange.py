"""The log given away and taken in: JSON Lines whole, CSV to be read and counted by other programs."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import asdict
from pathlib import Path
from typing import Any

from ..core.base.errors import PlainCompassError
from ..core.base.paths import value_at
from ..job.csv_rows import as_written, csv_rows, harmless, table_text
from ..job.disk import JobFileError, read_text
from ..job.document import LogEntry
from ..job.language import tr
from ..job.log_entries import FORMAT, VERSION, entry_from, entry_text, facts_of_entry, forms_of
from ..job.tables import wood_of
from .by_hand import PLANNED_AT, READ, written_by_hand

HEAD = ("id", "made", "place", "tree", "species", "diameter_m", "height_m", "practice", "cut")
FACTS = ("miss_deg", "aim_deg")
COLUMNS = (*HEAD, "planned_lay_deg", *PLANNED_AT, *READ, *FACTS, "entry")
"""Of the CSV; the last one holds the whole entry as JSON, so that nothing is lost on the way back."""
MOST_ROWS = 500_000
"""No crew has felled more; a longer table is something else."""


def lines_text(entries: Iterable[LogEntry]) -> str:
    """Entries as JSON Lines."""
    return "".join(f"{entry_text(entry)}\n" for entry in entries)


def csv_text(entries: Iterable[LogEntry]) -> str:
    """Entries as CSV, a row each."""
    return table_text([list(COLUMNS), *(_row(entry) for entry in entries)])


def _row(entry: LogEntry) -> list[str]:
    plan, cut = entry.plan, entry.plan.cut
    facts = facts_of_entry(entry)
    told: dict[str, Any] = {
        "id": entry.id,
        "made": entry.made,
        "place": entry.place,
        "tree": plan.id,
        "species": plan.tree.species,
        "diameter_m": plan.tree.trunk.diameter_m,
        "height_m": plan.tree.height_m,
        "practice": entry.practice,
        "cut": forms_of(entry),
        "planned_lay_deg": cut.lay_deg,
        **{column: value_at(cut, path) for column, path in PLANNED_AT.items()},
        "miss_deg": facts.miss_deg,
        "aim_deg": facts.aim_deg,
        "entry": entry_text(entry),
    }
    told |= {f"as_cut.{name}": value for name, value in asdict(plan.as_cut).items()}
    return [_cell(told[column]) for column in COLUMNS]


def _cell(value: Any) -> str:
    if value is None:
        return ""
    return harmless(value) if isinstance(value, str) else f"{value:.10g}"


def entries_in(path: Path) -> list[LogEntry]:
    """Entries of a file that was exported, CSV by its name and JSON Lines else.

    Raises JobFileError, TableError or DocumentError, naming file and line; then none is taken.
    """
    text = read_text(path)
    return _from_csv(text, path.name) if path.suffix.lower() == ".csv" else _from_lines(text, path.name)


def _from_lines(text: str, name: str) -> list[LogEntry]:
    found = []
    for number, line in enumerate(text.splitlines(), 1):
        if line.strip():
            found.append(_entry(line, tr("{name}, line {number}", name=name, number=number)))
    if not found:
        raise JobFileError(tr("{name} holds no stumps.", name=name))
    return found


def _entry(line: str, where: str) -> LogEntry:
    try:
        raw = json.loads(line)
    except (ValueError, RecursionError):
        raise JobFileError(tr("{where} is broken: it is no JSON.", where=where)) from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        raise JobFileError(
            tr("{where} is no stump of ours: its field “format” should say {format}.", where=where, format=FORMAT)
        )
    version = raw.get("version")
    if not isinstance(version, int) or not 1 <= version <= VERSION:
        raise JobFileError(
            tr(
                "{where}: field “version” is {version!r}; this program reads up to {known}.",
                where=where,
                version=version,
                known=VERSION,
            )
        )
    try:
        entry = entry_from(raw)
        wood_of(entry.plan.tree.species)
    except PlainCompassError as error:
        raise JobFileError(f"{where}: {error}") from None
    if not entry.id:
        raise JobFileError(tr("{where}: field “id” is empty; every stump has one of its own.", where=where))
    return entry


def _from_csv(text: str, name: str) -> list[LogEntry]:
    head, *rows = csv_rows(text, name, MOST_ROWS)
    head = [cell.strip() for cell in head]
    found = []
    for number, row in enumerate(rows, 2):
        cells = dict(zip(head, (as_written(cell.strip()) for cell in row), strict=False))
        where = tr("{name}, row {number}", name=name, number=number)
        found.append(_entry(cells["entry"], where) if cells.get("entry") else written_by_hand(cells, where))
    if not found:
        raise JobFileError(tr("{name} holds no stumps.", name=name))
    return found
