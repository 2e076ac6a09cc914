"""Nothing done is lost: autosave while working, recovery after a kill, two writers on one file, a disk that refuses."""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtWidgets import QMenu
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.autosave import DELAY_MS
from plain_compass.app.frame.recovery import Recovered, Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.frame.store import ChangedElsewhereError
from plain_compass.app.frame.window import Window
from plain_compass.app.main import start
from plain_compass.job.demo import demo_job
from plain_compass.job.disk import JobFileError, hash_on_disk
from plain_compass.job.document import Job, with_plan
from plain_compass.job.files import Opened, job_text, parse_job, read_job, write_job

sys.path.insert(0, str(Path(__file__).resolve().parents[2] / "tools"))
import kill_rounds

Start = Callable[..., Window]


def noted(words: str) -> Job:
    return with_plan(demo_job(), "WH-07", "notes", words)


def notes(window: Window) -> str:
    return window.store.history.now.job.trees[0].notes


@pytest.fixture
def job_file(tmp_path: Path) -> Path:
    path = tmp_path / "south.pcjob.json"
    write_job(path, noted("in the file"))
    return path


@pytest.fixture
def begin(qtbot: QtBot, tmp_path: Path) -> Start:
    """Starts the program as the command line does, with its files in a scratch folder."""

    def begun(path: Path | None = None, *, demo: bool = False) -> Window:
        made = start(path, Settings(tmp_path / "s.ini"), Recovery(tmp_path / "recovery"), demo=demo)
        made.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
        qtbot.addWidget(made)
        return made

    return begun


def die(window: Window) -> None:
    """What a kill leaves behind: the files as they are, the lock let go."""
    window.autosave._timer.stop()
    window.autosave.recovery.close(keep=True)


