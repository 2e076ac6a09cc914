"""The fall in words and in files: chances as people say them, the fan as an open format, the gun mark on the tape."""

from __future__ import annotations

import csv
import io
import json
import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import case, told
from plain_compass.core.assess import assess
from plain_compass.core.base.paths import with_value
from plain_compass.core.cuts.sequence import order_of_cuts
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.fall import FIRST_SAMPLES, Draw, fall_in_steps, fan_for, fan_outline, samples_csv
from plain_compass.job.fan_geojson import fan_geojson
from plain_compass.job.units import chance_words, shown


@pytest.mark.parametrize(
    ("share", "words"),
    [
        (0.0004, "fewer than 1 time in 1,000"),
        (1 / 12, "about 1 time in 12"),
        (0.013, "about 1 time in 75"),
        (0.0021, "about 1 time in 500"),
        (0.5, "about 1 time in 2"),
        (0.72, "about 7 times in 10"),
        (0.97, "nearly always"),
    ],
)
def test_a_chance_is_said_as_people_say_it(share: float, words: str) -> None:
    assert chance_words(share) == words


@given(st.floats(0.001, 0.5))
def test_the_words_of_a_chance_are_near_the_number(share: float) -> None:
    times = int(chance_words(share).rsplit(" ", 1)[1].replace(",", ""))
    assert 0.7 < times * share < 1.45


def test_a_side_is_named_and_not_given_a_sign() -> None:
    assert shown(-3.25, "aside", "metric") in ("3.2° right", "3.3° right")
    assert shown(2.0, "aside", "metric") == "2° left"


def test_the_fan_in_a_file_is_the_fan_on_the_site() -> None:
    job = demo_job()
    plan = job.plan("WH-12")
    result = assess_tree(job, "WH-12")
    fan = fan_for(plan, result, Draw(256))
    (stump, *arc) = fan_outline(fan, plan.cut.lay_deg)
    assert stump == (0.0, 0.0)
    assert all(math.hypot(*point) == pytest.approx(fan.reach_m[2]) for point in arc)
    whole = json.loads(fan_geojson(job, plan, result, fan))
    ring = whole["features"][0]["geometry"]["coordinates"][0]
    assert ring[0] == [plan.at.east_m, plan.at.north_m]
    placed = replace(job, site=replace(job.site, origin_east_deg=-2.3, origin_north_deg=54.0))
    about = json.loads(fan_geojson(placed, plan, result, fan, positions=True))
    east, north = about["features"][0]["geometry"]["coordinates"][0][0]
    assert (east, north) == (pytest.approx(-2.3, abs=0.01), pytest.approx(54.0, abs=0.01))


def test_every_sample_is_a_row_whose_numbers_can_be_read_back() -> None:
    job = demo_job()
    plan = job.plan("WH-21")
    fan = fan_for(plan, assess_tree(job, "WH-21"), Draw(64))
    rows = list(csv.DictReader(io.StringIO(samples_csv(plan, assess_tree(job, "WH-21"), fan))))
    assert len(rows) == 64
    hung = [row["hangs_on"] for row in rows]
    assert hung.count("leaning ash") > 0.9 * len(rows) and set(hung) <= {"leaning ash", ""}
    offs = sorted(float(row["bearing_error_deg"]) for row in rows)
    assert offs[32] == pytest.approx(fan.off_deg[1], abs=0.3)


def test_a_first_look_comes_long_before_the_whole() -> None:
    job = demo_job()
    plan = job.plan("WH-07")
    told = [step for step in fall_in_steps(plan, assess_tree(job, "WH-07")) if step is not None]
    assert [len(fan.samples) for _, fan in told] == [FIRST_SAMPLES, 2048]
    assert told[0][1].off_deg == pytest.approx(told[1][1].off_deg, abs=0.4)


def test_aimed_off_the_tape_counts_from_the_gun_mark_and_says_where_the_lay_is() -> None:
    plain = assess(case())
    assert plain.tape_marks[0].key == "lay"
    for off in (10.0, -10.0):
        aimed = assess(with_value(case(), "cut.aim_off_deg", off))
        gun, lay = aimed.tape_marks[:2]
        assert (gun.key, gun.left_m, lay.key) == ("gun", 0.0, "lay_aside")
        arc = lay.right_m if off > 0 else lay.left_m
        assert arc == pytest.approx(0.2 * math.radians(10.0), rel=0.01)
        assert (lay.left_m is None) == (off > 0)
        sighting = next(phrase for phrase in order_of_cuts(aimed) if "sight" in told(phrase))
        assert ("off", off) in sighting.values
