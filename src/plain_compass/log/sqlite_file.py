"""A file of SQLite of which nothing told as kept is lost: connected to, looked at for damage, copied, set aside."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path
from typing import Any

WAIT_S = 10.0
"""How long a write waits for another window's."""
MAPPED_BYTES = 1 << 30
"""As much of the file as may be mapped into memory."""
MISSED = 1000
"""Rows in a row that are not there, after which no more are looked for."""
WHOLE_BYTES = 100_000_000
"""Up to which size every index is looked at when the file is opened: some twenty thousand stumps."""


def connect(path: Path | None) -> sqlite3.Connection:
    """A connection by which what is told as kept is on the disk; None is a file in memory."""
    db = sqlite3.connect(":memory:" if path is None else str(path), timeout=WAIT_S, isolation_level=None)
    db.execute("PRAGMA foreign_keys=ON")
    # Pages are looked at where they lie: a long log is read in a third of the time.
    db.execute(f"PRAGMA mmap_size={MAPPED_BYTES}")
    db.execute("PRAGMA journal_mode=WAL")
    # What is told as kept is on the disk, whatever happens to the machine next.
    db.execute("PRAGMA synchronous=FULL")
    return db


@contextmanager
def whole(db: sqlite3.Connection) -> Iterator[None]:
    """Everything done inside is kept, or nothing of it."""
    db.execute("BEGIN IMMEDIATE")
    try:
        yield
        db.execute("COMMIT")
    except BaseException:
        db.execute("ROLLBACK")
        raise


def back_up(db: sqlite3.Connection, path: Path, version: int) -> Path:
    """A copy beside the file, before it is brought up."""
    kept = path.with_name(f"{path.stem}.version-{version}-{_stamp()}{path.suffix}")
    with closing(sqlite3.connect(kept)) as copy:
        db.backup(copy)
    return kept


def damage_of(path: Path) -> str:
    """What is wrong with a file; empty when nothing is. A file that another window writes at is waited for."""
    try:
        with closing(sqlite3.connect(path, timeout=WAIT_S)) as db:
            # Of a very long log the pages alone, so that nobody waits for a second; ``log check`` looks at all of it.
            check = "integrity_check" if path.stat().st_size < WHOLE_BYTES else "quick_check"
            (found,) = db.execute(f"PRAGMA {check}(1)").fetchone()
            return "" if found == "ok" else str(found).splitlines()[0]
    except sqlite3.DatabaseError as error:
        if isinstance(error, sqlite3.OperationalError) and "malformed" not in str(error):
            raise
        return str(error)


def _stamp() -> str:
    return datetime.now().strftime("%Y%m%d-%H%M%S")


def set_aside(path: Path) -> Path:
    """Put a damaged file out of the way, with what belongs to it; returns where it is."""
    aside = path.with_name(f"{path.stem}.damaged-{_stamp()}{path.suffix}")
    for ending in ("", "-wal", "-shm"):
        part = path.with_name(path.name + ending)
        if part.exists():
            part.replace(aside.with_name(aside.name + ending))
    return aside


def rows_of(path: Path, table: str, columns: str) -> Iterator[tuple[Any, ...]]:
    """Every row of a damaged file that can still be read, by its number, row by row.

    Where even the last number cannot be told, rows are asked for until a thousand in a row are not there.
    """
    try:
        with closing(sqlite3.connect(path)) as db:
            missed, number = 0, 0
            highest = _highest(db, table)
            while missed < MISSED if highest is None else number < highest:
                number += 1
                row = _row(db, table, columns, number)
                missed = missed + 1 if row is None else 0
                if row is not None:
                    yield row
    except sqlite3.Error:
        return


def _highest(db: sqlite3.Connection, table: str) -> int | None:
    try:
        (found,) = db.execute(f"SELECT MAX(number) FROM {table}").fetchone()
    except sqlite3.Error:
        return None
    return found or 0


def _row(db: sqlite3.Connection, table: str, columns: str, number: int) -> tuple[Any, ...] | None:
    try:
        found: tuple[Any, ...] | None = db.execute(
            f"SELECT {columns} FROM {table} WHERE number = ?", (number,)
        ).fetchone()
    except sqlite3.Error:
        return None
    return found
