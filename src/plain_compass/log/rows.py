"""One entry of the stump log as rows of its tables."""

from __future__ import annotations

import json
import sqlite3
import struct
import zlib
from dataclasses import astuple

from ..core.base.errors import PlainCompassError
from ..core.stump.facts import NAMES
from ..job.document import LogEntry
from ..job.log_entries import entry_from, entry_text, facts_of_entry, forms_of
from ..job.tables import wood_of
from ..job.tree_readings import height_way

PACKED = struct.Struct(f"<{len(NAMES)}d")
"""The facts of an entry, one float after another, not a number where there is none."""


def put(db: sqlite3.Connection, entry: LogEntry) -> int:
    """Take one entry in unless it is there; returns how many were."""
    as_cut, plan = entry.plan.as_cut, entry.plan
    wood = wood_of(plan.tree.species)
    kind = (wood.key, wood.splitting, wood.suppleness, height_way(plan), plan.tree.lean.method)
    db.execute("INSERT OR IGNORE INTO kinds(species, splits, supple, height_by, lean_by) VALUES(?, ?, ?, ?, ?)", kind)
    (number,) = db.execute(
        "SELECT kind FROM kinds WHERE species=? AND splits=? AND supple=? AND height_by=? AND lean_by=?", kind
    ).fetchone()
    day = as_cut.date or entry.made[:10]
    row = (entry.id, entry.made, day, entry.place, plan.id, as_cut.faller, as_cut.saw, forms_of(entry), number)
    added = db.execute(
        "INSERT OR IGNORE INTO entries(id, made, day, place, tree, faller, saw, cut, kind) "
        "VALUES(?, ?, ?, ?, ?, ?, ?, ?, ?)",
        row,
    )
    if added.rowcount:
        facts = PACKED.pack(*(float("nan") if each is None else each for each in astuple(facts_of_entry(entry))))
        db.execute("INSERT INTO facts VALUES(?, ?)", (added.lastrowid, facts))
        db.execute("INSERT INTO documents VALUES(?, ?)", (added.lastrowid, zlib.compress(entry_text(entry).encode())))
    return added.rowcount


def put_line(db: sqlite3.Connection, document: str) -> bool:
    """Take in an entry that is written as a line of JSON; False where it cannot be read."""
    try:
        put(db, entry_from(json.loads(document)))
    except (PlainCompassError, ValueError, RecursionError):
        return False
    return True


def told_anew(db: sqlite3.Connection) -> int:
    """Facts of the tables' version 2 with those that came after; returns how many entries could not be read.

    Only what was timed says anything of the new one, the last: of the others it stays empty, and nothing is judged
    again. What came straight from version 1 has it already.
    """
    lost, older = 0, PACKED.size - 8
    rows = db.execute("SELECT number, said FROM facts WHERE length(said)=?", (older,)).fetchall()
    for number, said in rows:
        took = None
        if struct.unpack_from("<d", said, 8 * NAMES.index("time_s"))[0] > 0:
            (content,) = db.execute("SELECT content FROM documents WHERE number=?", (number,)).fetchone()
            try:
                took = facts_of_entry(unpacked(content)).time_ln
            except (PlainCompassError, ValueError, zlib.error):
                lost += 1
        facts = said + struct.pack("<d", float("nan") if took is None else took)
        db.execute("UPDATE facts SET said=? WHERE number=?", (facts, number))
    return lost


def unpacked(content: bytes) -> LogEntry:
    """An entry from its document."""
    return entry_from(json.loads(zlib.decompress(content)))
