"""The record of practice: what is told as kept is kept, whatever happens to the program or the file."""

from __future__ import annotations

import os
import signal
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest

from plain_compass.core.practice.learner import Answer
from plain_compass.log.answers import AnswerLog, RecordError, record_csv


def answer(seed: int) -> Answer:
    return Answer(739_000, "height", 2, seed, True, 0.4, 18.0, 0.8, 0.96)


def test_answers_are_there_when_the_record_is_opened_again(tmp_path: Path) -> None:
    log = AnswerLog(tmp_path / "deep" / "practice.sqlite")
    for seed in range(5):
        log.add(answer(seed))
    log.close()
    again = AnswerLog(tmp_path / "deep" / "practice.sqlite")
    assert again.answers() == tuple(answer(seed) for seed in range(5)) and again.troubles == []


def test_what_was_told_as_kept_survives_a_kill(tmp_path: Path) -> None:
    path = tmp_path / "practice.sqlite"
    code = (
        "import sys; from pathlib import Path; from plain_compass.log.answers import AnswerLog;"
        "from plain_compass.core.practice.learner import Answer; log = AnswerLog(Path(sys.argv[1]))\n"
        "for seed in range(100000):\n"
        "    log.add(Answer(1, 'lean', 1, seed, True, 0.0, 1.0, 0.5, 0.5)); print(seed, flush=True)"
    )
    running = subprocess.Popen([sys.executable, "-c", code, str(path)], stdout=subprocess.PIPE, text=True)
    assert running.stdout is not None
    told = [int(running.stdout.readline()) for _ in range(40)]
    os.kill(running.pid, signal.SIGKILL)
    running.wait()
    kept = [each.seed for each in AnswerLog(path).answers()]
    assert kept[: len(told)] == told and kept == list(range(len(kept)))


def test_a_damaged_record_is_set_aside_and_what_can_be_read_is_saved(tmp_path: Path) -> None:
    path = tmp_path / "practice.sqlite"
    log = AnswerLog(path)
    for seed in range(400):
        log.add(answer(seed))
    log._db.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    log.close()
    content = bytearray(path.read_bytes())
    content[len(content) - 4096 : len(content) - 2000] = b"\xff" * 2096
    path.write_bytes(bytes(content))
    again = AnswerLog(path)
    assert "was damaged" in again.troubles[0] and next(tmp_path.glob("practice.damaged-*.sqlite"))
    assert 100 < len(again.answers()) <= 400


def test_a_newer_record_is_read_and_never_written(tmp_path: Path) -> None:
    path = tmp_path / "practice.sqlite"
    log = AnswerLog(path)
    log.add(answer(1))
    log.close()
    newer = sqlite3.connect(path)
    newer.execute("PRAGMA user_version=9")
    newer.commit()
    newer.close()
    again = AnswerLog(path)
    assert again.answers() == (answer(1),) and "newer" in again.troubles[0]
    with pytest.raises(RecordError, match="not kept"):
        again.add(answer(2))


def test_where_the_record_cannot_be_opened_practice_goes_on_and_says_so(tmp_path: Path) -> None:
    path = tmp_path / "practice.sqlite"
    path.mkdir()
    log = AnswerLog(path)
    assert "cannot be opened" in log.troubles[0]
    log.add(answer(1))
    assert len(log.answers()) == 1


def test_the_record_goes_out_as_csv() -> None:
    log = AnswerLog(None)
    log.add(answer(7))
    head, row = record_csv(log).splitlines()
    assert head.startswith("day,skill,level,seed") and row == "2024-04-24,height,2,7,True,0.4,18.0,0.8,0.96"
