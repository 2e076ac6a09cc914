"""Job files: nothing is lost, and whatever is wrong with a file is one sentence."""

from __future__ import annotations

import copy
import json
import resource
import signal
import subprocess
import sys
from dataclasses import replace
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from builders import one_tree_job
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.paths import value_at, with_value
from plain_compass.core.tree.tree import ShellReading
from plain_compass.job.disk import JobFileError
from plain_compass.job.document import VERSION, Job, TreePlan, assess_tree, with_plan
from plain_compass.job.edits import add_tree, new_job, remove_tree, rename_tree, set_value
from plain_compass.job.fields import choice_at, quantity_at
from plain_compass.job.files import job_text, merged, parse_job, read_job, write_job
from plain_compass.job.schema import json_schema


def plain() -> dict[str, Any]:
    content: dict[str, Any] = json.loads(job_text(one_tree_job()))
    return content


def refused(content: object) -> str:
    text = content if isinstance(content, str) else json.dumps(content)
    with pytest.raises(JobFileError) as caught:
        parse_job(text, "my.pcjob.json")
    sentence = str(caught.value)
    assert sentence.startswith("my.pcjob.json")
    assert sentence.endswith(".")
    return sentence


def changed(path: str, value: object) -> dict[str, Any]:
    """The demo with one value at a dotted path changed."""
    content = plain()
    at: Any = content
    *steps, last = path.split(".")
    for step in steps:
        at = at[int(step)] if step.isdigit() else at[step]
    at[last] = value
    return content


def test_a_job_written_and_read_is_the_same_job(tmp_path: Path) -> None:
    path = tmp_path / "a.pcjob.json"
    write_job(path, one_tree_job())
    opened = read_job(path)
    assert opened.job == one_tree_job()
    assert opened.unknown == ()


def test_what_is_written_meets_the_published_schema() -> None:
    schema = json_schema()
    jsonschema.Draft202012Validator.check_schema(schema)
    jsonschema.validate(plain(), schema)
    jsonschema.validate(json.loads(job_text(new_job())), schema)


@pytest.mark.parametrize(
    ("path", "value"),
    [("trees.0.tree.height_m", -3), ("units", "furlongs"), ("trees.0.cut.face.depth_m", "deep"), ("version", 9)],
)
def test_the_schema_refuses_what_the_program_refuses(path: str, value: object) -> None:
    content = changed(path, value)
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(content, json_schema())
    refused(content)


def test_the_schema_says_units_in_key_names_and_helps_with_every_number() -> None:
    for title, definition in json_schema()["$defs"].items():
        for name, item in definition["properties"].items():
            if item.get("type") == "number":
                # What was learned of a quantity has that quantity's own unit.
                assert title == "Used" or name.endswith(
                    ("_m", "_deg", "_J", "_kg", "_lengths", "_ratio", "_N", "_s")
                ), name
                assert item["description"].endswith(".")


def test_a_job_has_room_for_trees_site_kit_and_log() -> None:
    content = plain()
    assert isinstance(content["trees"], list)
    assert isinstance(content["log"], list)
    assert {"site", "kit"} <= set(content)


def test_fields_of_a_later_program_are_kept_on_rewriting(tmp_path: Path) -> None:
    content = plain()
    content["weather"] = {"wind_m_s": 3.0}
    content["trees"][0]["tag"] = "blue"
    content["trees"][0]["cut"]["wedges"][1]["colour"] = "red"
    path = tmp_path / "later.pcjob.json"
    path.write_text(json.dumps(content))
    opened = read_job(path)
    assert set(opened.unknown) == {"weather", "trees[0].tag", "trees[0].cut.wedges[1].colour"}
    job = with_plan(opened.job, "WH-07", "cut.face.depth_m", 0.125)
    write_job(path, job, opened.raw)
    again = json.loads(path.read_text())
    assert again["weather"] == {"wind_m_s": 3.0}
    assert again["trees"][0]["tag"] == "blue"
    assert again["trees"][0]["cut"]["wedges"][1]["colour"] == "red"
    assert again["trees"][0]["cut"]["face"]["depth_m"] == 0.125


def test_unknown_fields_follow_their_tree_by_its_id() -> None:
    raw = {"trees": [{"id": "a", "tag": 1}, {"id": "b", "tag": 2}]}
    known = {"trees": [{"id": "b"}, {"id": "c"}]}
    assert merged(raw, known) == {"trees": [{"id": "b", "tag": 2}, {"id": "c"}]}


