"""The file of the stump log: opened whatever state it is in, written so that nothing told of as kept is ever lost."""

from __future__ import annotations

import gc
import sqlite3
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from operator import itemgetter
from pathlib import Path
from typing import NamedTuple

from ..core.base.errors import PlainCompassError
from ..job.document import LogEntry
from ..job.language import tr
from .opening import opened, reason
from .rows import put, unpacked
from .sqlite_file import whole


class LogError(PlainCompassError):
    """The log cannot be read or written; the text is one sentence."""


Listed = tuple[int, str, str, str, str, str, str, str, int]
"""One line of the list: number, id, day, place, tree, faller, saw, cut, kind."""
Fact = tuple[int, str, int, bytes]
"""What is learned from: number, day, kind, packed facts."""
BY_DAY = itemgetter(2, 0)
"""Order of a list: sorted here in half the time the file takes for it."""


class Filter(NamedTuple):
    """Which entries; an empty text is any. Days as ``2026-05-01``, the last one within."""

    faller: str = ""
    saw: str = ""
    place: str = ""
    cut: str = ""
    species: str = ""
    since: str = ""
    until: str = ""

    def select(self, columns: str, tables: str = "entries") -> tuple[str, list[str]]:
        """(query of the entries, its values)."""
        where, values = self.sql()
        return f"SELECT {columns} FROM {tables}{' JOIN kinds USING(kind)' if self.species else ''}{where}", values

    def sql(self) -> tuple[str, list[str]]:
        """(condition, its values)."""
        parts, values = [], []
        for column, wanted in (
            ("faller", self.faller),
            ("saw", self.saw),
            ("place", self.place),
            ("species", self.species),
        ):
            if wanted:
                parts.append(f"{column} = ?")
                values.append(wanted)
        if self.cut:
            parts.append("cut LIKE ? ESCAPE '\\'")
            values.append("%" + self.cut.replace("\\", "\\\\").replace("%", r"\%").replace("_", r"\_") + "%")
        for column, wanted in (("day >= ?", self.since), ("day <= ?", self.until)):
            if wanted:
                parts.append(column)
                values.append(wanted)
        return (" WHERE " + " AND ".join(parts) if parts else ""), values


