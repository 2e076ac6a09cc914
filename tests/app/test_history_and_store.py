"""Undo over whole documents, and the store every change goes through."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.app.frame.history import History, State
from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.store import Store
from plain_compass.job.demo import demo_job
from plain_compass.job.disk import JobFileError
from plain_compass.job.edits import add_tree
from plain_compass.job.files import Opened, read_job


def state(name: str) -> State:
    return State(replace(demo_job(), name=name), "WH-07")


def test_steps_are_named_and_taken_back_one_by_one() -> None:
    history = History([state("a")])
    history.push("to b", state("b"))
    history.push("to c", state("c"))
    assert history.undo_title == "to c"
    assert history.move(-1) == state("b")
    assert (history.undo_title, history.redo_title) == ("to b", "to c")
    assert history.move(1) == state("c")


def test_a_step_that_changes_nothing_is_not_kept() -> None:
    history = History([state("a")])
    history.push("nothing", state("a"))
    assert history.undo_title == ""


def test_a_new_step_forgets_what_was_undone() -> None:
    history = History([state("a")])
    history.push("to b", state("b"))
    history.move(-1)
    history.push("to c", state("c"))
    assert history.redo_title == ""
    assert history.now == state("c")


def test_typed_text_joins_into_one_step() -> None:
    history = History([state("a")])
    for text in ("n", "no", "not"):
        history.push("notes", state(text), joins=True)
    assert history.move(-1) == state("a")
    assert history.move(1) == state("not")


@given(names=st.lists(st.text("abc", min_size=1, max_size=2), max_size=12))
def test_undoing_everything_comes_back_to_the_beginning_and_redo_to_the_end(names: list[str]) -> None:
    history = History([state("start")])
    for name in names:
        history.push(name, state(name))
    end = history.now
    history.move(-1000)
    assert history.now == state("start")
    history.move(1000)
    assert history.now == end


def test_a_change_is_told_with_its_assessment(store: Store) -> None:
    told: list[object] = []
    store.changed.connect(told.append)
    assert store.set("cut.face.depth_m", 0.13, "face depth")
    assert store.snapshot.plan.cut.face.depth_m == 0.13
    assert store.snapshot.result.parts.face.depth_ratio == pytest.approx(0.13 / 0.546, rel=0.01)
    assert len(told) == 1


def test_what_does_not_fit_is_refused_and_changes_nothing(store: Store) -> None:
    said: list[str] = []
    store.refused.connect(said.append)
    before = store.snapshot
    assert not store.set("cut.face.depth_m", 0.4, "face depth")
    assert store.snapshot is before
    assert store.history.undo_title == ""
    assert "Face depth 40 cm" in said[0] and "pith" in said[0] and "accepted" in said[0]


def test_a_drag_is_one_step(store: Store) -> None:
    start = store.snapshot.job
    for value in (0.121, 0.125, 0.13):
        store.preview({"cut.face.depth_m": value})
    assert store.dragging
    store.finish("face depth dragged")
    assert not store.dragging
    assert store.history.undo_title == "face depth dragged"
    store.undo()
    assert store.snapshot.job == start


def test_a_drag_let_go_with_escape_leaves_no_trace(store: Store) -> None:
    start = store.snapshot.job
    store.preview({"cut.face.depth_m": 0.13})
    store.abandon()
    assert store.snapshot.job == start
    assert store.history.undo_title == ""


def test_a_drag_past_what_fits_stops_there(store: Store) -> None:
    store.preview({"cut.face.depth_m": 0.14})
    store.preview({"cut.face.depth_m": 0.39})
    assert store.snapshot.plan.cut.face.depth_m == 0.14
    store.preview({"cut.hinge.left_m": -5.0})
    assert store.snapshot.plan.cut.hinge.left_m == 0.0


def test_looking_at_another_tree_is_no_step(store: Store) -> None:
    job, name = add_tree(store.snapshot.job)
    store.edit("tree added", job, name)
    store.look_at("WH-07")
    assert store.tree_id == "WH-07"
    assert store.history.undo_title == "tree added"


def test_saving_knows_what_is_unsaved(store: Store, tmp_path: Path) -> None:
    assert not store.unsaved
    store.set("notes", "look up", "notes")
    assert store.unsaved
    store.save(tmp_path / "a.pcjob.json")
    assert not store.unsaved
    store.undo()
    assert store.unsaved
    assert read_job(tmp_path / "a.pcjob.json").job.trees[0].notes == "look up"


def test_a_save_that_fails_leaves_document_and_history(store: Store) -> None:
    store.set("notes", "look up", "notes")
    with pytest.raises(JobFileError):
        store.save(Path("/proc/none/a.pcjob.json"))
    assert store.unsaved
    assert store.history.undo_title == "notes"


def test_unsaved_work_of_a_dead_run_is_found_and_taken_up(tmp_path: Path) -> None:
    dead, job = Recovery(tmp_path), replace(demo_job(), name="half done")
    dead.keep(job, {"weather": "wet"}, tmp_path / "a.pcjob.json")
    living = Recovery(tmp_path)
    assert living.orphans() == [], "a run that still holds its lock is alive"
    dead.close(keep=True)
    (found,) = living.orphans()
    assert found.opened.job == job
    assert found.opened.raw["weather"] == "wet"
    assert found.path == tmp_path / "a.pcjob.json"
    living.adopt(found)
    assert Recovery(tmp_path).orphans() == []
    assert living.file.exists()


def test_recovery_that_cannot_be_read_is_set_aside_and_not_deleted(tmp_path: Path) -> None:
    (tmp_path / "x.json").write_text("{broken")
    assert Recovery(tmp_path).orphans() == []
    assert (tmp_path / "x.unreadable").read_text() == "{broken"


def test_a_run_that_ends_well_leaves_nothing(tmp_path: Path) -> None:
    run = Recovery(tmp_path)
    run.keep(demo_job(), {}, None)
    run.close(keep=False)
    assert list(tmp_path.iterdir()) == []


def test_another_job_begins_a_history_of_its_own(store: Store) -> None:
    store.set("notes", "x", "notes")
    store.replace(Opened(demo_job()), None)
    assert store.history.undo_title == ""
    assert not store.unsaved
