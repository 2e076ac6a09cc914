"""Files on disk: links, read-only files, leftovers of killed saves, names, and what could never be written again."""

from __future__ import annotations

import fcntl
import json
import os
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.job.demo import demo_job
from plain_compass.job.disk import JobFileError, ReadOnlyFileError, beside, file_name, read_text, write_atomically
from plain_compass.job.files import job_text, parse_job, write_job
from plain_compass.job.practice_files import PracticeError, practice_from, practice_text
from plain_compass.job.tables import forget_tables, indicative, practice_of, practices, table_troubles


def test_saving_through_a_symbolic_link_keeps_the_link(tmp_path: Path) -> None:
    target, link = tmp_path / "real.json", tmp_path / "link.json"
    target.write_text("old")
    link.symlink_to("real.json")
    write_atomically(link, "new")
    assert link.is_symlink() and target.read_text() == "new"


def test_a_read_only_file_is_left_as_it_is(tmp_path: Path) -> None:
    file = tmp_path / "kept.json"
    file.write_text("old")
    file.chmod(0o444)
    with pytest.raises(ReadOnlyFileError, match="read-only"):
        write_atomically(file, "new")
    assert file.read_text() == "old"
    write_atomically(file, "new", over_read_only=True)
    assert file.read_text() == "new" and file.stat().st_mode & 0o777 == 0o444


def test_leftovers_of_killed_saves_go_at_the_next_save_and_a_living_writers_stay(tmp_path: Path) -> None:
    dead = [tmp_path / ".job.pcjob.json.abcd1234", tmp_path / ".job.pcjob.json.zz_9zz9z.part"]
    others = [tmp_path / ".bashrc", tmp_path / ".notes.json.backup", tmp_path / "job.json.abcd1234"]
    for file in (*dead, *others):
        file.write_text("x")
    alive = tmp_path / ".job.pcjob.json.living00.part"
    with alive.open("w") as stream:
        fcntl.flock(stream, fcntl.LOCK_EX)
        write_atomically(tmp_path / "job.pcjob.json", "x")
        assert alive.exists()
    assert not any(file.exists() for file in dead)
    assert all(file.exists() for file in others)


def test_a_save_that_fails_for_any_reason_says_so_and_leaves_nothing_behind(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    file = tmp_path / "job.json"
    file.write_text("old")
    with pytest.raises(JobFileError, match="could not be written"):
        write_atomically(file, "half a \ud800 character")

    def broken(_: int) -> None:
        raise OSError(5, "Input/output error")

    monkeypatch.setattr(os, "fsync", broken)
    with pytest.raises(JobFileError, match="input/output error"):
        write_atomically(file, "new")
    assert file.read_text() == "old" and os.listdir(tmp_path) == ["job.json"]


def test_a_pipe_is_refused_and_never_waited_for(tmp_path: Path) -> None:
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)
    with pytest.raises(JobFileError, match="pipe"):
        read_text(pipe)
    with pytest.raises(JobFileError, match="pipe"):
        write_atomically(pipe, "x")
    with pytest.raises(JobFileError, match="no file name"):
        read_text(Path("a\x00b"))


@pytest.mark.parametrize(
    ("field", "words"),
    [
        ('"later": 1e400', "1e400"),
        ('"later": [{"deep": -1e999}]', "-1e999"),
        ('"later": "\\ud800"', "later"),
        ('"later": {"\\udc00x": 1}', "half a character"),
        ('"later": ' + "9" * 5000, "5000 digits"),
        ('"later": ' + "[" * 80 + "]" * 80, "nested too deeply"),
    ],
)
def test_what_could_never_be_written_again_is_refused_on_reading(field: str, words: str) -> None:
    text = job_text(demo_job()).replace("{", "{" + field + ",", 1)
    with pytest.raises(JobFileError, match=words) as refused:
        parse_job(text, "job.json")
    assert str(refused.value).startswith("job.json")