def test_who_types_without_a_pause_is_kept_as_well(window: Window, qtbot: QtBot) -> None:
    """Steps come faster than the delay for three times as long; the timer must not start anew with each of them."""
    kept = window.autosave.recovery.file
    for number in range(3 * DELAY_MS // 50):
        window.store.set("notes", f"{number}", "notes", joins=True)
        qtbot.wait(50)
        if kept.exists():
            break
    assert kept.exists()


def test_a_drag_that_is_held_is_kept_too(window: Window, qtbot: QtBot) -> None:
    window.store.preview({"cut.face.depth_m": 0.13})
    qtbot.waitUntil(window.autosave.recovery.file.exists, timeout=3000)
    content = json.loads(window.autosave.recovery.file.read_text())
    assert parse_job(content["job"], "kept").job.trees[0].cut.face.depth_m == 0.13
    window.store.abandon()
    qtbot.waitUntil(lambda: not window.autosave.recovery.file.exists(), timeout=3000)


def test_a_drag_that_never_rests_is_kept_while_it_goes_on(window: Window, qtbot: QtBot) -> None:
    """Every move starts a wait of its own only where none is running: else none would ever end."""
    kept = window.autosave.recovery.file
    for number in range(3 * DELAY_MS // 50):
        window.store.preview({"cut.face.depth_m": 0.12 + number / 1000})
        qtbot.wait(50)
        if kept.exists():
            break
    assert kept.exists()
    window.store.abandon()


def test_a_file_that_holds_what_a_save_under_way_was_to_put_there_is_not_older_than_kept_work(job_file: Path) -> None:
    now = hash_on_disk(job_file)
    kept = Recovered(Opened(noted("kept")), job_file, job_file.with_suffix(".kept"), base="before", becoming=now)
    assert kept.standing() == "nothing new"
    assert replace(kept, becoming="something else").standing() == "both"
    assert replace(kept, base=now, becoming="").standing() == "newer"


def test_work_on_a_named_file_comes_back_when_that_file_is_opened_by_name(begin: Start, job_file: Path) -> None:
    first = begin(job_file)
    first.store.set("notes", "typed before the crash", "notes")
    assert first.autosave.write()
    die(first)
    again = begin(job_file)
    assert notes(again) == "typed before the crash"
    assert again.store.unsaved and "brought back" in again.message.text()
    again.store.undo()
    assert notes(again) == "in the file"


def test_a_save_that_was_cut_off_before_it_was_told_beats_what_was_kept(begin: Start, job_file: Path) -> None:
    """Killed between putting the file in place and forgetting the kept work: the file has everything."""
    first = begin(job_file)
    first.store.set("notes", "older", "notes")
    first.autosave.write()
    first.autosave.forget = lambda: None  # type: ignore[method-assign]
    first.store.saved_whole.disconnect()
    first.store.set("notes", "newest", "notes")
    first.store.save(job_file)
    die(first)
    again = begin(job_file)
    assert notes(again) == "newest" and not again.store.unsaved
    assert Recovery(again.autosave.recovery.folder).orphans() == []


def test_a_save_forgets_what_was_kept_before_it_says_saved(begin: Start, job_file: Path) -> None:
    window = begin(job_file)
    window.store.set("notes", "x", "notes")
    window.autosave.write()
    seen = []
    window.store.told.connect(lambda _: seen.append(window.autosave.recovery.file.exists()))
    assert window.jobs.save()
    assert seen == [False]


@pytest.mark.parametrize(("answer", "shown", "undone"), [("kept", "mine", "theirs"), ("file", "theirs", "mine")])
def test_file_and_kept_work_that_each_hold_something_are_both_offered(
    begin: Start, job_file: Path, monkeypatch: pytest.MonkeyPatch, answer: str, shown: str, undone: str
) -> None:
    first = begin(job_file)
    first.store.set("notes", "mine", "notes")
    first.autosave.write()
    die(first)
    write_job(job_file, noted("theirs"), {"format": "x", "kept_by": "another program"})
    monkeypatch.setattr("plain_compass.app.frame.kept_work.KeptWork.ask_which", lambda *_: answer)
    again = begin(job_file)
    assert notes(again) == shown
    assert again.store.unsaved is (shown == "mine")
    again.store.undo()
    assert notes(again) == undone
    assert again.store.raw["kept_by"] == "another program"


def test_every_orphan_is_offered_and_none_is_taken_twice(begin: Start, tmp_path: Path) -> None:
    for words in ("first", "second"):
        lost = Recovery(tmp_path / "recovery")
        lost.keep(noted(words), {}, None)
        os.utime(lost.file, (1, 1 if words == "first" else 2))
        lost.close(keep=True)
    one, two = begin(demo=True), begin(demo=True)
    assert (notes(one), notes(two)) == ("second", "first")
    assert "(1)" in one.message.text()
    menu = QMenu(two)
    two.kept.fill(menu)
    assert menu.actions() == []


def test_other_kept_work_is_brought_back_from_the_menu(begin: Start, tmp_path: Path) -> None:
    for words in ("first", "second"):
        lost = Recovery(tmp_path / "recovery")
        lost.keep(noted(words), {}, None)
        os.utime(lost.file, (1, 1 if words == "first" else 2))
        lost.close(keep=True)
    window = begin(demo=True)
    menu = QMenu(window)
    window.kept.fill(menu)
    (entry,) = menu.actions()
    entry.trigger()
    assert notes(window) == "first"
    window.kept.fill(menu := QMenu(window))
    assert len(menu.actions()) == 1, "the work that was open is kept in its turn"


def test_two_starts_at_once_do_not_adopt_the_same_work(tmp_path: Path) -> None:
    lost = Recovery(tmp_path)
    lost.keep(noted("once"), {}, None)
    lost.close(keep=True)
    one, two = Recovery(tmp_path), Recovery(tmp_path)
    (seen,), (also,) = one.orphans(), two.orphans()
    assert one.adopt(seen)
    assert not two.adopt(also)


def test_a_new_job_does_not_save_the_old_one_into_its_file(begin: Start, job_file: Path) -> None:
    window = begin(job_file)
    window.store.set("notes", "not asked to be saved", "notes")
    window.commands.run("job.new")
    assert read_job(job_file).job.trees[0].notes == "in the file"
    assert window.store.path is None and window.page is window.pages["look"]
    assert "Kept work" in window.message.text()
    assert window.jobs.open(job_file)
    assert notes(window) == "not asked to be saved"


def changed_elsewhere(begin: Start, job_file: Path, answer: str) -> Window:
    window = begin(job_file)
    window.store.set("notes", "mine", "notes")
    write_job(job_file, noted("theirs"))
    window.jobs.ask_changed = lambda _: answer  # type: ignore[method-assign]
    window.jobs.save()
    return window


def test_a_file_somebody_else_has_written_is_not_overwritten_without_a_word(begin: Start, job_file: Path) -> None:
    window = changed_elsewhere(begin, job_file, "stay")
    assert read_job(job_file).job.trees[0].notes == "theirs"
    assert window.store.unsaved
    with pytest.raises(ChangedElsewhereError, match="somebody else"):
        window.store.save(job_file)


def test_ones_own_work_is_saved_beside_it(begin: Start, job_file: Path) -> None:
    window = changed_elsewhere(begin, job_file, "beside")
    assert window.store.path == job_file.with_name("south (2).pcjob.json")
    assert read_job(window.store.path).job.trees[0].notes == "mine"
    assert read_job(job_file).job.trees[0].notes == "theirs"


def test_theirs_is_taken_and_ones_own_is_one_undo_away(begin: Start, job_file: Path) -> None:
    window = changed_elsewhere(begin, job_file, "theirs")
    assert notes(window) == "theirs" and not window.store.unsaved
    window.store.undo()
    assert notes(window) == "mine" and window.store.unsaved


def test_theirs_is_overwritten_when_that_is_chosen_and_then_no_longer_asked_about(begin: Start, job_file: Path) -> None:
    window = changed_elsewhere(begin, job_file, "over")
    assert read_job(job_file).job.trees[0].notes == "mine"
    window.store.set("notes", "later", "notes")
    window.jobs.ask_changed = lambda _: pytest.fail("asked again")  # type: ignore[method-assign]
    assert window.jobs.save()


def test_a_read_only_file_is_asked_about(begin: Start, job_file: Path) -> None:
    window = begin(job_file)
    window.store.set("notes", "mine", "notes")
    job_file.chmod(0o444)
    window.jobs.ask_read_only = lambda _: False  # type: ignore[method-assign]
    assert not window.jobs.save()
    assert read_job(job_file).job.trees[0].notes == "in the file"
    window.jobs.ask_read_only = lambda _: True  # type: ignore[method-assign]
    assert window.jobs.save()
    assert read_job(job_file).job.trees[0].notes == "mine"


def test_the_window_stays_open_when_keeping_for_next_time_fails(
    window: Window, monkeypatch: pytest.MonkeyPatch
) -> None:
    def full(*_: object, **__: object) -> None:
        raise JobFileError("no space left on device.")

    with monkeypatch.context() as patched:
        patched.setattr(window.autosave.recovery, "keep", full)
        window.store.set("notes", "x", "notes")
        assert not window.close()
        assert window.isVisible()
        assert "no space left" in window.message.text()


def test_a_suggested_file_name_holds_nothing_that_a_file_name_may_not(window: Window) -> None:
    window.store.change("named", lambda job: replace(job, name="../North: bank?\\*"))
    asked: list[str] = []
    window.jobs.ask_save = lambda suggestion: asked.append(suggestion) or ""  # type: ignore[method-assign, func-returns-value]
    window.jobs.save_as()
    assert asked == ["North- bank.pcjob.json"]


# Broken things at the start ----------------------------------------------------------------------------------


@pytest.mark.parametrize("content", ['{"job": 5}', "[" * 5000, "", "\x00", '{"path": 3, "job": "x"}', "[1]"])
def test_kept_work_that_cannot_be_read_is_set_aside_with_a_sentence(begin: Start, tmp_path: Path, content: str) -> None:
    (tmp_path / "recovery").mkdir()
    (tmp_path / "recovery" / "old.json").write_text(content)
    window = begin(demo=True)
    assert "set aside" in window.message.text()
    assert (tmp_path / "recovery" / "old.unreadable").read_text() == content


def test_a_last_job_that_is_a_pipe_a_folder_or_no_name_does_not_stop_the_start(begin: Start, tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe")
    for name in (str(tmp_path / "pipe"), str(tmp_path), "a\x00b"):
        (tmp_path / "s.ini").write_text("")
        settings = Settings(tmp_path / "s.ini")
        settings._store.setValue("recent", [name])
        settings._store.sync()
        assert begin().isVisible()


def test_a_file_in_the_place_of_the_state_folder_is_set_aside(qtbot: QtBot, tmp_path: Path) -> None:
    (tmp_path / "state").write_text("not a folder")
    recovery = Recovery(tmp_path / "state" / "recovery")
    recovery.keep(demo_job(), {}, None)
    assert "set aside" in recovery.troubles[0]
    recovery.close(keep=False)


def test_work_that_cannot_be_kept_anywhere_is_said_so(begin: Start, tmp_path: Path) -> None:
    (tmp_path / "blocked").write_text("")
    recovery = Recovery(tmp_path / "blocked" / "deeper" / "recovery")
    assert "cannot be kept" in recovery.troubles[0]
    with pytest.raises(JobFileError, match="cannot be kept"):
        recovery.keep(demo_job(), {}, None)
    assert recovery.orphans() == []


def test_settings_that_cannot_be_kept_do_not_stop_the_start(tmp_path: Path) -> None:
    (tmp_path / "config").write_text("")
    settings = Settings(tmp_path / "config" / "s.ini")
    assert "cannot be kept" in settings.troubles[0]
    assert settings.recent() == []


# Killed over and over ----------------------------------------------------------------------------------------


def test_a_program_killed_again_and_again_loses_nothing_two_seconds_old(tmp_path: Path) -> None:
    """The short form of ``make kill``: real processes with the whole window, edits, saves and no warning."""
    lost, told = kill_rounds.rounds(tmp_path, 3, seed=11)
    assert lost == []
    assert sum(what == "edit" for what, *_ in told) > 5


def test_the_kill_test_itself_sees_a_loss() -> None:
    beats = [("alive", 2, 3.0 + beat / 10) for beat in range(25)]
    told = [("shown", 0, 0.0), ("edit", 1, 1.0), ("saved", 1, 1.5), ("edit", 2, 2.0), *beats, ("shown", 1, 9.0)]
    assert kill_rounds.losses(told, [3.5]) == []
    assert "edit 2 was lost" in kill_rounds.losses(told, [6.0])[0]
    assert "edit 1 was lost" in kill_rounds.losses([*told[:-1], ("shown", 0, 9.0)], [2.1])[0]


def test_kept_work_knows_its_file_through_a_link(tmp_path: Path, job_file: Path) -> None:
    link = tmp_path / "link.pcjob.json"
    link.symlink_to(job_file)
    kept = Recovered(read_job(job_file), link, tmp_path / "x")
    assert kept.belongs_to(job_file) and not kept.belongs_to(None)
    assert job_text(kept.opened.job)
