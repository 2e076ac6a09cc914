"""A long log: a hundred thousand stumps listed, filtered and learned from, against the demo's forty many times over."""

from __future__ import annotations

import tempfile
from datetime import date, timedelta
from pathlib import Path

from works import Work

COUNT, FIRST = 100_000, date(2012, 1, 2)
"""Stumps, twenty a day from then on: what a crew fells in fourteen years."""


def long_log(folder: Path, count: int = COUNT) -> Path:
    """A log file of so many stumps: the demo's, over and over, each with an id and a day of its own."""
    from plain_compass.log.places import demo_entries
    from plain_compass.log.store import StumpLog

    path = folder / "long.sqlite"
    log = StumpLog(path)
    log.add(demo_entries())
    db = log._db
    columns = "made, place, tree, faller, saw, cut, kind"
    rows = db.execute(f"SELECT {columns} FROM entries ORDER BY number").fetchall()
    facts, documents = (
        [row[0] for row in db.execute(f"SELECT {column} FROM {table} ORDER BY number")]
        for table, column in (("facts", "said"), ("documents", "content"))
    )
    db.execute("BEGIN")
    for number in range(count - len(rows)):
        like = number % len(rows)
        day = (FIRST + timedelta(days=number // 20)).isoformat()
        values = (f"long-{number}", day, *rows[like])
        added = db.execute(f"INSERT INTO entries(id, day, {columns}) VALUES(?,?,?,?,?,?,?,?,?)", values)
        db.execute("INSERT INTO facts VALUES(?, ?)", (added.lastrowid, facts[like]))
        db.execute("INSERT INTO documents VALUES(?, ?)", (added.lastrowid, documents[like]))
    db.execute("COMMIT")
    log.close()
    return path


def log_works() -> dict[str, Work]:
    """Open, list, filter and learn; the file lies in a scratch folder that goes with the process."""
    from plain_compass.log.records import known_in
    from plain_compass.log.stats import summary_of
    from plain_compass.log.store import Filter, StumpLog

    scratch = tempfile.TemporaryDirectory(prefix="plain-compass-log-")
    path = long_log(Path(scratch.name))
    log = StumpLog(path)
    kept = [scratch]
    wren = Filter(faller="Wren", since="2015-01-01")
    return {
        "log of 100,000, listed": lambda _: (kept, log.listed()),
        "log of 100,000, filtered": lambda _: log.listed(wren),
        "log of 100,000, learned from": lambda _: known_in(log),
        "log of 100,000, day and year": lambda _: summary_of(log, wren),
        "log of 100,000, opened and checked": lambda _: StumpLog(path).close(),
    }
