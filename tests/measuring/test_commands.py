"""Measuring and tree lists from the command line."""

from __future__ import annotations

import json
import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import one_tree_job
from plain_compass.cli import main
from plain_compass.core.base.errors import PlainCompassError
from plain_compass.core.measuring.estimate import Reading
from plain_compass.job.csv_rows import TableError
from plain_compass.job.document import Job, assess_tree
from plain_compass.job.edits import add_tree, set_value
from plain_compass.job.files import read_job, write_job
from plain_compass.job.measuring import typed_reading
from plain_compass.job.spreads import spreads
from plain_compass.job.tree_list import export_csv, import_csv
from plain_compass.job.ways import EYE, METHODS, Wanted

PRACTICE = "fifth-and-tenth"
SPAN = Wanted("span", ("distance", "tape"))


def answered(capsys: pytest.CaptureFixture[str], *arguments: str) -> str:
    assert main(list(arguments)) == 0
    return capsys.readouterr().out.strip()


def test_a_height_is_one_line_with_its_spread_and_what_decides_it(capsys: pytest.CaptureFixture[str]) -> None:
    out = answered(capsys, "measure", "height", "--distance", "20 m ± 1 m", "--top", "40", "--base", "-4")
    assert out.startswith("height 18.18 m ± ")
    assert out.endswith("mostly from the distance")


def test_a_slope_may_be_typed_in_percent_and_units_are_the_persons_own(capsys: pytest.CaptureFixture[str]) -> None:
    out = answered(
        capsys, "measure", "height", "--distance", "66 ft", "--top", "80 %", "--base=-10 %", "--units", "imperial"
    )
    assert out.startswith("height 59 ft 5 in ± ")


def test_a_lean_is_angle_and_bearing(capsys: pytest.CaptureFixture[str]) -> None:
    out = answered(
        capsys, "measure", "lean", "--by", "plumb", "--offset", "10 cm", "--drop", "2 m", "--bearing", "SW", "--json"
    )
    found = json.loads(out)
    assert found["lean_deg"]["value"] == pytest.approx(math.degrees(math.atan(0.05)))
    assert found["bearing_deg"] == {"value": 225.0, "spread": 3.0, "shares": {}}


def test_a_girth_becomes_a_diameter(capsys: pytest.CaptureFixture[str]) -> None:
    assert answered(capsys, "measure", "girth", "--girth", "163.4").startswith("diameter 52 cm ± 0.5 cm")


@pytest.mark.parametrize(
    "arguments",
    [
        ["height", "--distance", "20"],
        ["height", "--distance", "far", "--top", "40", "--base", "-4"],
        ["height", "--distance", "20", "--top", "-40", "--base", "-4"],
        ["height", "--by", "guess"],
        ["lean", "--by", "plumb", "--offset", "10", "--drop", "0"],
        ["girth"],
        ["weight"],
    ],
)
def test_a_measurement_that_cannot_be_answered_is_one_sentence(
    arguments: list[str], capsys: pytest.CaptureFixture[str]
) -> None:
    try:
        status = main(["measure", *arguments])
    except SystemExit as stop:
        status = int(stop.code or 0)
    told = capsys.readouterr()
    assert (status, told.out) == (2, "")
    assert len(told.err.strip().splitlines()) == 1
    assert told.err.strip().endswith(".")


def test_every_way_of_measuring_has_its_spread_in_the_table() -> None:
    for methods in METHODS.values():
        for method in methods.values():
            for wanted in method.wants.values():
                if wanted.kind == EYE:
                    continue
                table, way = wanted.spread
                assert float(spreads()[table][way]) > 0


def test_a_spread_is_typed_or_comes_from_the_table() -> None:
    assert typed_reading("20 m ± 30 cm", SPAN, "metric") == Reading(20.0, pytest.approx(0.3))  # type: ignore[arg-type]
    assert typed_reading("20 +- 0.5", SPAN, "metric") == Reading(20.0, 0.5)
    assert typed_reading("20", SPAN, "metric") == Reading(20.0, pytest.approx(0.2))  # type: ignore[arg-type]
    assert typed_reading("12", Wanted("angle", ("angle_deg", "clinometer")), "metric") == Reading(12.0, 0.5)


def listed() -> Job:
    job, _ = add_tree(one_tree_job())
    return set_value(job, "2", "tree.species", "larch-european")


