"""Crew, kit, hours and wind of a block as people type them: read, shown as they would be typed, refused by name."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.base.errors import InputError
from plain_compass.core.block.crew import Worker
from plain_compass.core.block.forecast import Hour
from plain_compass.core.block.kit_sets import KitSet
from plain_compass.core.judge.who import GRADES, Stated
from plain_compass.job.block import planned_block
from plain_compass.job.block_crew import crew_words, whose_of, whose_words, with_worker, worker_of, worker_words
from plain_compass.job.block_edits import breaking, starting, winded, worked
from plain_compass.job.block_kit import kit_set_of, kit_set_words, packed, with_kit_set, without_missing
from plain_compass.job.block_progress import goes_on_from, marked, progress_words
from plain_compass.job.demo import demo_coupe
from plain_compass.job.document import Job
from plain_compass.job.files import job_text, parse_job
from plain_compass.job.forecast_typed import forecast_words, typed_forecast
from plain_compass.job.own_kits import keep_own_kits, read_own_kits, with_own_kits
from plain_compass.job.units import UNITS
from plain_compass.job.words import Speech

FEW = replace(demo_coupe(), trees=demo_coupe().trees[:5])
FEW = replace(FEW, block=replace(FEW.block, begins="2027-01-11", trees=(), crew=(), kits=()))
NAMES = st.text("abcdefgh xyz", min_size=1, max_size=12).map(str.strip).filter(bool)


@given(NAMES, st.sampled_from(["not said", *GRADES]), st.none() | st.integers(5, 120), st.sampled_from([*UNITS]))
def test_one_of_the_crew_reads_back_as_shown(name: str, trained: str, cm: int | None, units: str) -> None:
    someone = Worker(name, Stated(trained=trained, biggest_m=None if cm is None else cm / 100))
    again = worker_of(worker_words(someone, Speech(units, "hinge")), units)
    assert (again.name, again.limits.trained) == (name, trained)
    assert (again.limits.biggest_m is None) == (cm is None)
    assert (again.limits.biggest_m or 0.0) == pytest.approx(someone.limits.biggest_m or 0.0, rel=0.05)


@given(
    NAMES,
    NAMES,
    st.builds(
        KitSet,
        bar_m=st.none() | st.integers(10, 99).map(lambda cm: cm / 100),
        wedges=st.integers(0, 12),
        mauls=st.integers(0, 2),
        levers=st.integers(0, 2),
        rope_m=st.integers(0, 99).map(float),
        pull_N=st.integers(0, 30).map(lambda thousands: 1000.0 * thousands),
        sheaves=st.integers(0, 3),
        slings=st.integers(0, 5),
        signs=st.integers(0, 5),
    ),
)
def test_a_set_of_kit_reads_back_as_shown(name: str, whose: str, kit: KitSet) -> None:
    kit = replace(kit, name=name, whose=whose)
    again = kit_set_of(kit_set_words(kit, Speech("metric", "hinge")), "metric")
    assert replace(again, rope_m=kit.rope_m, bar_m=kit.bar_m) == kit
    assert again.rope_m == pytest.approx(kit.rope_m) and again.bar_m == pytest.approx(kit.bar_m)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("bar 45 cm", "a name and a colon come first"),
        ("saw: bar", "kit is 'bar'"),
        ("saw: 4 wedges of oak", "kit is '4 wedges of oak'"),
        ("saw: anvil", "kit is 'anvil'"),
        ("saw: 99 wedges", "kit, wedges is 99"),
        ("saw: bar 9 m", "kit, bar is"),
    ],
)
def test_kit_that_cannot_be_read_is_refused_by_the_piece(text: str, told: str) -> None:
    with pytest.raises(InputError) as refused:
        kit_set_of(text, "metric")
    assert told in str(refused.value) and "accepted" in str(refused.value)


@pytest.mark.parametrize("text", ["", ", hard", "Ash, tall trees", "Ash, up to 90 m"])
def test_somebody_who_cannot_be_read_is_refused(text: str) -> None:
    with pytest.raises(InputError):
        worker_of(text, "metric")


def test_lines_are_changed_added_and_taken_away_and_nobody_is_there_twice() -> None:
    job = with_worker(with_worker(FEW, 0, "Ash, hard trees"), 1, "Pell")
    assert [each.name for each in job.block.crew] == ["Ash", "Pell"] and crew_words(job, job.speech) == ""
    with pytest.raises(InputError, match="there already"):
        with_worker(job, 0, "Pell, hard trees")
    alone = with_worker(job, 1, "")
    assert "nobody fells alone" in crew_words(alone, job.speech)
    kits = with_kit_set(with_kit_set(FEW, 0, "saw: bar 45 cm"), 1, "bag: rope 60 m")
    home = packed(kits, 0, comes=False)
    assert with_kit_set(home, 0, "saw: bar 40 cm").block.kits[0].packed == "no", "what it holds does not pack it"
    with pytest.raises(InputError, match="there already"):
        with_kit_set(kits, 1, "saw: bar 20 cm")
    assert (
        parse_job(job_text(kits), "a").job.block == kits.block and parse_job(job_text(job), "a").job.block == job.block
    )


def test_whose_a_tree_is_is_said_and_one_past_everybody_is_left_out_of_the_order() -> None:
    block, found = planned_block(FEW)
    assert whose_of(FEW, block, found, 0) is None and "not known" in whose_words(None, FEW.speech)
    small = with_worker(FEW, 0, "Ash, specialist work, up to 10 cm")
    with pytest.raises(InputError, match="no tree of this job"):
        planned_block(small)
    some = with_worker(FEW, 0, "Ash, specialist work, up to 35 cm")
    block, found = planned_block(some)
    out = dict(block.left_out)
    assert 0 < len(out) < 5 and all("past the limits of everyone" in FEW.speech.tell(each) for each in out.values())
    assert "for Ash" in whose_words(whose_of(some, block, found, 0), some.speech)
    unsaid = with_worker(FEW, 0, "Pell")
    block, found = planned_block(unsaid)
    assert len(block.trees) == 5, "who says nothing of themselves is not taken as untrained"
    assert "not known whose it is" in whose_words(whose_of(unsaid, block, found, 0), unsaid.speech)


def test_hours_are_typed_by_the_clock() -> None:
    job = breaking(starting(worked(FEW, "5"), "7.30"), "11:00 45 min")
    assert (job.block.starts_s, job.block.break_at_s, job.block.break_s) == (27000.0, 39600.0, 2700.0)
    assert breaking(job, "").block.break_s == 0.0 and breaking(job, "12").block.break_s == 1800.0
    for how, typed in (
        (starting, "noon"),
        (starting, "25"),
        (starting, "23:00"),
        (breaking, "12 soon"),
        (breaking, "x"),
    ):
        with pytest.raises(InputError) as refused:
            how(FEW, typed)
        assert "accepted" in str(refused.value)


def test_a_forecast_is_typed_by_hand_and_reads_back_as_shown() -> None:
    job = winded(FEW, "8-10 5 m/s gust 9 m/s SW; 10-12 8; 2027-01-12 9 to 11 18 km/h")
    assert job.block.forecast[:3] == (
        Hour("2027-01-11T08", 5.0, 9.0, 225.0),
        Hour("2027-01-11T09", 5.0, 9.0, 225.0),
        Hour("2027-01-11T10", 8.0),
    )
    assert job.block.forecast[-1] == Hour("2027-01-12T10", 5.0)
    shown = forecast_words(job.block.forecast, job.block.begins, job.speech)
    assert typed_forecast(shown, job.block.begins, "metric") == job.block.forecast
    assert winded(job, "").block.forecast == ()


@pytest.mark.parametrize("typed", ["windy", "8 5 m/s gust 3", "12-8 5", "8-25 5", "8-9 900 m/s", "8-9 5 furlongs"])
def test_wind_that_cannot_be_read_is_refused_and_the_old_one_stays(typed: str) -> None:
    with pytest.raises(InputError) as refused:
        winded(FEW, typed)
    assert "accepted" in str(refused.value)


def at(clock: str) -> datetime:
    return datetime.fromisoformat(f"2027-01-11T{clock}")


def test_what_was_done_is_kept_with_its_time_and_the_rest_of_the_day_goes_on_from_there() -> None:
    block, found = planned_block(FEW)
    first = block.trees[found.plan.order[0]].id
    job = marked(FEW, first, "down", at("08:40"), told_min=20.0)
    (done,) = job.block.progress
    assert (done.tree, done.took_min, done.told_min) == (first, 40.0, 20.0) and job.plan(first).state == "down"
    assert goes_on_from(job) == (0, 40.0) and "2.0 times as long as told" in progress_words(job, job.speech)[0]
    block, then = planned_block(job)
    assert then.slots[0].begins_min == 40.0 and first not in [tree.id for tree in block.trees]
    after = marked(job, block.trees[0].id, "down", at("12:40"), told_min=20.0)
    assert after.block.progress[-1].took_min == 210.0, "the break is not work"
    assert parse_job(job_text(after), "a").job.block.progress == after.block.progress
    third = marked(after, block.trees[1].id, "down", at("12:55"))
    assert third.block.progress[-1].took_min == 15.0, "since the one before it, not since the first"


def test_one_that_stands_again_takes_its_time_with_it() -> None:
    job = marked(marked(FEW, "K-01", "down", at("09:00")), "K-01", "standing", at("09:01"))
    assert job.block.progress == () and goes_on_from(job) == (0, 0.0) and job.plan("K-01").state == "standing"
    hung = marked(FEW, "K-01", "hung", at("09:00"), told_min=20.0)
    assert hung.block.progress[0].took_min is None, "one that hangs is not felled: its time tells nothing"
    assert goes_on_from(hung) == (0, 60.0)
    with pytest.raises(InputError):
        marked(FEW, "K-01", "sideways", at("09:00"))


def test_replanning_after_one_felled_tree_keeps_the_others_in_their_order() -> None:
    def order(job: Job) -> list[str]:
        block, found = planned_block(job)
        return [block.trees[slot.tree].id for slot in found.slots]

    before = order(FEW)
    assert order(marked(FEW, before[0], "down", at("08:30"))) == before[1:]


def test_what_lacks_puts_its_trees_off_by_day() -> None:
    job = with_kit_set(FEW, 0, "saw: bar 45 cm, maul, 2 signs")
    block, found = planned_block(job)
    trees, lacking = without_missing(job, block, found, 0)
    assert "wedges" in {each.key for each in lacking}
    assert set(trees) <= {block.trees[slot.tree].id for slot in found.slots}
    whole = with_kit_set(
        job, 0, "saw: bar 60 cm, 9 wedges 25 mm, maul, rope 90 m, pull 90 kN, sheave, 4 slings, 4 signs"
    )
    assert without_missing(whole, *planned_block(whole), 0) == ((), ())


def test_ones_own_store_keeps_sets_by_name_and_lines_it_cannot_read(tmp_path: Path) -> None:
    path = tmp_path / "deep" / "kit.txt"
    assert read_own_kits(path) == ((), ())
    assert keep_own_kits(path, [kit_set_of("saw (Ash): bar 45 cm", "metric")]) == 1
    path.write_text(path.read_text() + "something odd\n")
    assert (
        keep_own_kits(path, [kit_set_of("saw (Ash): bar 50 cm", "metric"), kit_set_of("bag: 3 slings", "metric")]) == 2
    )
    kits, odd = read_own_kits(path)
    assert [(each.whose, each.name, each.bar_m) for each in kits] == [("Ash", "saw", 0.5), ("", "bag", None)]
    assert odd == ("something odd",)
    job = packed(with_own_kits(FEW, kits), 0, comes=False)
    assert [each.packed for each in with_own_kits(job, kits).block.kits] == ["no", "yes"]
