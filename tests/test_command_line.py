"""The command line: 0 answered, 2 bad input in one sentence, never a traceback."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

import jsonschema
import pytest
from pypdf import PdfReader

from builders import one_tree_job
from plain_compass.cli import main
from plain_compass.job.demo import demo_job
from plain_compass.job.document import VERSION
from plain_compass.job.edits import add_tree
from plain_compass.job.files import job_text, write_job


@pytest.fixture
def job(tmp_path: Path) -> Path:
    path = tmp_path / "withy.pcjob.json"
    write_job(path, one_tree_job())
    return path


def run(*arguments: str) -> subprocess.CompletedProcess[str]:
    environment = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "QT_QPA_PLATFORM")}
    return subprocess.run(
        [sys.executable, "-m", "plain_compass.cli", *arguments],
        capture_output=True,
        text=True,
        env=environment,
        check=False,
    )


def test_assess_prints_a_table_worst_first(job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["assess", str(job)]) == 0
    out = capsys.readouterr().out
    assert out.startswith("WH-07: Holds with little to spare")
    lines = [line.split()[0] for line in out.splitlines()[3:-2]]
    assert lines.index("watch") < lines.index("clear")
    assert "competent person" in out


def test_assess_prints_one_json_object_grouped_by_the_models_names(
    job: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["assess", str(job), "--tree", "WH-07", "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    wanted = {
        "balance": {"mass_kg", "com_up_m", "com_forward_m", "com_left_m", "inertia_kg_m2", "moment_forward_Nm"},
        "section": {"area_m2", "shell_ratio", "sound_fraction"},
        "face": {"closing_angle_deg", "opening_deg", "hinge_length_m"},
        "hinge": {"side_capacity_Nm", "break_angle_deg", "lets_go_deg", "needed_tilt_deg", "side_utilisation"},
        "splitting": {"split_index", "split_index_plain", "split_index_bored", "strap_utilisation"},
        "wedges": {"lift_m", "force_N", "blows", "advance_per_blow_m", "pause_s", "first_fits", "seats"},
    }  # fmt: skip
    for group, names in wanted.items():
        assert names <= set(found[group]), group
    assert found["tape_marks"][0]["key"] == "lay"
    assert {"id", "level", "value", "limit", "margin", "sentence", "change", "source"} <= set(found["findings"][0])
    assert found["verdict"]["level"] == "watch"


def test_what_is_infinite_is_null_in_json(job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    content = json.loads(job.read_text())
    content["trees"][0]["cut"]["wedges"] = []
    job.write_text(json.dumps(content))
    assert main(["assess", str(job), "--json"]) == 0
    found = json.loads(capsys.readouterr().out, parse_constant=pytest.fail)
    assert found["wedges"]["blows"] is None


def test_the_word_demo_stands_for_the_demo_job(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["assess", "demo"]) == 0
    assert "WH-07" in capsys.readouterr().out


def test_several_trees_want_one_to_be_named(job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    write_job(job, add_tree(one_tree_job())[0])
    assert main(["assess", str(job)]) == 2
    assert "say which with --tree: WH-07, 2" in capsys.readouterr().err
    assert main(["assess", str(job), "--tree", "2"]) == 0
    assert main(["assess", str(job), "--tree", "9"]) == 2


def test_schema_prints_the_schema_that_job_files_meet(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["schema"]) == 0
    schema = json.loads(capsys.readouterr().out)
    jsonschema.validate(json.loads(job_text(one_tree_job())), schema)


def test_card_needs_no_screen(job: Path, tmp_path: Path) -> None:
    out = tmp_path / "card.pdf"
    told = run("card", str(job), "--tree", "WH-07", "-o", str(out), "--paper", "Letter")
    assert (told.returncode, told.stderr) == (0, "")
    assert "lay 214" in " ".join(PdfReader(out).pages[0].extract_text().split())


def test_why_shares_the_miss_out() -> None:
    told = run("why", "demo", "--tree", "WH-12", "--set", "as_cut.towards_deg=49", "--set", "as_cut.top_deg=46")
    assert told.returncode == 0 and told.stdout.startswith("The top lies 6° left of the lay: ")
    plain = json.loads(run("why", "demo", "--tree", "WH-12", "--json", "--set", "as_cut.top_deg=46").stdout)
    assert plain["miss_deg"] == pytest.approx(6.0) and plain["shares_deg"] == {}
    refused = run("why", "demo", "--tree", "WH-12", "--set", "as_cut.hinge_left_m=90cm")
    assert refused.returncode == 2 and "as_cut.hinge_left_m" in refused.stderr


def test_the_log_is_filled_listed_given_away_taken_in_and_learned_from(tmp_path: Path) -> None:
    own, away = str(tmp_path / "own.sqlite"), str(tmp_path / "away.jsonl")
    added = run("log", "add", "demo", "--log", own)
    assert (added.returncode, added.stdout) == (0, "3 taken in; the log has 3.\n")
    assert run("log", "add", "demo", "--log", own).stdout == "0 taken in; the log has 3.\n", "each once"
    assert run("log", "export", away, "--log", "demo", "--faller", "Wren").stdout.startswith("20 written")
    assert run("log", "import", away, "--log", own).stdout == "20 of 20 were new; the log has 23.\n"
    listed = json.loads(run("log", "list", "--log", own, "--json", "--faller", "Wren").stdout)
    assert len(listed["entries"]) == 22
    shown = run("log", "show", "withy-holm-05", "--log", own)
    assert "faller: Wren" in shown.stdout and shown.stdout.startswith("C-05, grand fir")
    assert run("log", "check", "--log", own).stdout == "The log is whole: 23 entries.\n"
    stats = json.loads(run("log", "stats", "--log", own, "--json").stdout)
    assert stats["count"] == 23 and stats["by"]["faller"] == {"Tarn": 1, "Wren": 22}
    known = json.loads(run("learn", "--log", own, "--faller", "Wren", "--json").stdout)
    aim = next(each for each in known["quantities"] if each["quantity"] == "aim")
    assert aim["count"] == 22 and 1.0 < aim["mean"] < 2.6 and aim["interval_90"][0] < aim["mean"]
    refused = run("log", "show", "nothing", "--log", own)
    assert refused.returncode == 2 and "no entry" in refused.stderr
    assert run("log", "import", str(tmp_path / "none.csv"), "--log", own).returncode == 2


def test_a_line_of_an_exported_log_has_a_schema_of_its_own() -> None:
    schema = json.loads(run("schema", "--stumps").stdout)
    assert schema["title"] == "Plain Compass stump" and "plan" in schema["properties"]


def last_page(path: Path) -> str:
    return " ".join(PdfReader(path).pages[-1].extract_text().split())


def test_small_paper_and_a_blank_survey_sheet_need_no_screen_either(job: Path, tmp_path: Path) -> None:
    card, sheet = tmp_path / "card.pdf", tmp_path / "sheet.pdf"
    assert run("card", str(job), "--tree", "WH-07", "-o", str(card), "--paper", "Telephone").returncode == 0
    assert "after the fall" not in last_page(card)
    run("card", str(job), "--tree", "WH-07", "-o", str(card), "--no-stump-page")
    assert "after the fall" not in last_page(card)
    run("card", str(job), "--tree", "WH-07", "-o", str(card))
    assert "after the fall" in last_page(card)
    told = run("survey-sheet", "-n", "3", "-o", str(sheet))
    assert told.stdout.startswith("Survey sheet for 3 trees written to")
    refused = run("survey-sheet", "-n", "0", "-o", str(sheet))
    assert (refused.returncode, refused.stderr.strip()) == (2, "--trees 0: accepted is 1 to 200.")


def test_the_cards_of_all_trees_are_written_in_the_order_of_the_job(tmp_path: Path) -> None:
    out = tmp_path / "cards.pdf"
    told = run("card", "demo", "--all", "-o", str(out))
    trees = [plan.id for plan in demo_job().trees]
    assert (told.returncode, told.stderr) == (0, "")
    assert told.stdout.startswith(f"{len(trees)} cards written to")
    heads = [page.extract_text().split()[0] for page in PdfReader(out).pages]
    assert list(dict.fromkeys(heads)) == trees


@pytest.mark.parametrize(
    "arguments",
    [
        ["assess", "gone.pcjob.json"],
        ["assess", "{folder}"],
        ["assess", "{empty}"],
        ["assess", "{cut_short}"],
        ["assess", "{newer}"],
        ["assess", "{job}", "--tree", "X"],
        ["card", "{job}", "-o", "/proc/none/card.pdf"],
        ["card", "{job}", "-o", "{folder}"],
        ["card", "{job}"],
        ["card", "{job}", "--all", "--tree", "WH-07", "-o", "{folder}/cards.pdf"],
        ["card", "{job}", "--all", "-o", "{folder}"],
        ["open", "{cut_short}"],
        ["fell"],
        ["assess"],
    ],
)
def test_bad_input_is_one_sentence_on_standard_error_and_status_2(
    arguments: list[str], job: Path, tmp_path: Path
) -> None:
    text = job.read_text()
    made = {"folder": tmp_path, "job": job}
    for name, content in (
        ("empty", ""),
        ("cut_short", text[:300]),
        ("newer", text.replace(f'"version": {VERSION}', '"version": 99')),
    ):
        made[name] = tmp_path / f"{name}.pcjob.json"
        made[name].write_text(content)
    told = run(*[a.format(**made) for a in arguments])
    assert told.returncode == 2
    assert told.stdout == ""
    assert "Traceback" not in told.stderr
    assert len(told.stderr.strip().splitlines()) == 1
    assert told.stderr.strip().endswith(".")


def test_a_reader_that_stops_reading_is_no_error(job: Path) -> None:
    """Buffered as on an ordinary machine: what is left in the buffer meets the closed pipe only when it is flushed."""
    command = f"'{sys.executable}' -m plain_compass.cli assess '{job}' --json | head -n 1; exit ${{PIPESTATUS[0]}}"
    buffered = {key: value for key, value in os.environ.items() if key != "PYTHONUNBUFFERED"}
    told = subprocess.run(["bash", "-c", command], capture_output=True, text=True, check=False, env=buffered)
    assert (told.stderr, told.returncode) == ("", 0)


def test_a_window_without_a_display_is_a_sentence() -> None:
    told = run("demo")
    assert told.returncode == 2
    assert "no display" in told.stderr


def test_help_and_version_are_answers() -> None:
    assert run("--help").returncode == 0
    assert run("--version").stdout.startswith("plain-compass ")


# fall ------------------------------------------------------------------------------------------------------


def test_fall_tells_the_nominal_fall_and_the_spread(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    sheet, plan = tmp_path / "falls.csv", tmp_path / "fan.geojson"
    arguments = ["fall", "demo", "--tree", "WH-12", "--samples", "300", "--seed", "2", "--json"]
    assert main([*arguments, "--csv", str(sheet), "--geojson", str(plan)]) == 0
    told = json.loads(capsys.readouterr().out)
    wanted = {"time_s", "tip_speed_m_s", "bearing_error_deg", "hinge_broke_by", "hinge_broke_at_deg", "first_contact"}
    assert wanted | {"top_at", "butt_at"} <= set(told["fall"])
    assert told["spread"]["samples"] == 300
    assert set(told["spread"]["bearing_error_deg"]) == {"p5", "p50", "p95"}
    assert {"sits_back", "splits", "hinge_lost_early", "hangs", "hits"} <= set(told["spread"]["chances"])
    assert told["spread"]["drivers"][0]["input"] == "cut.aim"
    assert len(sheet.read_text().splitlines()) == 301
    assert json.loads(plan.read_text())["plain_compass"]["coordinates"] == "local metres"
    assert main(arguments) == 0
    assert json.loads(capsys.readouterr().out) == told


def test_fall_reads_as_sentences_without_json(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["fall", "demo", "--tree", "WH-21", "--samples", "200"]) == 0
    told = capsys.readouterr().out
    assert "hangs: nearly always" in told and "driven by aiming the face" in told and "indicative" in told


@pytest.mark.parametrize("wrong", [["--samples", "0"], ["--seed", "-3"], ["--samples", "many"]])
def test_fall_refuses_what_it_cannot_draw(wrong: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    try:
        status = main(["fall", "demo", *wrong])
    except SystemExit as stop:
        status = int(stop.code or 0)
    assert status == 2
    assert wrong[0].removeprefix("--") in capsys.readouterr().err


def test_a_fan_in_longitude_and_latitude_wants_an_origin(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    plan = tmp_path / "fan.geojson"
    assert main(["fall", "demo", "--samples", "64", "--geojson", str(plan), "--positions"]) == 2
    assert "states no origin" in capsys.readouterr().err and not plan.exists()


def test_assess_tells_of_the_fall_too(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["assess", "demo", "--tree", "WH-24", "--json"]) == 0
    ids = {f["id"] for f in json.loads(capsys.readouterr().out)["findings"]}
    assert {"fall.drift", "fall.targets"} <= ids


# What if -----------------------------------------------------------------------------------------------------


def test_any_number_may_be_taken_otherwise_for_one_answer(job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    def asked(*settings: str) -> dict[str, dict[str, float]]:
        assert main(["assess", str(job), "--json", *(part for each in settings for part in ("--set", each))]) == 0
        found: dict[str, dict[str, float]] = json.loads(capsys.readouterr().out)
        return found

    before = job.read_bytes()
    plain, thin = asked(), asked("cut.hinge.left_m=2.5cm", "cut.hinge.right_m=2.5 cm")
    assert thin["balance"]["theta_go_deg"] < plain["balance"]["theta_go_deg"]
    assert asked("tree.lean_deg=9")["balance"]["ahead_m"] != plain["balance"]["ahead_m"]
    assert asked("cut.back.form=bored")["splitting"] != plain["splitting"]
    assert job.read_bytes() == before


def test_a_bare_number_is_in_the_unit_its_field_is_named_by(job: Path, capsys: pytest.CaptureFixture[str]) -> None:
    def hinge(setting: str) -> float:
        assert main(["assess", str(job), "--json", "--set", setting]) == 0
        found: float = json.loads(capsys.readouterr().out)["hinge"]["thickness_m"]
        return found

    assert hinge("cut.hinge.left_m=0.037") == hinge("cut.hinge.left_m=3.7 cm") == hinge("cut.hinge.left_m=37 mm")
    assert main(["assess", str(job), "--set", "cut.hinge.left_m=0.0004", "--set", "cut.hinge.right_m=0.0004"]) == 2
    assert "no hinge" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("setting", "says"),
    [
        ("cut.hinge.left_m", "wants a field, an equals sign"),
        ("cut.hing.left_m=4cm", "cut.hinge.left_m"),
        ("cut.hinge.left_m=thick", "thick"),
        ("cut.hinge.left_m=9 m", "accepted"),
        ("cut.hinge.left_m=9", "accepted"),
        ("cut.back.form=sideways", "accepted: axe, bored"),
        ("tree=oak", "no number or choice"),
        ("=4", "no number or choice"),
    ],
)
def test_a_setting_that_cannot_be_is_one_sentence(
    setting: str, says: str, job: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["assess", str(job), "--set", setting]) == 2
    err = capsys.readouterr().err
    assert says in err and err.count("\n") == 1


def test_the_answer_tells_when_the_tree_goes_and_what_is_seen_on_the_way(
    job: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["assess", str(job), "--json", "--set", "cut.wedges.0.stacked=1"]) in (0, 2)
    capsys.readouterr()
    assert main(["assess", str(job), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert 0 < found["balance"]["centre_over_deg"] < found["balance"]["theta_go_deg"]
    assert {"thinned_to_m", "thinning_refused"} <= set(found["wedges"])
    table = found["wedges"]["driving_table"]
    # Up to the lift at which it goes on the way that is told.
    assert 0.0 < table[-1]["lift_m"] <= found["wedges"]["lift_m"]
    law = found["hinge"]["hinge_law"]
    assert len(law["tilt_deg"]) == len(law["moment_Nm"]) and law["moment_Nm"][0] == 0
    assert max(law["moment_Nm"]) == pytest.approx(found["hinge"]["peak_Nm"], rel=0.02)
    assert found["butt"]["does"]


# Ways out, and what scripts may end on ------------------------------------------------------------------------


def test_assess_tells_kinds_chances_duties_and_difficulty(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["assess", "demo", "--tree", "WH-07", "--json", "--set", "cut.goes_on=wedges"]) == 0
    whole = json.loads(capsys.readouterr().out)
    kinds = {finding["kind"] for finding in whole["findings"]}
    assert {"limit", "duty", "fact"} <= kinds
    over = next(finding for finding in whole["findings"] if finding["id"] == "balance.over")
    assert 0.02 < over["chance"] < 0.2 and over["beta"] > 0.8 and over["level"] == "watch"
    assert over["where"]["step"] == "cut"
    assert [duty["id"] for duty in whole["duties"]] == ["duty.ways", "duty.people"]
    assert whole["duties"][0]["done"] is None
    assert whole["difficulty"]["grade"] == "demanding" and whole["difficulty"]["reasons"]


@pytest.mark.parametrize(
    ("settings", "fail_on", "status"),
    [
        ([], "stop", 0),
        ([], "watch", 1),
        (["person.limits.company=alone"], "stop", 1),
        (["person.limits.trained=not said"], "unknown", 1),
    ],
)
def test_a_script_may_end_on_a_verdict_and_otherwise_any_answer_is_zero(
    settings: list[str], fail_on: str, status: int, capsys: pytest.CaptureFixture[str]
) -> None:
    chosen = [part for each in settings for part in ("--set", each)]
    assert main(["assess", "demo", "--tree", "WH-07", *chosen]) == 0
    assert main(["assess", "demo", "--tree", "WH-07", *chosen, "--fail-on", fail_on]) == status
    capsys.readouterr()


def test_mend_offers_the_simplest_first_and_says_what_moves(capsys: pytest.CaptureFixture[str]) -> None:
    driven = ["--set", "cut.goes_on=wedges"]
    assert main(["mend", "demo", "--tree", "WH-07", "--json", *driven]) == 0
    troubles = {each["id"]: each for each in json.loads(capsys.readouterr().out)["troubles"]}
    mends = troubles["balance.over"]["mends"]
    assert [mend["lever"] for mend in mends[:2]] == ["goes_on", "thinner"]
    assert mends[1]["cut"]["hinge"]["left_m"] < 0.045
    assert all({"words", "moves", "verdict"} <= set(mend) for mend in mends)
    assert main(["mend", "demo", "--tree", "WH-07", *driven]) == 0
    out = capsys.readouterr().out
    assert "2. Thin the hinge to" in out
    assert main(["mend", "demo", "--tree", "WH-18"]) == 0
    assert "WH-18" in capsys.readouterr().out


def test_the_fall_tells_the_same_chances_as_the_limits(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["assess", "demo", "--tree", "WH-12", "--json"]) == 0
    findings = {f["id"]: f for f in json.loads(capsys.readouterr().out)["findings"]}
    assert main(["fall", "demo", "--tree", "WH-12", "--json", "--samples", "256"]) == 0
    told = json.loads(capsys.readouterr().out)["spread"]["chances"]
    side, holds = findings["hinge.side"]["chance"], findings["hinge.holds"]["chance"]
    assert told["hinge_lost_early"] == pytest.approx(1 - (1 - side) * (1 - holds))
    assert told["splits"] == pytest.approx(findings["split.index"]["chance"])
    assert told["breaks"] == pytest.approx(findings["landing.break"]["chance"])


# Where a number comes from -----------------------------------------------------------------------------------


def test_a_finding_leads_back_to_its_share_its_relation_and_what_it_hangs_on(
    capsys: pytest.CaptureFixture[str],
) -> None:
    assert main(["assess", "demo", "--tree", "WH-12", "--explain", "hinge.side"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert "Uses 83 % of its limit." in lines
    assert any(line.startswith("Fails about 1 time in") for line in lines)
    assert "Worked out by: use of the hinge (docs/model.md)." in lines
    inputs = [line for line in lines if line.endswith("of what is not known.")]
    assert inputs and any("±" in line for line in inputs)
    assert any(line == "Put right at: Cut, hinge left." for line in lines)


def test_an_id_that_is_no_finding_is_refused_with_those_there_are(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["assess", "demo", "--tree", "WH-12", "--explain", "hinge.sideways"]) == 2
    err = capsys.readouterr().err
    assert "hinge.sideways" in err and "hinge.side" in err and err.count("\n") == 1