def test_a_newer_version_is_refused_politely_and_left_alone(tmp_path: Path) -> None:
    path = tmp_path / "new.pcjob.json"
    path.write_text(json.dumps(changed("version", VERSION + 1)))
    before = path.read_bytes()
    with pytest.raises(JobFileError, match="newer Plain Compass"):
        read_job(path)
    assert path.read_bytes() == before


@pytest.mark.parametrize("version", [0, -1, "1", None, 1.5, True])
def test_a_version_that_is_none_is_refused(version: object) -> None:
    assert "version" in refused(changed("version", version))


def test_another_kind_of_file_is_refused() -> None:
    assert "format" in refused({"hello": 1})
    assert "one object" in refused([1, 2])
    assert "one object" in refused("3")


def test_an_empty_file_is_said_to_be_empty() -> None:
    assert "is empty" in refused("")
    assert "is empty" in refused("  \n")


@pytest.mark.parametrize("share", [0.1, 0.5, 0.9, 0.999])
def test_a_truncated_file_names_line_and_column(share: float) -> None:
    text = job_text(one_tree_job())
    sentence = refused(text[: int(len(text) * share)])
    assert "line" in sentence and "column" in sentence


@pytest.mark.parametrize("word", ["NaN", "Infinity", "-Infinity"])
def test_numbers_that_are_none_are_refused(word: str) -> None:
    text = json.dumps(plain()).replace("17.5", word, 1)
    assert word in refused(text)


def test_deep_nesting_is_refused() -> None:
    assert "nested" in refused("[" * 100_000)


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [
        ("trees.0.tree.height_m", -3, "trees[0].tree.height_m"),
        ("trees.0.tree.height_m", "tall", "trees[0].tree.height_m"),
        ("trees.0.tree.height_m", None, "trees[0].tree.height_m"),
        ("trees.0.tree.trunk.diameter_m", 40, "trees[0].tree.trunk.diameter_m"),
        ("trees.0.tree.lean.bearing_deg", 720, "trees[0].tree.lean.bearing_deg"),
        ("trees.0.tree.crown.base_m", 40, "trees[0].tree.crown.base_m"),
        ("trees.0.tree.decay.offset_m", 0.9, "trees[0].tree.decay.offset_m"),
        ("trees.0.tree.species", "moonwood", "trees[0].tree.species"),
        ("trees.0.cut.face.depth_m", 0.4, "trees[0].cut.face.depth_m"),
        ("trees.0.cut.hinge.left_m", 0.9, "trees[0].cut.hinge.left_m"),
        ("trees.0.cut.wedges.0.stacked", 7, "trees[0].cut.wedges[0].stacked"),
        ("trees.0.cut.wedges.0.stacked", 1.5, "trees[0].cut.wedges[0].stacked"),
        ("trees", [], "trees"),
        ("trees", {}, "trees"),
        ("units", "cubits", "units"),
        ("practice", "mine", "job.practice"),
        ("kit.bar_m", 1e308, "kit.bar_m"),
    ],
)
def test_a_wrong_value_is_refused_by_field(path: str, value: object, field: str) -> None:
    sentence = refused(changed(path, value))
    assert field in sentence
    assert "accepted" in sentence


def test_two_trees_of_one_name_are_refused() -> None:
    content = plain()
    content["trees"].append(copy.deepcopy(content["trees"][0]))
    assert "used twice" in refused(content)


@settings(max_examples=150, suppress_health_check=[HealthCheck.too_slow])
@given(data=st.data())
def test_a_file_damaged_anywhere_is_read_or_refused_in_a_sentence(data: st.DataObject) -> None:
    """One value anywhere in the document is replaced by something odd."""
    content = plain()
    at: Any = content
    while True:
        keys = list(at) if isinstance(at, dict) else list(range(len(at)))
        if not keys:
            break
        key = data.draw(st.sampled_from(keys))
        deeper = isinstance(at[key], (dict, list)) and data.draw(st.booleans())
        if deeper:
            at = at[key]
            continue
        number = st.one_of(st.integers(-(10**20), 10**20), st.floats(allow_nan=False, allow_infinity=False))
        odd = st.one_of(st.none(), st.booleans(), number, st.text(max_size=5), st.just([]), st.just({}))
        at[key] = data.draw(odd)
        break
    try:
        opened = parse_job(json.dumps(content), "odd.json")
    except JobFileError as error:
        assert str(error).startswith("odd.json")
        return
    for tree in opened.job.trees:
        assess_tree(opened.job, tree.id)


def test_a_folder_is_no_job(tmp_path: Path) -> None:
    with pytest.raises(JobFileError, match="folder"):
        read_job(tmp_path)
    with pytest.raises(JobFileError, match="folder"):
        write_job(tmp_path, one_tree_job())


