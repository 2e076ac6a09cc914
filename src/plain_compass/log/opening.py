"""Opening the file of the stump log whatever state it is in: new, older, newer, damaged, or in use elsewhere."""

from __future__ import annotations

import sqlite3
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from ..core.base.errors import PlainCompassError
from ..job.disk import reason_of
from ..job.document import LogEntry
from ..job.language import tr
from .rows import put, put_line, unpacked
from .schema import VERSION, create, migrate
from .sqlite_file import back_up, connect, damage_of, rows_of, set_aside, whole


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
        return Open(_prepared(connect(path)), False, [])
    trouble = damage_of(path)
    if trouble:
        return _salvaged(path, trouble)
    db = connect(path)
    (version,) = db.execute("PRAGMA user_version").fetchone()
    if version > VERSION:
        db.close()
        newer = tr("version {version}, this program knows up to {known}", version=version, known=VERSION)
        told = tr(
            "The stump log was written by a newer Plain Compass ({newer}): it can be read, not written.", newer=newer
        )
        return Open(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, isolation_level=None), True, [told])
    if 0 < version < VERSION:
        kept = back_up(db, path, version)
        lost = migrate(db, version, lambda document: put_line(db, document))
        told = tr(
            "The stump log was brought up to version {version}; as it was it is kept as {name}.",
            version=VERSION,
            name=kept.name,
        )
        told += tr(" {lost} of its entries could not be read and stand only there.", lost=lost) if lost else ""
        return Open(db, False, [told])
    return Open(_prepared(db), False, [])


def _prepared(db: sqlite3.Connection) -> sqlite3.Connection:
    """The tables made where there are none; of two windows that open at once the second finds them made."""
    with whole(db):
        if db.execute("PRAGMA user_version").fetchone()[0] == 0:
            create(db)
    return db


def _salvaged(path: Path, trouble: str) -> Open:
    """Set a damaged file aside and begin a new one with every entry that can still be read."""
    aside = set_aside(path)
    db, count = _prepared(connect(path)), 0
    with whole(db):
        for entry in _readable(aside):
            count += put(db, entry)
    saved = tr("entry that could be read is") if count == 1 else tr("entries that could be read are")
    told = tr(
        "The stump log was damaged ({trouble}); it was set aside as {name}, and {count} {saved} in a new one.",
        trouble=trouble,
        name=aside.name,
        count=count,
        saved=saved,
    )
    return Open(db, False, [told])


def _readable(path: Path) -> Iterator[LogEntry]:
    """Every entry of a damaged file that can still be read, row by row."""
    for (content,) in rows_of(path, "documents", "content"):
        try:
            yield unpacked(content)
        except (zlib.error, ValueError, PlainCompassError):
            continue


def reason(error: Exception) -> str:
    """Why, to stand inside a sentence."""
    return reason_of(error) if isinstance(error, OSError) else str(error)
