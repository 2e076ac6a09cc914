"""A forecast of the wind: read from tables, gaps said, held against each tree's limit, days planned round it."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.base.errors import InputError
from plain_compass.core.block.days import Job as DayJob
from plain_compass.core.block.days import into_days
from plain_compass.core.block.forecast import Hour, Wind, hours_of, stretches, wind_in
from plain_compass.job.block import planned_block
from plain_compass.job.block_edits import wind_limited, with_forecast
from plain_compass.job.block_wind import by_wind, day_words, wind_words
from plain_compass.job.csv_rows import TableError
from plain_compass.job.demo import demo_coupe
from plain_compass.job.document import Job
from plain_compass.job.files import job_text, parse_job
from plain_compass.job.forecast_csv import import_forecast

FEW = replace(demo_coupe(), trees=demo_coupe().trees[:5])
FEW = replace(FEW, block=replace(FEW.block, begins="2027-01-11", trees=()))


def windy_job(*, calm: tuple[int, ...], limit: str = "6 m/s") -> Job:
    """Five trees, one with a limit; eight in the morning to two, 10 m/s but for the hours that are calm."""
    hours = [Hour(f"2027-01-11T{h:02d}", 2.0 if h in calm else 10.0) for h in range(8, 15)]
    return with_forecast(wind_limited(FEW, "K-01", limit), hours)


def test_a_table_is_read_in_its_own_units_and_order() -> None:
    hours, told = import_forecast(
        "time;wind km/h;gust km/h;from\n2027-01-11 09:00;36;54;270\n2027-01-11 08:00;18;;\n", "w"
    )
    assert not told
    assert hours == (Hour("2027-01-11T08", 5.0), Hour("2027-01-11T09", 10.0, 15.0, 270.0))


def test_a_gap_is_said_and_is_not_calm() -> None:
    hours, told = import_forecast("hour,speed\n2027-01-11 08:00,2\n2027-01-11 11:00,2\n", "w")
    assert told == ("No wind is forecast for 2027-01-11 09:00 to 2027-01-11 10:00: unknown, not calm.",)
    found = stretches(hours_of("2027-01-11", 8, 13), {hour.at: hour for hour in hours}, 6.0, 1.6)
    assert [wind for wind, _, _ in found] == [Wind.BELOW, Wind.UNKNOWN, Wind.BELOW, Wind.UNKNOWN]


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("soon,3,,", "is no hour; accepted: 2026-12-01 08:00"),
        ("2027-01-11 10:00,calm,,", "is no number"),
        ("2027-01-11 10:00,,,", "it has no speed"),
        ("2027-01-11 10:00,90,,", "accepted: 0 to 60 m/s"),
        ("2027-01-11 10:00,8,4,", "less than the mean"),
        ("2027-01-11 10:00,8,,400", "accepted: 0 to 360 degrees"),
        ("2027-01-11 09:00,8,,", "is there twice; the first is kept"),
    ],
)
def test_a_row_that_cannot_be_taken_is_said_and_the_others_are_kept(row: str, told: str) -> None:
    hours, said = import_forecast(f"hour,speed,gust,direction\n2027-01-11 09:00,2,,\n{row}\n", "w")
    assert hours == (Hour("2027-01-11T09", 2.0),) and len(said) == 1 and told in said[0] and said[0].startswith("Row 3")


@pytest.mark.parametrize(
    ("text", "told"),
    [("a,b\n1,2\n", "wanted are hour"), ("hour,speed [furlongs]\n", "accepted: m/s"), ("hour,speed\nx,1\n", "Row 2")],
)
def test_a_file_that_is_no_forecast_is_refused_in_a_sentence(text: str, told: str) -> None:
    with pytest.raises(TableError, match=told.replace("[", r"\[")):
        import_forecast(text, "wind.csv")


@given(st.floats(0, 40), st.floats(0, 40), st.floats(1.0, 3.0))
def test_more_wind_never_lets_a_tree_go_that_less_did_not(one: float, other: float, ratio: float) -> None:
    low, high = sorted((one, other))
    if wind_in(Hour("x", high), 10.0, ratio) == Wind.BELOW:
        assert wind_in(Hour("x", low), 10.0, ratio) == Wind.BELOW
    # A gust counts as the mean it is the gust of.
    assert wind_in(Hour("x", 0.0, high * ratio), 10.0, ratio) == wind_in(Hour("x", high * ratio / ratio), 10.0, ratio)
    assert wind_in(None, 10.0, ratio) == wind_in(Hour("x", low), None, ratio) == Wind.UNKNOWN


def test_a_tree_waits_for_the_wind_to_drop_and_the_others_go_on() -> None:
    jobs = [DayJob(50.0, 0.0, False) for _ in range(3)]
    slots, late = into_days([0, 1, 2], jobs, 360.0, windy=lambda *at: at[0] == 0 and at[2] < 130.0)
    assert [slot.tree for slot in slots] == [1, 2, 0] and not late and slots[2].begins_min == 180.0


def test_wind_all_day_puts_a_tree_off_to_the_next() -> None:
    slots, _ = into_days([0], [DayJob(50.0, 0.0, False)], 360.0, windy=lambda *at: at[1] == 0)
    assert [(slot.day, slot.begins_min) for slot in slots] == [(1, 0.0)]


def test_days_of_a_job_keep_to_its_forecast() -> None:
    block, found = planned_block(windy_job(calm=(11, 12)))
    slot = next(slot for slot in found.slots if block.trees[slot.tree].id == "K-01")
    assert slot.day == 0 and slot.begins_min >= 180.0 and slot.ends_min <= 300.0
    block, found = planned_block(windy_job(calm=()))
    slot = next(slot for slot in found.slots if block.trees[slot.tree].id == "K-01")
    assert slot.day == 1


def test_what_is_not_known_of_the_wind_is_said_and_never_taken_as_calm() -> None:
    job = windy_job(calm=(8,))
    groups = by_wind(job, ["K-01", "K-02"], 0)
    assert groups[Wind.BELOW] == ("K-01",) and groups[Wind.UNKNOWN] == ("K-02",)
    assert by_wind(windy_job(calm=()), ["K-01"], 0)[Wind.ABOVE] == ("K-01",)
    assert by_wind(job, ["K-01"], 3)[Wind.UNKNOWN] == ("K-01",)
    assert "below it from 08:00 to 09:00, above it from 09:00 to 15:00" in wind_words(job, "K-01", 0, job.speech)
    assert day_words(FEW, ["K-01"], 0, FEW.speech) == ["No forecast of the wind: not known on any day."]


def test_forecast_and_limits_are_kept_in_the_file() -> None:
    job = windy_job(calm=(8,), limit="10 km/h")
    again = parse_job(job_text(job), "job").job
    assert again.block == job.block and again.block.of("K-01").wind_m_s == pytest.approx(10 / 3.6)


@pytest.mark.parametrize("typed", ["calm", "-3", "90 m/s"])
def test_a_limit_that_is_none_is_told(typed: str) -> None:
    with pytest.raises(InputError):
        wind_limited(FEW, "K-01", typed)