class StumpLog:
    """One open log.

    Attributes:
        read_only: whether it was written by a newer program: it is read as far as it is understood.
        troubles: sentences on what was found when it was opened.
    """

    def __init__(self, path: Path | None) -> None:
        """Open it, or make it; None is a log in memory that nothing is kept of.

        Raises LogError with a sentence when that cannot be done.
        """
        self.path = path
        try:
            self._db, self.read_only, self.troubles = opened(path)
        except (OSError, sqlite3.Error) as error:
            raise LogError(
                tr("The stump log at {path} cannot be opened: {reason}.", path=path, reason=reason(error))
            ) from None

    # Writing -------------------------------------------------------------------------------------------

    @contextmanager
    def _writing(self) -> Iterator[sqlite3.Connection]:
        """One transaction: all of it or nothing, kept when it ends."""
        if self.read_only:
            raise LogError(self.troubles[0])
        try:
            with whole(self._db):
                yield self._db
        except sqlite3.Error as error:
            raise LogError(
                tr("The stump log could not be written: {reason}. What it holds is unchanged.", reason=reason(error))
            ) from None

    def add(self, entries: Iterable[LogEntry]) -> int:
        """Take entries in, each once by its id; returns how many were new. Raises LogError."""
        with self._writing() as db:
            return sum(put(db, entry) for entry in entries)

    def correct(self, entry: LogEntry) -> None:
        """Put an entry in the place of the one with its id, or take it in. Raises LogError."""
        with self._writing() as db:
            db.execute("DELETE FROM entries WHERE id = ?", (entry.id,))
            put(db, entry)

    def leave_out(self, number: int, quantity: str, *, out: bool) -> None:
        """Leave one entry out of what is learned of a quantity, or take it in again. Raises LogError."""
        with self._writing() as db:
            if out:
                db.execute("INSERT OR IGNORE INTO left_out VALUES(?, ?)", (number, quantity))
            else:
                db.execute("DELETE FROM left_out WHERE number = ? AND quantity = ?", (number, quantity))

    # Reading -------------------------------------------------------------------------------------------

    def listed(self, wanted: Filter = Filter()) -> list[Listed]:  # noqa: B008 - frozen
        """Entries in the order of their days, without their documents."""
        columns = "number, id, day, place, tree, faller, saw, cut, kind"
        return sorted(self._read(*wanted.select(columns)), key=BY_DAY)

    def facts(self, wanted: Filter = Filter()) -> list[Fact]:  # noqa: B008 - frozen
        """What entries say, in the order in which they were taken in."""
        return self._read(*wanted.select("number, day, kind, said", "facts JOIN entries USING(number)"))

    def kinds(self) -> dict[int, tuple[str, ...]]:
        """Kind -> (species, splitting class, suppleness, way of the height, way of the lean)."""
        rows = self._read("SELECT kind, species, splits, supple, height_by, lean_by FROM kinds")
        return {row[0]: row[1:] for row in rows}

    def left_out(self) -> dict[str, set[int]]:
        """Quantity -> numbers of the entries that are left out of it."""
        found: dict[str, set[int]] = {}
        for number, quantity in self._read("SELECT number, quantity FROM left_out"):
            found.setdefault(quantity, set()).add(number)
        return found

    def values(self, column: str) -> list[str]:
        """Every value of ``faller``, ``saw``, ``place``, ``cut`` or ``day`` that there is, in order."""
        assert column in ("faller", "saw", "place", "cut", "day")
        return [row[0] for row in self._read(f"SELECT DISTINCT {column} FROM entries ORDER BY 1")]

    def entry(self, id: str) -> LogEntry | None:
        """One entry whole, by its id or the beginning of it that no other has."""
        rows = self._read(
            "SELECT content FROM entries JOIN documents USING(number) WHERE id LIKE ? || '%' LIMIT 2", (id,)
        )
        return unpacked(rows[0][0]) if len(rows) == 1 else None

    def numbered(self, number: int) -> LogEntry | None:
        """One entry whole, by its number."""
        rows = self._read("SELECT content FROM documents WHERE number = ?", (number,))
        return unpacked(rows[0][0]) if rows else None

    def entries(self, wanted: Filter = Filter()) -> Iterator[LogEntry]:  # noqa: B008 - frozen
        """Entries whole, in the order of their days."""
        where, values = wanted.sql()
        cursor = self._db.execute(
            "SELECT content FROM entries JOIN kinds USING(kind) JOIN documents USING(number)"
            f"{where} ORDER BY day, number",
            values,
        )
        for (content,) in cursor:
            yield unpacked(content)

    def count(self) -> int:
        """How many entries there are."""
        found: int = self._read("SELECT COUNT(*) FROM entries")[0][0]
        return found

    def changes(self) -> int:
        """A number that changes when anybody has written to the file."""
        (seen,) = self._db.execute("PRAGMA data_version").fetchone()
        return int(seen) * 1_000_000 + self._db.total_changes

    def check(self) -> list[str]:
        """Sentences on what is wrong with the file; none when all is well."""
        found = [row[0] for row in self._read("PRAGMA integrity_check") if row[0] != "ok"]
        found += [
            tr("row {row} of {table} has lost what it belongs to", row=row[1], table=row[0])
            for row in self._read("PRAGMA foreign_key_check")
        ]
        lost = self._read("SELECT COUNT(*) FROM entries LEFT JOIN documents USING(number) WHERE content IS NULL")[0][0]
        return [*found, *([tr("{lost} entries have no document", lost=lost)] if lost else [])]

    def _read(self, sql: str, values: Iterable[str | int] = ()) -> list[tuple]:  # type: ignore[type-arg]
        collects = gc.isenabled()
        # A hundred thousand rows are no rubbish: looking through them again and again takes a third of the time.
        gc.disable()
        try:
            return self._db.execute(sql, tuple(values)).fetchall()
        except sqlite3.Error as error:
            raise LogError(tr("The stump log could not be read: {reason}.", reason=reason(error))) from None
        finally:
            if collects:
                gc.enable()

    def close(self) -> None:
        """Close it; everything that was told as kept is on the disk already."""
        self._db.close()
