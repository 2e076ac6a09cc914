"""``plain-compass block`` as people type it: order, files, kit, what is left, the day sheet, and what is refused."""

from __future__ import annotations

import csv
import json
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest
from pypdf import PdfReader

from plain_compass.cli import main
from plain_compass.job.block import planned_block
from plain_compass.job.block_edits import wind_limited
from plain_compass.job.demo import demo_coupe
from plain_compass.job.edits import set_value
from plain_compass.job.files import job_text


@pytest.fixture
def few(tmp_path: Path) -> Path:
    """Seven trees of the coupe, one of which is put off."""
    job = replace(demo_coupe(), trees=demo_coupe().trees[:7])
    path = tmp_path / "few.pcjob.json"
    path.write_text(job_text(set_value(job, "K-03", "state", "off")))
    return path


def by_itself(*arguments: str) -> int:
    """Exit status in a process of its own."""
    command = [sys.executable, "-m", "plain_compass.cli", *arguments]
    return subprocess.run(command, check=False, capture_output=True).returncode


def test_the_plan_is_told_by_tree_and_day_and_again_the_same(few: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["block", "plan", str(few), "--begins", "2027-01-11", "--hours", "1"]) == 0
    told = capsys.readouterr().out
    assert "2027-01-11" in told and "2027-01-12" in told and "K-03: put off." in told
    assert main(["block", "plan", str(few), "--begins", "2027-01-11", "--hours", "1"]) == 0
    assert capsys.readouterr().out == told


def test_json_holds_every_tree_once_and_hours_are_kept_to(few: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["block", "plan", str(few), "--json", "--hours", "1"]) == 0
    plain = json.loads(capsys.readouterr().out)
    assert sorted(row["tree"] for row in plain["order"]) == ["K-01", "K-02", "K-04", "K-05", "K-06", "K-07"]
    assert plain["not_judged"] == {"K-03": "put off"}
    for day in {row["day"] for row in plain["order"]}:
        assert sum(row["minutes"] for row in plain["order"] if row["day"] == day) <= 60.0


def test_files_are_written_by_the_end_of_their_names(few: Path, tmp_path: Path) -> None:
    for name in ("a.csv", "a.geojson", "a.ics"):
        assert main(["block", "plan", str(few), "-o", str(tmp_path / name)]) == 0
    assert len(list(csv.DictReader((tmp_path / "a.csv").open()))) == 6
    assert len(json.loads((tmp_path / "a.geojson").read_text())["features"]) == 12
    assert (tmp_path / "a.ics").read_text().startswith("BEGIN:VCALENDAR")
    # By itself: it draws, and a test run has its own application already.
    assert by_itself("block", "sheet", str(few), "-o", str(tmp_path / "day.pdf")) == 0
    pages = PdfReader(tmp_path / "day.pdf").pages
    text = " ".join(" ".join(page.extract_text() for page in pages).split())
    assert "K-05" in text and "Meeting point" in text and "K-03: put off" in text


def test_cards_are_written_in_order_on_lays_that_are_planned(few: Path, tmp_path: Path) -> None:
    cards = tmp_path / "cards.pdf"
    assert by_itself("block", "cards", str(few), "-o", str(cards)) == 2 and not cards.exists()
    assert by_itself("block", "cards", str(few), "--take-lays", "-o", str(cards)) == 0
    heads = [" ".join(page.extract_text().split())[:4] for page in PdfReader(cards).pages]
    job = replace(demo_coupe(), trees=demo_coupe().trees[:7])
    block, found = planned_block(set_value(job, "K-03", "state", "off"))
    cut = [id for id in dict.fromkeys(heads) if id.startswith("K-")]
    assert cut == [block.trees[slot.tree].id for slot in found.slots]


def test_kit_and_what_is_left_are_told(few: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["block", "kit", str(few)]) == 0
    assert "a bar of" in capsys.readouterr().out
    assert main(["block", "left", str(few)]) == 0
    assert capsys.readouterr().out.startswith("6 trees to fell, ")


def test_the_wind_is_told_by_day_and_tree_and_gaps_are_unknown(
    few: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    job = set_value(demo_coupe(), "K-03", "state", "off")
    job = wind_limited(wind_limited(replace(job, trees=job.trees[:7]), "K-01", "20 m/s"), "K-02", "4")
    few.write_text(job_text(job))
    forecast = tmp_path / "wind.csv"
    forecast.write_text("hour,speed [km/h]\n" + "".join(f"2027-01-11 {h:02d}:00,36\n" for h in (8, 9, 12, 13)))
    assert main(["block", "wind", str(few), "--begins", "2027-01-11", "--forecast", str(forecast)]) == 0
    said = capsys.readouterr()
    assert "No wind is forecast for 2027-01-11 10:00 to 2027-01-11 11:00: unknown, not calm." in said.err
    assert "some hour of Mon 11 Jan will do: K-01." in said.out
    assert "K-02 goes up to 4 m/s; above it from 08:00 to 10:00, not forecast from 10:00 to 12:00" in said.out
    assert "no limit is said for K-05; unknown" in said.out


@pytest.mark.parametrize(
    ("more", "told"),
    [
        (["plan", "--hours", "30"], "accepted: 0.5 to 14 hours"),
        (["plan", "--begins", "monday"], "2026-09-01"),
        (["plan", "-o", "order.docx"], ".csv"),
        (["sheet"], "-o"),
    ],
)
def test_what_cannot_be_done_is_one_sentence(
    few: Path, more: list[str], told: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["block", more[0], str(few), *more[1:]]) == 2
    said = capsys.readouterr()
    assert told in said.err and not said.out and len(said.err.strip().splitlines()) == 1
