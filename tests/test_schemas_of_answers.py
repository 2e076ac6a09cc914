"""Answers in JSON keep to their schemas, on trees the schemas were not made from, and a key that goes is noticed."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from jsonschema import Draft202012Validator

from plain_compass.cli import main
from plain_compass.commands.schemas import answers
from plain_compass.job.files import write_job
from plain_compass.job.practice_case import job_of, make_case

COMMANDS = {
    "assess": ["assess", "JOB"],
    "rose": ["rose", "coupe", "--tree", "K-20"],
    "fall": ["fall", "JOB", "--samples", "64"],
    "stages": ["stages", "JOB"],
    "suggest": ["suggest", "coupe", "--tree", "K-20"],
    "mend": ["mend", "JOB"],
    "why": ["why", "demo", "--tree", "WH-15", "--set", "as_cut.top_deg=70"],
    "block": ["block", "plan", "coupe", "--seed", "3"],
    "trees": ["trees", "JOB"],
    "measure": ["measure", "height", "--by", "stick", "--distance", "20 m", "--stick", "60 cm", "--reach", "65 cm"],
    "cuts": ["cuts"],
    "practices": ["practices"],
    "species": ["species"],
    "log-list": ["log", "list", "--log", "demo", "--faller", "Tarn"],
    "log-stats": ["log", "stats", "--log", "demo", "--faller", "Tarn"],
    "learn": ["learn", "--log", "demo", "--faller", "Tarn"],
    "self-check": ["self-check"],
}
"""Answer -> what is asked, otherwise than when its schema was made."""


@pytest.fixture(scope="module")
def job(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A made-up tree nobody has seen."""
    path = tmp_path_factory.mktemp("schemas") / "case.pcjob.json"
    write_job(path, job_of(make_case("cut", 2, 77)))
    return path


def answered(asked: list[str], job: Path, capsys: pytest.CaptureFixture[str]) -> Any:
    assert main([str(job) if each == "JOB" else each for each in asked] + ["--json"]) == 0
    return json.loads(capsys.readouterr().out)


def schema(name: str, capsys: pytest.CaptureFixture[str]) -> dict[str, Any]:
    assert main(["schema", "--answer", name]) == 0
    found: dict[str, Any] = json.loads(capsys.readouterr().out)
    return found


def unknown_keys(value: Any, told: dict[str, Any], at: str = "") -> Iterator[str]:
    """Keys of an answer that its schema says nothing of."""
    if isinstance(value, dict) and "properties" in told:
        for key, each in value.items():
            if key in told["properties"]:
                yield from unknown_keys(each, told["properties"][key], f"{at}.{key}")
            elif "additionalProperties" not in told:
                yield f"{at}.{key}"
    elif isinstance(value, list):
        for each in value:
            yield from unknown_keys(each, told.get("items", {}), f"{at}[]")


@pytest.mark.parametrize("name", sorted(COMMANDS))
def test_an_answer_keeps_to_its_schema(name: str, job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    told, answer = schema(name, capsys), answered(COMMANDS[name], job, capsys)
    Draft202012Validator.check_schema(told)
    Draft202012Validator(told).validate(answer)
    assert set(unknown_keys(answer, told)) == set(), "run make schemas"


def test_a_key_that_goes_or_changes_its_sort_is_noticed(job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    told, answer = schema("assess", capsys), answered(COMMANDS["assess"], job, capsys)
    held = Draft202012Validator(told)
    for change in ({"verdict": None}, {"balance": answer["balance"] | {"mass_kg": "heavy"}}):
        assert list(held.iter_errors(answer | change))
    del answer["balance"]["mass_kg"]
    assert [error.message for error in held.iter_errors(answer)] == ["'mass_kg' is a required property"]
    assert set(unknown_keys({"never": 1}, told)) == {".never"}


def test_every_answer_has_a_schema() -> None:
    assert set(answers()) == {*COMMANDS, "practice-score"}
