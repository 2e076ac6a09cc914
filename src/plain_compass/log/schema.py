"""The tables of the stump log, and how older files are brought up to them."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable

from .rows import told_anew
from .sqlite_file import whole

VERSION = 3
"""Of the tables, kept as the file's ``user_version``."""

FIRST = """
CREATE TABLE entries(id TEXT PRIMARY KEY, made TEXT NOT NULL, document TEXT NOT NULL);
"""
"""Version 1: an entry as one line of JSON, and nothing to look it up by."""

TABLES = """
CREATE TABLE kinds(
    kind INTEGER PRIMARY KEY,
    species TEXT NOT NULL, splits TEXT NOT NULL, supple TEXT NOT NULL, height_by TEXT NOT NULL, lean_by TEXT NOT NULL,
    UNIQUE(species, splits, supple, height_by, lean_by)
);
CREATE TABLE entries(
    number INTEGER PRIMARY KEY,
    id TEXT NOT NULL UNIQUE,
    made TEXT NOT NULL,
    day TEXT NOT NULL,
    place TEXT NOT NULL,
    tree TEXT NOT NULL,
    faller TEXT NOT NULL,
    saw TEXT NOT NULL,
    cut TEXT NOT NULL,
    kind INTEGER NOT NULL REFERENCES kinds(kind)
);
CREATE INDEX by_day ON entries(day);
CREATE INDEX by_faller ON entries(faller, day);
CREATE TABLE facts(
    number INTEGER PRIMARY KEY REFERENCES entries(number) ON DELETE CASCADE,
    said BLOB NOT NULL
);
CREATE TABLE documents(
    number INTEGER PRIMARY KEY REFERENCES entries(number) ON DELETE CASCADE,
    content BLOB NOT NULL
);
CREATE TABLE left_out(
    number INTEGER NOT NULL REFERENCES entries(number) ON DELETE CASCADE,
    quantity TEXT NOT NULL,
    PRIMARY KEY(number, quantity)
);
"""
"""Today's: what is listed, what is learned from, and the documents, each several times as large, apart."""


def create(db: sqlite3.Connection) -> None:
    """Make the tables, inside a transaction of the caller's."""
    for statement in TABLES.split(";"):
        if statement.strip():
            db.execute(statement)
    db.execute(f"PRAGMA user_version={VERSION}")


def _from_1(db: sqlite3.Connection, add: Callable[[str], bool]) -> int:
    """Version 2 keeps apart what entries are looked up by."""
    rows = db.execute("SELECT document FROM entries ORDER BY rowid").fetchall()
    db.execute("ALTER TABLE entries RENAME TO entries_1")
    create(db)
    lost = sum(not add(document) for (document,) in rows)
    db.execute("DROP TABLE entries_1")
    return lost


def _from_2(db: sqlite3.Connection, _: Callable[[str], bool]) -> int:
    """Version 3 knows how long each took against what was told."""
    return told_anew(db)


STEPS: dict[int, Callable[[sqlite3.Connection, Callable[[str], bool]], int]] = {1: _from_1, 2: _from_2}


def migrate(db: sqlite3.Connection, version: int, add: Callable[[str], bool]) -> int:
    """Bring an older file up to today's tables, all of it or nothing; returns how many entries could not be read.

    Args:
        add: puts an entry, as a line of JSON, into today's tables; False where it cannot be read.
    """
    with whole(db):
        lost = sum(STEPS[step](db, add) for step in range(version, VERSION))
        db.execute(f"PRAGMA user_version={VERSION}")
    return lost
