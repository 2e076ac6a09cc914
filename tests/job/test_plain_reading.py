"""Plain checks and pydantic say the same of every document: what is taken is alike, what is refused is told alike."""

from __future__ import annotations

import copy
import json
import subprocess
import sys
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from plain_compass.job.built import built_from, job_from_plain
from plain_compass.job.demo import demo_coupe, demo_job
from plain_compass.job.document import Job, LogEntry
from plain_compass.job.plain import DocumentError, entry_to_plain, job_to_plain, plainly_built
from plain_compass.job.schema import built_by_pydantic
from plain_compass.log.places import demo_entries

PLAIN = {key: value for key, value in job_to_plain(demo_job()).items() if key not in ("format", "version")}
ODD = st.one_of(
    st.none(),
    st.booleans(),
    st.integers(-(10**20), 10**20),
    st.floats(),
    st.text(max_size=200),
    st.sampled_from(["yes", "unknown", "\ud800", "a\nb", "x" * 121, 1e400, -0.0, 2**53 + 1]),
    st.lists(st.integers(), max_size=3),
    st.dictionaries(st.text(max_size=5), st.integers(), max_size=3),
)


def places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place within a document."""
    inside = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    return [path, *(found for key, each in inside for found in places(each, (*path, key)))]


PLACES = [path for path in places(PLAIN) if path]


def told(of: Any, raw: Any) -> tuple[str, Any]:
    try:
        return "taken", of(Job, copy.deepcopy(raw))
    except DocumentError as error:
        return "refused", str(error)


@settings(max_examples=400, suppress_health_check=[HealthCheck.too_slow])
@given(st.data())
def test_whatever_is_put_where_both_ways_of_reading_say_the_same(data: st.DataObject) -> None:
    raw = copy.deepcopy(PLAIN)
    for _ in range(data.draw(st.integers(1, 3))):
        path = data.draw(st.sampled_from(PLACES))
        here = raw
        try:
            for key in path[:-1]:
                here = here[key]
            if data.draw(st.booleans()):
                here[path[-1]] = data.draw(ODD)
            elif isinstance(here, dict):
                here.pop(path[-1], None)
        except (KeyError, IndexError, TypeError):
            continue
    plain, pydantic = told(built_from, raw), told(built_by_pydantic, raw)
    assert repr(plain) == repr(pydantic)
    if plain[0] == "taken":
        assert plain[1] == pydantic[1]


@pytest.mark.parametrize("job", [demo_job(), demo_coupe(), Job()])
def test_a_job_that_was_written_is_read_by_plain_checks_alone(job: Job) -> None:
    raw = json.loads(json.dumps(job_to_plain(job)))
    body = {key: value for key, value in raw.items() if key not in ("format", "version")}
    assert plainly_built(Job, body) == built_by_pydantic(Job, body) == job_from_plain(raw) == job


def test_so_is_a_stump() -> None:
    for entry in demo_entries()[:5]:
        raw = json.loads(json.dumps(entry_to_plain(entry)))
        assert plainly_built(LogEntry, raw) == built_by_pydantic(LogEntry, raw) == entry


def test_a_whole_number_in_the_place_of_one_with_a_fraction_becomes_one() -> None:
    body = json.loads(json.dumps(PLAIN))
    body["trees"][0]["tree"]["height_m"] = 17
    found = plainly_built(Job, body).trees[0].tree.height_m
    assert found == 17.0 and isinstance(found, float)


@pytest.mark.parametrize(
    ("arguments", "unwanted"),
    [
        (["--help"], ("numpy", "pydantic", "PySide6")),
        (["assess", "demo"], ("pydantic", "PySide6", "scipy", "shapely", "pyproj")),
        (["block", "--help"], ("PySide6", "pydantic")),
    ],
)
def test_nothing_is_imported_that_a_command_does_not_need(arguments: list[str], unwanted: tuple[str, ...]) -> None:
    code = (
        "import sys; from plain_compass.cli import main\n"
        f"try:\n    main({arguments!r})\nexcept SystemExit:\n    pass\n"
        f"print([name for name in {unwanted!r} if name in sys.modules], file=sys.stderr)"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stderr.strip().splitlines()[-1] == "[]"
