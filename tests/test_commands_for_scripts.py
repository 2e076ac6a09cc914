"""Commands for scripts and machines: self-check, convert, watch; what they refuse, and that a check can fail."""

from __future__ import annotations

import json
import math
import threading
import time
from dataclasses import replace
from pathlib import Path

import pytest

from plain_compass import __version__
from plain_compass.cli import main
from plain_compass.job import self_check, stamp
from plain_compass.job.demo import demo_job
from plain_compass.job.edits import set_value
from plain_compass.job.files import job_text, read_job, write_job
from plain_compass.job.geojson import site_geojson
from plain_compass.job.tables import indicative


def test_every_check_is_good_here_and_says_what_it_is(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["self-check"]) == 0
    told = capsys.readouterr().out
    assert "OFF" not in told and "area of a round stem" in told and "[" not in told and "constants " in told
    assert main(["self-check", "--json"]) == 0
    assert all(each["good"] for each in json.loads(capsys.readouterr().out)["checks"])


def test_a_check_that_is_off_by_one_in_a_hundred_or_is_no_number_is_bad() -> None:
    for each in self_check.checks():
        assert each.is_good and not replace(each, found=each.found * 1.03 + 0.03).is_good
        assert not replace(each, found=math.nan).is_good


def test_a_number_that_moved_since_the_release_is_told(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    kept = json.loads(self_check.GOLDEN.read_text())
    kept["WH-07 mass"] *= 1.001
    (tmp_path / "golden.json").write_text(json.dumps(kept))
    monkeypatch.setattr(self_check, "GOLDEN", tmp_path / "golden.json")
    assert main(["self-check"]) == 1
    assert "OFF   as released: WH-07 mass" in capsys.readouterr().out


def test_a_job_goes_to_a_list_and_back_and_to_the_newest_version(tmp_path: Path) -> None:
    assert main(["convert", "demo", str(tmp_path / "trees.csv")]) == 0
    assert main(["convert", str(tmp_path / "trees.csv"), str(tmp_path / "job.json")]) == 0
    back = read_job(tmp_path / "job.json").job
    assert [plan.id for plan in back.trees] == [plan.id for plan in demo_job().trees]
    assert back.trees[0].tree.height_m == demo_job().trees[0].tree.height_m
    assert main(["convert", "demo", str(tmp_path / "site.geojson")]) == 0
    assert main(["convert", str(tmp_path / "site.geojson"), str(tmp_path / "site.json")]) == 0
    assert len(read_job(tmp_path / "site.json").job.site.obstacles) >= len(demo_job().site.obstacles)
    old = json.loads(job_text(demo_job()))
    old["version"] = 2
    (tmp_path / "old.json").write_text(json.dumps(old))
    assert main(["convert", str(tmp_path / "old.json"), str(tmp_path / "new.json")]) == 0
    assert json.loads((tmp_path / "new.json").read_text())["version"] == 3


def test_what_is_there_is_not_written_over_unasked(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    target = tmp_path / "mine.csv"
    target.write_text("mine")
    assert main(["convert", "demo", str(target)]) == 2 and target.read_text() == "mine"
    assert "is there already" in capsys.readouterr().err
    assert main(["convert", "demo", str(target), "--over"]) == 0 and target.read_text() != "mine"
    assert main(["convert", "demo", str(tmp_path / "a.docx")]) == 2
    assert "accepted are names that end in .json, .csv, .geojson" in capsys.readouterr().err


def test_a_file_that_changes_is_reckoned_again(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "job.pcjob.json"
    write_job(path, demo_job())

    def changes() -> None:
        time.sleep(1.5)
        write_job(path, set_value(demo_job(), "WH-07", "tree.height_m", 12.0))

    writer = threading.Thread(target=changes)
    writer.start()
    assert main(["watch", str(path), "--tree", "WH-07", "--times", "2"]) == 0
    writer.join()
    first, second = capsys.readouterr().out.split("--- ")[1:]
    assert first.split("\n", 1)[1] != second.split("\n", 1)[1] and "WH-07" in first


def test_watching_what_cannot_change_is_refused(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["watch", "demo"]) == 2 and "wants a file that can change" in capsys.readouterr().err


JSON_COMMANDS = (
    "assess demo",
    "mend demo",
    "fall demo",
    "rose demo",
    "why demo --tree WH-07",
    "trees demo",
    "cuts",
    "stages demo",
    "suggest demo",
    "practices",
    "species",
    "measure girth --girth 163cm",
    "block plan demo",
)
"""As many as say what they were reckoned by."""


@pytest.mark.parametrize("command", JSON_COMMANDS)
def test_every_answer_in_json_says_by_what_it_was_reckoned(command: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main([*command.split(), "--json"]) == 0
    by = json.loads(capsys.readouterr().out)["plain_compass"]
    assert by["output"] == stamp.OUTPUT and by["version"] == __version__ and len(by["constants"]) == 12
    assert ("practice" in by) == ("demo" in command)


def test_another_constant_is_another_fingerprint_and_the_same_is_the_same() -> None:
    own = indicative()
    assert stamp.stamp()["constants"] == stamp.fingerprint(stamp.constants_text(own))
    other = replace(own, peak_share=own.peak_share * 1.001)
    assert stamp.fingerprint(stamp.constants_text(other)) != stamp.stamp()["constants"]


def test_what_is_exported_says_by_what_it_was_reckoned() -> None:
    told = json.loads(site_geojson(demo_job()))["plain_compass"]
    assert told.items() >= stamp.stamp(demo_job().practice).items()
    assert "constants" in stamp.stamp_words("fifth-and-tenth") and "ifth" in stamp.stamp_words("fifth-and-tenth")


def test_a_language_is_begun_checked_and_chosen(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    file = tmp_path / "de.json"
    assert main(["language", "template", "de", "-o", str(file)]) == 0
    content = json.loads(file.read_text(encoding="utf-8"))
    assert set(content["texts"].values()) == {""} and "glossary.terms.hinge.hinge" in content["sentences"]
    content["texts"]["left"], content["texts"]["said by nobody"] = "links", "x"
    own = tmp_path / "plain-compass" / "languages"
    own.mkdir(parents=True)
    (own / "de.json").write_text(json.dumps(content), encoding="utf-8")
    capsys.readouterr()
    assert main(["language", "check", "de"]) == 1
    told = capsys.readouterr().out
    assert "missing, said in English:" in told and "not said by this program: 1\n  texts: said by nobody" in told
    assert main(["language", "template", "de", "-o", str(file)]) == 0
    assert json.loads(file.read_text(encoding="utf-8"))["texts"]["left"] == "links"
    assert main(["language", "use", "de"]) == 0
    assert (tmp_path / "plain-compass" / "language").read_text(encoding="utf-8") == "de\n"
    assert main(["language"]) == 0
    assert "* en       English\n  de       de\n" in capsys.readouterr().out.replace("\r", "")


@pytest.mark.parametrize(
    ("given", "told"),
    [
        (["use", "zz"], "There is no language “zz” here; accepted: en."),
        (["check"], "There is no language “” here; accepted: en."),
        (["template", "de"], "language template wants a code and -o with the file to write."),
    ],
)
def test_what_is_no_language_is_refused_in_a_sentence(
    given: list[str], told: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    assert main(["language", *given]) == 2
    assert capsys.readouterr().err == told + "\n"
