"""Opening the file of the stump log whatever state it is in: new, older, newer, damaged, or in use elsewhere."""

from __future__ import annotations

import sqlite3
import zlib
from collections.abc import Iterator
from contextlib import closing
from datetime import datetime
from pathlib import Path
from typing import NamedTuple

from ..core.base.errors import PlainCompassError
from ..job.disk import reason_of
from ..job.document import LogEntry
from .rows import put, put_line, unpacked
from .schema import VERSION, create, migrate

WAIT_S = 10.0
"""How long a write waits for another window's."""


MAPPED_BYTES = 1 << 30
"""As much of the file as may be mapped into memory."""


WHOLE_BYTES = 100_000_000
"""Up to which size every index is looked at when the file is opened: some twenty thousand stumps."""


class Open(NamedTuple):
    """An open file, whether it may only be read, and sentences on what was found."""

    db: sqlite3.Connection
    read_only: bool
    troubles: list[str]


def opened(path: Path | None) -> Open:
    """The file, made where there is none; None is a log in memory. Raises OSError or sqlite3.Error."""
    if path is not None:
        path.parent.mkdir(parents=True, exist_ok=True)
    if path is None or not path.exists():
        return Open(_prepared(_connect(path)), False, [])
    trouble = _damage(path)
    if trouble:
        return _salvaged(path, trouble)
    db = _connect(path)
    (version,) = db.execute("PRAGMA user_version").fetchone()
    if version > VERSION:
        db.close()
        newer = f"version {version}, this program knows up to {VERSION}"
        told = f"The stump log was written by a newer Plain Compass ({newer}): it can be read, not written."
        return Open(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, isolation_level=None), True, [told])
    if 0 < version < VERSION:
        kept = _back_up(db, path, version)
        lost = migrate(db, version, lambda document: put_line(db, document))
        told = f"The stump log was brought up to version {VERSION}; as it was it is kept as {kept.name}."
        told += f" {lost} of its entries could not be read and stand only there." if lost else ""
        return Open(db, False, [told])
    return Open(_prepared(db), False, [])


def _connect(path: Path | None) -> sqlite3.Connection:
    db = sqlite3.connect(":memory:" if path is None else str(path), timeout=WAIT_S, isolation_level=None)
    db.execute("PRAGMA foreign_keys=ON")
    # Pages are looked at where they lie: a long log is read in a third of the time.
    db.execute(f"PRAGMA mmap_size={MAPPED_BYTES}")
    db.execute("PRAGMA journal_mode=WAL")
    # What is told as kept is on the disk, whatever happens to the machine next.
    db.execute("PRAGMA synchronous=FULL")
    return db


def _prepared(db: sqlite3.Connection) -> sqlite3.Connection:
    """The tables made where there are none; of two windows that open at once the second finds them made."""
    db.execute("BEGIN IMMEDIATE")
    try:
        if db.execute("PRAGMA user_version").fetchone()[0] == 0:
            create(db)
        db.execute("COMMIT")
    except BaseException:
        db.execute("ROLLBACK")
        raise
    return db


def _back_up(db: sqlite3.Connection, path: Path, version: int) -> Path:
    kept = path.with_name(f"{path.stem}.version-{version}-{_stamp()}{path.suffix}")
    with closing(sqlite3.connect(kept)) as copy:
        db.backup(copy)
    return kept


def _damage(path: Path) -> str:
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


def _salvaged(path: Path, trouble: str) -> Open:
    """Set a damaged file aside and begin a new one with every entry that can still be read."""
    aside = path.with_name(f"{path.stem}.damaged-{_stamp()}{path.suffix}")
    for ending in ("", "-wal", "-shm"):
        part = path.with_name(path.name + ending)
        if part.exists():
            part.replace(aside.with_name(aside.name + ending))
    db, count = _prepared(_connect(path)), 0
    db.execute("BEGIN IMMEDIATE")
    for entry in _readable(aside):
        count += put(db, entry)
    db.execute("COMMIT")
    saved = "entry that could be read is" if count == 1 else "entries that could be read are"
    told = f"The stump log was damaged ({trouble}); it was set aside as {aside.name}, and {count} {saved} in a new one."
    return Open(db, False, [told])


def _readable(path: Path) -> Iterator[LogEntry]:
    """Every entry of a damaged file that can still be read, row by row."""
    try:
        with closing(sqlite3.connect(path)) as db:
            (highest,) = db.execute("SELECT MAX(number) FROM documents").fetchone()
            for number in range(1, (highest or 0) + 1):
                try:
                    row = db.execute("SELECT content FROM documents WHERE number = ?", (number,)).fetchone()
                    if row is not None:
                        yield unpacked(row[0])
                except (sqlite3.Error, zlib.error, ValueError, PlainCompassError):
                    continue
    except sqlite3.Error:
        return


def _stamp() -> str:
    return datetime.now().strftime("%Y%m%d-%H%M%S")


def reason(error: Exception) -> str:
    """Why, to stand inside a sentence."""
    return reason_of(error) if isinstance(error, OSError) else str(error)
