"""Spot heights from tables: units, separators, positions; what cannot be taken is named by its row."""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.cli import main
from plain_compass.core.base.errors import PlainCompassError
from plain_compass.job.csv_rows import TableError
from plain_compass.job.demo import demo_job
from plain_compass.job.files import read_job, write_job
from plain_compass.job.projection import Origin, ProjectionError
from plain_compass.job.site_edits import MOST_SPOTS
from plain_compass.job.spot_heights import import_spots

ORIGIN = Origin(-2.3, 54.0)


@pytest.mark.parametrize(
    "text",
    [
        "east [m],north [m],height [m]\n3,4,1.5\n",
        "height [m];north [m];east [m]\n1,5;4,0;3,0\n",
        "E\tN\tZ\n3\t4\t1.5\n",
        "East [ft],North [ft],Height [ft],note\n9.84252,13.12336,4.92126,by the gate\n",
    ],
)
def test_heights_are_read_in_any_usual_table(text: str) -> None:
    (spot,), skipped = import_spots(text, "spots.csv", None)
    assert (spot.east_m, spot.north_m, spot.height_m) == pytest.approx((3.0, 4.0, 1.5), abs=1e-3)
    assert skipped == ()


def test_positions_are_laid_about_the_origin_and_want_one() -> None:
    text = "lon,lat,height\n-2.3,54.001,2\n54.0,-2.3,2\n"
    (spot,), skipped = import_spots(text, "gps.csv", ORIGIN)
    assert (spot.east_m, spot.north_m) == (0.0, pytest.approx(111.305, abs=0.01))
    assert "look swapped" in skipped[0] and skipped[0].startswith("Row 3")
    with pytest.raises(TableError, match="states no origin"):
        import_spots(text, "gps.csv", None)


@pytest.mark.parametrize(
    ("row", "words"),
    [
        ("1,2,", "height is “”"),
        ("1,2", "height is “”"),
        ("1,far,3", "north is “far”"),
        ("1,2,nan", "height is “nan”"),
        ("1,2,99999", "height is 99999 m; accepted: -500 to 9000 m"),
        ("9e9,2,3", "east is 9e+09 m"),
        ("0,0,7", "another height is given for the same place"),
    ],
)
def test_a_row_that_cannot_be_taken_is_skipped_by_its_number(row: str, words: str) -> None:
    found, skipped = import_spots(f"east,north,height\n0,0,1\n{row}\n", "spots.csv", None)
    assert len(found) == 1
    assert skipped[0].startswith("Row 3: ") and words in skipped[0]


def test_more_rows_than_a_site_holds_are_cut_off_with_a_sentence() -> None:
    rows = "".join(f"{i % 300},{i // 300},1\n" for i in range(50_000))
    found, skipped = import_spots("east,north,height\n" + rows, "big.csv", None)
    assert len(found) == MOST_SPOTS
    assert "on: a site holds" in skipped[-1]


@pytest.mark.parametrize("text", ["", "a,b,c\n1,2,3", "east,north\n1,2", "east [miles],north,height\n1,2,3"])
def test_a_file_that_is_no_table_of_heights_is_refused(text: str) -> None:
    with pytest.raises(TableError, match=r"odd\.csv"):
        import_spots(text, "odd.csv", None)


@given(st.text())
def test_any_text_is_taken_or_refused_in_a_sentence(text: str) -> None:
    try:
        import_spots(text, "odd.csv", ORIGIN)
    except PlainCompassError as error:
        assert str(error).endswith(".")


@given(st.floats(-2500, 2500), st.floats(-1600, 1600), st.floats(-80, 80), st.floats(-179, 179))
def test_projecting_there_and_back_returns_to_the_place(east: float, north: float, lat: float, lon: float) -> None:
    origin = Origin(lon, lat)
    assert origin.metres(*origin.position(east, north)) == pytest.approx((east, north), abs=1e-4)


def test_a_place_across_the_sea_is_refused_with_its_distance() -> None:
    with pytest.raises(ProjectionError, match=r"lies \d+ km from the origin"):
        ORIGIN.metres(10.0, 50.0)


def test_the_command_takes_spot_heights_into_a_job(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    job, table = tmp_path / "job.pcjob.json", tmp_path / "spots.csv"
    write_job(job, demo_job())
    table.write_text("east,north,height\n1,2,3\nx,2,3\n")
    assert main(["site", "import", str(table), "-o", str(job)]) == 0
    captured = capsys.readouterr()
    assert "1 spot heights written" in captured.out
    assert "Row 3" in captured.err
    read = read_job(job).job
    assert len(read.site.spots) == 1
    assert read.site.obstacles == demo_job().site.obstacles
