"""The log given away and taken in: nothing lost on the way, each stump once, and a sentence for what cannot be read."""

from __future__ import annotations

import json
from pathlib import Path

import jsonschema
import pytest

from plain_compass.core.base.errors import PlainCompassError
from plain_compass.job.csv_rows import csv_rows
from plain_compass.job.schema import entry_schema
from plain_compass.log.exchange import csv_text, entries_in, lines_text
from plain_compass.log.places import demo_entries
from plain_compass.log.store import StumpLog

ENTRIES = demo_entries()[:6]


@pytest.mark.parametrize(("name", "text"), [("s.jsonl", lines_text(ENTRIES)), ("s.csv", csv_text(ENTRIES))])
def test_what_is_given_away_comes_back_whole(tmp_path: Path, name: str, text: str) -> None:
    path = tmp_path / name
    path.write_text(text, encoding="utf-8")
    assert entries_in(path) == ENTRIES


def test_a_crews_logs_are_merged_each_stump_once(tmp_path: Path) -> None:
    (tmp_path / "a.jsonl").write_text(lines_text(ENTRIES[:4]), encoding="utf-8")
    (tmp_path / "b.csv").write_text(csv_text(ENTRIES[2:]), encoding="utf-8")
    log = StumpLog(None)
    assert [log.add(entries_in(tmp_path / name)) for name in ("a.jsonl", "b.csv", "a.jsonl")] == [4, 2, 0]


def test_every_line_is_as_the_schema_says() -> None:
    schema = entry_schema()
    for line in lines_text(ENTRIES).splitlines():
        jsonschema.validate(json.loads(line), schema)


def test_a_row_kept_by_hand_needs_no_whole_entry(tmp_path: Path) -> None:
    path = tmp_path / "hand.csv"
    path.write_text(
        "tree,species,diameter_m,height_m,planned_lay_deg,planned_hinge_left_m,as_cut.towards_deg,as_cut.top_deg,"
        "as_cut.faller,as_cut.wedges,as_cut.sat_back\n"
        '7,hornbeam,"0,42",17,200,0.04,198,195,Wren,2,no\n',
        encoding="utf-8",
    )
    (entry,) = entries_in(path)
    as_cut, plan = entry.plan.as_cut, entry.plan
    assert (as_cut.towards_deg, as_cut.top_deg, as_cut.wedges, as_cut.sat_back) == (198.0, 195.0, 2, "no")
    assert (plan.tree.trunk.diameter_m, plan.cut.lay_deg, plan.cut.hinge.left_m) == (0.42, 200.0, 0.04)
    assert "crown.base_m" in plan.tree.stand_ins and "height_m" not in plan.tree.stand_ins
    log = StumpLog(None)
    log.add([entry])
    assert log.listed()[0][5] == "Wren"


@pytest.mark.parametrize(
    ("name", "text", "told"),
    [
        ("s.jsonl", "", "holds no stumps"),
        ("s.jsonl", "{", "line 1 is broken"),
        ("s.jsonl", '{"format": "something"}', "should say plain-compass-stump"),
        ("s.jsonl", '{"format": "plain-compass-stump", "version": 99}', "version"),
        ("s.csv", "tree,species\n1,oak\n", "says nothing of diameter_m, height_m, planned_lay_deg"),
        ("s.csv", "tree,species,diameter_m,height_m,planned_lay_deg\n1,oak,wide,12,0\n", "row 2, diameter_m"),
        ("s.csv", "tree,species,diameter_m,height_m,planned_lay_deg\n1,no such,0.4,12,0\n", "no such"),
        (
            "s.csv",
            "tree,species,diameter_m,height_m,planned_lay_deg,as_cut.broke\n1,oak,0.4,12,0,sawn\n",
            "as_cut.broke is “sawn”; accepted",
        ),
        ("s.csv", "tree,species,diameter_m,height_m,planned_lay_deg,as_cut.top_deg\n1,oak,0.4,12,0,900\n", "top_deg"),
    ],
)
def test_what_cannot_be_read_is_told_by_file_and_line_and_nothing_is_taken(
    tmp_path: Path, name: str, text: str, told: str
) -> None:
    path = tmp_path / name
    path.write_text(text, encoding="utf-8")
    with pytest.raises(PlainCompassError) as refused:
        entries_in(path)
    assert told in str(refused.value) and name in str(refused.value)


def test_an_entry_out_of_range_names_its_line_and_field(tmp_path: Path) -> None:
    raw = json.loads(lines_text(ENTRIES[:1]))
    raw["plan"]["as_cut"]["top_deg"] = 400.0
    path = tmp_path / "s.jsonl"
    path.write_text(lines_text(ENTRIES[:1]) + json.dumps(raw) + "\n", encoding="utf-8")
    with pytest.raises(PlainCompassError, match=r"line 2.*plan\.as_cut\.top_deg is 400\.0; accepted: 0 to 360"):
        entries_in(path)


def test_words_that_a_spreadsheet_would_run_are_marked_as_text_and_come_back(tmp_path: Path) -> None:
    from dataclasses import replace

    plan = ENTRIES[0].plan
    entry = replace(ENTRIES[0], plan=replace(plan, as_cut=replace(plan.as_cut, words="=1+1")))
    text = csv_text([entry])
    head, row = csv_rows(text, "s.csv", 10)
    assert row[head.index("as_cut.words")] == "'=1+1"
    (tmp_path / "s.csv").write_text(text, encoding="utf-8")
    assert entries_in(tmp_path / "s.csv")[0].plan.as_cut.words == "=1+1"
