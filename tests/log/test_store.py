"""The file of the stump log: each stump once, whatever state the file is in, however many write to it at once."""

from __future__ import annotations

import json
import math
import multiprocessing
import sqlite3
from dataclasses import replace
from pathlib import Path

import pytest

from plain_compass.core.base.paths import with_value
from plain_compass.job.document import LogEntry
from plain_compass.job.log_entries import entry_text
from plain_compass.log.places import demo_entries
from plain_compass.log.records import records_of
from plain_compass.log.schema import VERSION
from plain_compass.log.store import Filter, LogError, StumpLog

FIRST = Path(__file__).with_name("first_tables.sql")
"""A log as the first tables had it, with three stumps."""
ENTRIES = demo_entries()


def fresh(number: int) -> LogEntry:
    return replace(ENTRIES[0], id=f"stump-{number}")


def test_a_stump_is_taken_in_once_and_comes_out_as_it_went_in(tmp_path: Path) -> None:
    log = StumpLog(tmp_path / "deep" / "stumps.sqlite")
    assert log.add(ENTRIES[:5]) == 5 and log.add(ENTRIES[3:7]) == 2
    assert [entry.id for entry in log.entries()] == [entry.id for entry in ENTRIES[:7]]
    for entry in ENTRIES[:7]:
        assert log.entry(entry.id) == entry
    assert log.entry("withy-holm-0") is None, "a beginning that several have is no one's"
    assert log.check() == [] and log.troubles == []


def test_what_was_told_as_kept_is_there_when_the_file_is_opened_again(tmp_path: Path) -> None:
    StumpLog(tmp_path / "s.sqlite").add(ENTRIES[:2])
    again = StumpLog(tmp_path / "s.sqlite")
    assert again.count() == 2 and again.entry(ENTRIES[1].id) == ENTRIES[1]


def test_a_stump_is_corrected_in_its_place(tmp_path: Path) -> None:
    log = StumpLog(tmp_path / "s.sqlite")
    log.add(ENTRIES[:3])
    plan = ENTRIES[1].plan
    mended = replace(ENTRIES[1], plan=replace(plan, as_cut=replace(plan.as_cut, blows=77)))
    log.correct(mended)
    assert log.count() == 3 and log.entry(mended.id) == mended and log.check() == []


def test_filters_narrow_the_list_by_what_they_say(tmp_path: Path) -> None:
    log = StumpLog(None)
    log.add(ENTRIES)
    rows = log.listed(Filter(faller="Wren", since="2026-01-01", until="2026-03-31"))
    assert rows and all(row[5] == "Wren" and "2026-01-01" <= row[2] <= "2026-03-31" for row in rows)
    assert [row[2] for row in log.listed()] == sorted(row[2] for row in log.listed())
    assert len(log.listed(Filter(species="lime"))) == sum(e.plan.tree.species == "lime" for e in ENTRIES)
    assert len(log.listed(Filter(cut="plain"))) == 40 and log.listed(Filter(cut="%")) == []
    assert len(log.facts(Filter(saw="40 cm bar"))) == sum(e.plan.as_cut.saw == "40 cm bar" for e in ENTRIES)
    assert log.values("faller") == ["Tarn", "Wren"]


def test_two_windows_see_what_the_other_writes(tmp_path: Path) -> None:
    one, other = StumpLog(tmp_path / "s.sqlite"), StumpLog(tmp_path / "s.sqlite")
    before = one.changes()
    other.add(ENTRIES[:1])
    assert one.changes() != before and one.count() == 1
    one.add(ENTRIES[:2])
    assert other.count() == 2


def _write(path: Path, first: int, count: int) -> None:
    log = StumpLog(path)
    for number in range(first, first + count):
        log.add([fresh(number)])


def test_two_processes_that_write_at_once_lose_nothing(tmp_path: Path) -> None:
    path = tmp_path / "s.sqlite"
    context = multiprocessing.get_context("spawn")
    writers = [context.Process(target=_write, args=(path, first, 12)) for first in (0, 100)]
    for writer in writers:
        writer.start()
    for writer in writers:
        writer.join()
    log = StumpLog(path)
    assert [writer.exitcode for writer in writers] == [0, 0]
    assert {row[1] for row in log.listed()} == {f"stump-{n}" for n in (*range(12), *range(100, 112))}
    assert log.check() == []


def test_a_log_of_the_first_tables_is_brought_up_and_kept_as_it_was(tmp_path: Path) -> None:
    path = tmp_path / "stumps.sqlite"
    old = sqlite3.connect(path)
    old.executescript(FIRST.read_text(encoding="utf-8"))
    old.close()
    log = StumpLog(path)
    assert [entry.id for entry in log.entries()] == ["withy-holm-01", "withy-holm-02", "withy-holm-03"]
    assert log.values("faller") == ["Tarn", "Wren"] and log.check() == []
    (kept,) = tmp_path.glob("stumps.version-1-*.sqlite")
    assert len(log.troubles) == 1 and kept.name in log.troubles[0]
    before = sqlite3.connect(kept)
    assert before.execute("SELECT COUNT(*) FROM entries WHERE document LIKE '{%'").fetchone() == (3,)
    assert StumpLog(path).troubles == [], "once brought up nothing is to be told any more"