def test_half_a_character_in_a_note_is_named_by_its_tree() -> None:
    text = job_text(demo_job()).replace('"notes": "', '"notes": "\\ud800', 1)
    with pytest.raises(JobFileError, match=r"trees\[0\].notes"):
        parse_job(text, "job.json")


def test_half_a_pair_of_escapes_that_belong_together_is_text_as_any_other() -> None:
    text = job_text(demo_job()).replace("{", '{"later": "\\ud83c\\udf33",', 1)
    assert parse_job(text, "x").raw["later"] == "\U0001f333"


@given(st.text(max_size=300))
def test_a_suggested_name_is_always_one_a_file_can_have(words: str) -> None:
    name = file_name(words)
    assert 0 < len(name) <= 100
    assert not set(name) & set('/\\:*?"<>|\x00\n') and not name.startswith(".")
    name.encode("utf-8")


def test_a_name_beside_is_one_that_is_free(tmp_path: Path) -> None:
    path = tmp_path / "south bank.pcjob.json"
    write_job(path, demo_job())
    assert beside(path).name == "south bank (2).pcjob.json"
    beside(path).write_text("")
    assert beside(path).name == "south bank (3).pcjob.json"


@pytest.mark.parametrize("key", ["../../x", "a/b", "", "A", "x" * 61, "a.b", "é", "a\nb", "..", "x\n"])
def test_a_practices_key_can_be_nothing_but_a_plain_file_name(key: str) -> None:
    text = practice_text(practice_of("fifth-and-tenth")).replace("fifth-and-tenth", "KEY")
    with pytest.raises(PracticeError, match="key is"):
        practice_from(text.replace('"KEY"', json.dumps(key)), "mine.json")


# A person's own constants ------------------------------------------------------------------------------------


@pytest.fixture
def own(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    (tmp_path / "plain-compass").mkdir()
    forget_tables()
    return tmp_path / "plain-compass" / "indicative.toml"


@pytest.fixture(autouse=True)
def _anew() -> object:
    yield
    forget_tables()


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"= no table", "is not used"),
        (b"\xff\xfe", "not a text file"),
        (b"[wedges]\nblow_efficiency = nan", "accepted: 0.05 to 1; 0.6 is used"),
        (b"[wedges]\nblow_efficiency = 0", "blow_efficiency is 0"),
        (b"[wedges]\nwedge_friction = -1", "wedge_friction is -1"),
        (b"[wedges]\nwedge_friction = 'a'", "wedge_friction is 'a'"),
        (b"[wedges]\nwedge_friction = true", "wedge_friction is True"),
        (b"[wedges]\nfriction = 0.2", "wedges.friction is no constant"),
        (b"[nothing]\nx = 1", "nothing is no table"),
        (b"wedges = 5", "wedges is no table"),
        (b"[break_base_deg]\nsupple = inf", "supple is inf"),
    ],
)
def test_own_constants_that_cannot_be_taken_are_named_and_the_shipped_ones_hold(
    own: Path, content: bytes, words: str
) -> None:
    own.write_bytes(content)
    found = indicative()
    assert found.blow_efficiency == 0.6 and found.wedge_friction == 0.25 and found.break_base_deg["supple"] == 85.0
    (told,) = table_troubles()
    assert words in told


def test_a_folder_or_pipe_in_the_place_of_own_constants_is_passed_over(own: Path) -> None:
    os.mkfifo(own)
    assert indicative().blow_efficiency == 0.6
    assert "pipe" in table_troubles()[0]


def test_every_constant_that_ships_has_a_range_it_lies_in(own: Path) -> None:
    """Copying the shipped file as one's own changes nothing and is not complained of."""
    own.write_bytes((Path(__file__).parents[2] / "src/plain_compass/data/indicative.toml").read_bytes())
    assert table_troubles() == ()


def test_an_own_practice_that_cannot_be_read_is_named(own: Path) -> None:
    (own.parent / "practices").mkdir()
    (own.parent / "practices" / "mine.json").write_text('{"key": "../x"}')
    assert len(practices()) == 6
    assert "mine.json" in table_troubles()[0]