def test_a_tree_list_goes_out_and_comes_back() -> None:
    job = listed()
    back = import_csv(export_csv(job), "list.csv", PRACTICE)
    assert [plan.id for plan in back] == ["WH-07", "2"]
    for before, after in zip(job.trees, back, strict=True):
        assert after.tree.species == before.tree.species
        assert after.tree.height_m == pytest.approx(before.tree.height_m)
        assert after.tree.trunk.diameter_m == pytest.approx(before.tree.trunk.diameter_m)
        assert after.tree.crown == before.tree.crown or len(after.tree.crown.readings) == 4
        assert after.tree.lean.method == before.tree.lean.method
        assert after.cut.lay_deg == before.cut.lay_deg
        assert after.notes == before.notes


@pytest.mark.parametrize(
    "text",
    [
        "id;girth [cm];height [m]\nA;157,08;18,5\n",
        "Height (ft),ID,Diameter [in]\n60.6955,A,19.685\n",
        "\ufeffheight [m]\tid\tdiameter [mm]\tcolour\r\n18.5\tA\t500\tred\r\n\r\n",
        'id,diameter,height\n"A","50","18.5"\n',
    ],
)
def test_lists_are_read_whatever_their_order_separator_units_and_commas(text: str) -> None:
    (plan,) = import_csv(text, "list.csv", PRACTICE)
    assert plan.id == "A"
    assert plan.tree.trunk.diameter_m == pytest.approx(0.50, rel=1e-4)
    assert plan.tree.height_m == pytest.approx(18.5, rel=1e-4)
    assess_tree(Job(trees=(plan,)), "A")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "is empty"),
        ("id,diameter [cm]\n", "no trees"),
        ("id,height [m]\nA,18\n", "no column “diameter”"),
        ("id,diameter [furlong]\nA,18\n", "unit 'furlong'"),
        ("id,diameter [cm],girth [cm]\nA,50,157\n", "two columns"),
        ("id,diameter [cm]\nA,thick\n", "row 2, column diameter is “thick”"),
        ("id,diameter [cm]\nA,50\nB,-3\n", "row 3, column diameter"),
        ("id,diameter [cm]\nA,50\nA,40\n", "used twice"),
        ("id,diameter [cm]\n,50\n", "column id is empty"),
        ("id,diameter [cm]\nA,50,7\n", "3 cells for 2 headings"),
        ("id,species,diameter [cm]\nA,moonwood,50\n", "column species"),
        ("id,diameter [cm],lean method\nA,50,guess\n", "column lean method"),
        ("id,diameter [cm],height [m],crown base [m]\nA,50,8,12\n", "row 2"),
        ("id,diameter [cm],height [m],taped at [m]\nA,50,2,3\n", "row 2"),
    ],
)
def test_a_list_that_cannot_be_taken_names_row_and_column(text: str, words: str) -> None:
    with pytest.raises(TableError) as caught:
        import_csv(text, "list.csv", PRACTICE)
    assert words in str(caught.value)
    assert str(caught.value).startswith("list.csv")
    assert str(caught.value).endswith(".")


@given(text=st.text(max_size=120))
def test_any_text_is_a_list_or_refused_in_a_sentence(text: str) -> None:
    try:
        import_csv("id,diameter [cm],height [m]\n" + text, "list.csv", PRACTICE)
    except PlainCompassError as error:
        assert str(error).startswith("list.csv")


def test_trees_are_listed_imported_and_exported(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    job, table, made = (tmp_path / name for name in ("job.pcjob.json", "list.csv", "new.pcjob.json"))
    write_job(job, listed())
    assert "WH-07" in answered(capsys, "trees", str(job))
    assert [t["id"] for t in json.loads(answered(capsys, "trees", str(job), "--json"))["trees"]] == ["WH-07", "2"]
    answered(capsys, "trees", "export", str(job), "-o", str(table))
    answered(capsys, "trees", "import", str(table), "-o", str(made))
    assert [t.id for t in read_job(made).job.trees] == ["WH-07", "2"]
    before = made.read_bytes()
    assert main(["trees", "import", str(table), "-o", str(made)]) == 2
    assert "WH-07" in capsys.readouterr().err
    assert made.read_bytes() == before
    assert main(["trees", "import", str(table)]) == 2
