"""One's own record of practice: a file of answers, each kept at once, opened whatever state it is in."""

from __future__ import annotations

import sqlite3
from datetime import date
from pathlib import Path

from platformdirs import user_data_path

from .. import APP
from ..core.base.errors import PlainCompassError
from ..core.practice.learner import Answer
from ..job.csv_rows import table_text
from ..job.language import tr
from .opening import reason
from .sqlite_file import connect, damage_of, rows_of, set_aside, whole

VERSION = 1
"""Of the table, kept as the file's ``user_version``."""
TABLE = """
CREATE TABLE answers(
    number INTEGER PRIMARY KEY,
    day INTEGER NOT NULL, skill TEXT NOT NULL, level INTEGER NOT NULL, seed INTEGER NOT NULL,
    near INTEGER NOT NULL, error REAL, truth REAL, sure REAL NOT NULL, score REAL NOT NULL
)
"""
"""An answer a row."""
COLUMNS = ("day", "skill", "level", "seed", "near", "error", "truth", "sure", "score")
INSERT = f"INSERT INTO answers({', '.join(COLUMNS)}) VALUES({', '.join('?' for _ in COLUMNS)})"


class RecordError(PlainCompassError):
    """The record of practice cannot be read or written; the text is one sentence."""


def own_record() -> Path:
    """Where a person's own record is kept."""
    return user_data_path(APP) / "practice.sqlite"


class AnswerLog:
    """The record.

    Attributes:
        troubles: sentences on what was found when it was opened.
    """

    def __init__(self, path: Path | None) -> None:
        self.path, self.troubles, self.read_only = path, list[str](), False
        try:
            self._db = self._opened(path)
        except (OSError, sqlite3.Error) as error:
            told = tr(
                "The record of practice cannot be opened: {reason}. Answers are not kept this time.",
                reason=reason(error),
            )
            self.troubles.append(told)
            self._db = _prepared(connect(None))

    def _opened(self, path: Path | None) -> sqlite3.Connection:
        if path is not None:
            path.parent.mkdir(parents=True, exist_ok=True)
        if path is None or not path.exists():
            return _prepared(connect(path))
        trouble = damage_of(path)
        if trouble:
            return self._salvaged(path, trouble)
        db = connect(path)
        (version,) = db.execute("PRAGMA user_version").fetchone()
        if version > VERSION:
            self.read_only = True
            self.troubles.append(
                tr("The record of practice was written by a newer Plain Compass: it is read, not written.")
            )
            return db
        return _prepared(db)

    def _salvaged(self, path: Path, trouble: str) -> sqlite3.Connection:
        aside = set_aside(path)
        db, count = _prepared(connect(path)), 0
        with whole(db):
            for row in rows_of(aside, "answers", ", ".join(COLUMNS)):
                db.execute(INSERT, row)
                count += 1
        told = tr(
            "The record of practice was damaged ({trouble}); it was set aside as {name}, {count} answers saved.",
            trouble=trouble,
            name=aside.name,
            count=count,
        )
        self.troubles.append(told)
        return db

    def add(self, answer: Answer) -> None:
        """Keep an answer; when this returns it is on the disk. Raises RecordError."""
        if self.read_only:
            raise RecordError(tr("The record of practice is of a newer version; this answer is not kept."))
        row = tuple(getattr(answer, name) for name in COLUMNS)
        try:
            self._db.execute(INSERT, row)
        except sqlite3.Error as error:
            raise RecordError(tr("This answer could not be kept: {reason}.", reason=reason(error))) from None

    def answers(self) -> tuple[Answer, ...]:
        """All of them, in order."""
        rows = self._db.execute(f"SELECT {', '.join(COLUMNS)} FROM answers ORDER BY number").fetchall()
        return tuple(Answer(d, k, lv, s, bool(n), e, t, su, sc) for d, k, lv, s, n, e, t, su, sc in rows)

    def close(self) -> None:
        """Close it; what was told as kept is on the disk already."""
        self._db.close()


def _prepared(db: sqlite3.Connection) -> sqlite3.Connection:
    with whole(db):
        if db.execute("PRAGMA user_version").fetchone()[0] == 0:
            db.execute(TABLE)
            db.execute(f"PRAGMA user_version={VERSION}")
    return db


def today_number() -> int:
    """Today as a number of days."""
    return date.today().toordinal()


def record_csv(log: AnswerLog) -> str:
    """The record as CSV, days as people write them."""
    rows = [[*COLUMNS]]
    for each in log.answers():
        told = [getattr(each, name) for name in COLUMNS[1:]]
        rows.append([date.fromordinal(each.day).isoformat(), *("" if value is None else str(value) for value in told)])
    return table_text(rows)