def test_a_log_of_the_second_tables_learns_from_then_on_how_long_each_took(tmp_path: Path) -> None:
    path = tmp_path / "stumps.sqlite"
    log, (timed, untimed) = StumpLog(path), ENTRIES[:2]
    timed = with_value(timed, "plan.as_cut.time_s", 600.0)
    log.add((timed, with_value(untimed, "plan.as_cut.time_s", None)))
    said = records_of(log).fact("time_ln")
    assert math.isfinite(said[0]) and math.isnan(said[1])
    log.close()
    old = sqlite3.connect(path)
    old.execute("UPDATE facts SET said=substr(said, 1, length(said) - 8)")
    old.execute("PRAGMA user_version=2")
    old.commit()
    old.close()
    again = StumpLog(path)
    assert records_of(again).fact("time_ln") == pytest.approx(said, nan_ok=True)
    assert again.check() == [] and next(tmp_path.glob("stumps.version-2-*.sqlite")), "as it was it is kept"


def test_what_a_migration_cannot_read_stands_in_the_copy_and_is_told(tmp_path: Path) -> None:
    path = tmp_path / "stumps.sqlite"
    old = sqlite3.connect(path)
    old.executescript(FIRST.read_text(encoding="utf-8"))
    old.execute("INSERT INTO entries VALUES('bad', '2026', 'no entry at all')")
    old.commit()
    old.close()
    log = StumpLog(path)
    assert log.count() == 3 and "1 of its entries could not be read" in log.troubles[0]
    (kept,) = tmp_path.glob("stumps.version-1-*.sqlite")
    assert sqlite3.connect(kept).execute("SELECT document FROM entries WHERE id = 'bad'").fetchone()


def test_a_migration_that_is_broken_off_leaves_the_file_as_it_was(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "stumps.sqlite"
    old = sqlite3.connect(path)
    old.executescript(FIRST.read_text(encoding="utf-8"))
    old.close()

    def full(*_: object) -> bool:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr("plain_compass.log.opening.put_line", full)
    with pytest.raises(LogError, match="disk is full"):
        StumpLog(path)
    kept = sqlite3.connect(path)
    assert kept.execute("PRAGMA user_version").fetchone() == (1,)
    assert kept.execute("SELECT COUNT(*) FROM entries").fetchone() == (3,)


def test_a_log_of_a_newer_version_is_read_and_never_written(tmp_path: Path) -> None:
    path = tmp_path / "stumps.sqlite"
    log = StumpLog(path)
    log.add(ENTRIES[:2])
    log.close()
    db = sqlite3.connect(path)
    db.execute(f"PRAGMA user_version={VERSION + 1}")
    db.close()
    newer = StumpLog(path)
    assert newer.read_only and f"version {VERSION + 1}" in newer.troubles[0]
    assert newer.count() == 2 and newer.entry(ENTRIES[0].id) == ENTRIES[0]
    with pytest.raises(LogError, match="newer Plain Compass"):
        newer.add(ENTRIES[2:3])
    assert newer.count() == 2


@pytest.mark.parametrize("harm", ["middle", "head", "text"])
def test_a_damaged_file_is_set_aside_and_what_can_be_read_is_saved_out_of_it(tmp_path: Path, harm: str) -> None:
    path = tmp_path / "stumps.sqlite"
    log = StumpLog(path)
    log.add(ENTRIES)
    log.close()
    content = bytearray(path.read_bytes())
    if harm == "middle":
        content[len(content) // 2 : len(content) // 2 + 5000] = b"\xff" * 5000
    elif harm == "head":
        content[:200] = b"\0" * 200
    else:
        content = bytearray(b"this is no log")
    path.write_bytes(content)
    for more in ("-wal", "-shm"):
        path.with_name(path.name + more).unlink(missing_ok=True)
    mended = StumpLog(path)
    (aside,) = tmp_path.glob("stumps.damaged-*.sqlite")
    assert aside.read_bytes() == bytes(content), "what was damaged is kept as it is"
    assert aside.name in mended.troubles[0] and "set aside" in mended.troubles[0]
    known = {entry.id: entry for entry in ENTRIES}
    assert all(known[entry.id] == entry for entry in mended.entries())
    if harm == "middle":
        assert mended.count() >= 20, "half of the file was whole"
    saved = mended.count()
    assert mended.add(ENTRIES) == 40 - saved and mended.check() == []


def test_a_write_that_cannot_be_done_says_so_and_changes_nothing(tmp_path: Path) -> None:
    path = tmp_path / "stumps.sqlite"
    log = StumpLog(path)
    log.add(ENTRIES[:1])
    with pytest.raises(LogError, match="could not be written"):
        log._db.execute("DROP TABLE documents")
        log.add(ENTRIES[1:2])
    assert log.count() == 1


def test_a_folder_in_the_place_of_the_log_is_a_sentence(tmp_path: Path) -> None:
    (tmp_path / "stumps.sqlite").mkdir()
    with pytest.raises(LogError, match="cannot be opened"):
        StumpLog(tmp_path / "stumps.sqlite")


def test_a_record_is_left_out_of_one_quantity_and_taken_in_again() -> None:
    log = StumpLog(None)
    log.add(ENTRIES[:2])
    log.leave_out(1, "aim", out=True)
    log.leave_out(1, "aim", out=True)
    assert log.left_out() == {"aim": {1}}
    log.leave_out(1, "aim", out=False)
    assert log.left_out() == {}


def test_the_documents_are_the_entries_as_they_are_written_elsewhere() -> None:
    """One form wherever an entry stands: in the log, in a job, in a file given away."""
    raw = json.loads(entry_text(ENTRIES[0]))
    assert raw["format"] == "plain-compass-stump" and raw["plan"]["as_cut"]["faller"] == "Wren"