def test_a_file_that_is_not_there_is_named(tmp_path: Path) -> None:
    with pytest.raises(JobFileError, match=r"gone\.json is not there"):
        read_job(tmp_path / "gone.json")


def test_a_file_that_is_no_text_is_said_so(tmp_path: Path) -> None:
    path = tmp_path / "picture.png"
    path.write_bytes(b"\x89PNG\xff\xfe")
    with pytest.raises(JobFileError, match="not a text file"):
        read_job(path)


def test_a_place_that_cannot_be_written_is_a_sentence() -> None:
    """The kernel refuses new files in /proc even to the superuser."""
    with pytest.raises(JobFileError, match="could not be written"):
        write_job(Path("/proc/job.pcjob.json"), one_tree_job())


def test_a_full_disk_loses_nothing(tmp_path: Path) -> None:
    """The kernel cuts the child off after 2 kB, as a full disk would; the old file must stay whole."""
    path = tmp_path / "job.pcjob.json"
    write_job(path, one_tree_job())
    before = path.read_bytes()
    child = (
        "import sys\nfrom pathlib import Path\n"
        "from plain_compass.job.demo import demo_job\nfrom plain_compass.job.disk import JobFileError\n"
        "from plain_compass.job.files import write_job\n"
        "try:\n    write_job(Path(sys.argv[1]), demo_job())\n"
        "except JobFileError as error:\n    print(error)\n    sys.exit(7)\n"
    )

    def limited() -> None:
        signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
        resource.setrlimit(resource.RLIMIT_FSIZE, (2000, 2000))

    told = subprocess.run(
        [sys.executable, "-B", "-c", child, str(path)], preexec_fn=limited, capture_output=True, text=True, check=False
    )
    assert told.returncode == 7, told.stderr
    assert "could not be written" in told.stdout
    assert path.read_bytes() == before
    assert list(tmp_path.iterdir()) == [path]


def test_saving_keeps_the_files_own_permissions(tmp_path: Path) -> None:
    path = tmp_path / "job.pcjob.json"
    write_job(path, one_tree_job())
    path.chmod(0o640)
    write_job(path, one_tree_job())
    assert path.stat().st_mode & 0o777 == 0o640


def test_a_thinner_stem_takes_its_cut_along() -> None:
    job = one_tree_job()
    before = assess_tree(job, "WH-07").parts.face.depth_ratio
    thin = set_value(job, "WH-07", "tree.trunk.butt_diameter_m", 0.28)
    assert thin.plan("WH-07").cut.face.depth_m < 0.5 * job.plan("WH-07").cut.face.depth_m * 1.05
    assert assess_tree(thin, "WH-07").parts.face.depth_ratio == pytest.approx(before, rel=1e-3)


def test_choosing_a_shell_begins_with_four_probes() -> None:
    job = set_value(one_tree_job(), "WH-07", "tree.decay.kind", "shell")
    assert len(job.plan("WH-07").tree.decay.shell) == 4
    assert isinstance(job.plan("WH-07").tree.decay.shell[0], ShellReading)
    assess_tree(job, "WH-07")


def test_a_value_out_of_range_is_refused_before_it_is_in_the_document() -> None:
    with pytest.raises(InputError):
        set_value(one_tree_job(), "WH-07", "tree.height_m", float("nan"))


def test_trees_are_added_renamed_and_removed() -> None:
    job, name = add_tree(one_tree_job())
    assert [t.id for t in job.trees] == ["WH-07", name]
    assess_tree(job, name)
    job = rename_tree(job, name, " WH-08 ")
    assert job.plan("WH-08")
    with pytest.raises(InputError):
        rename_tree(job, "WH-08", "WH-07")
    with pytest.raises(InputError):
        rename_tree(job, "WH-08", "  ")
    job = remove_tree(job, "WH-08")
    with pytest.raises(InputError):
        remove_tree(job, "WH-07")
    with pytest.raises(InputError, match="WH-07"):
        job.plan("WH-08")


def test_values_are_reached_by_path() -> None:
    job = one_tree_job()
    assert value_at(job, "trees.0.cut.wedges.1.at_deg") == -25.0
    assert value_at(with_value(job, "trees.0.cut.wedges.1.at_deg", -30.0), "trees.0.cut.wedges.1.at_deg") == -30.0
    assert quantity_at("tree.crown.readings.0.radius_m").kind == "span"
    assert quantity_at("kit.bar_m").kind == "length"
    assert "plumb" in choice_at("tree.lean.method")[1]
    assert replace(job, trees=(TreePlan("x"),)).plan("x").id == "x"
    assert Job().units == "metric"
