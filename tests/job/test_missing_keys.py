"""What a job file does not give was not measured: no stand-in comes out clear because its key is missing."""

from __future__ import annotations

import json
from typing import Any

import pytest

from plain_compass.job.demo import demo_job
from plain_compass.job.document import Job
from plain_compass.job.fall import judged_with_fall
from plain_compass.job.files import job_text, parse_job


def read_without(*path: str) -> Job:
    """The demo as its file would be read with one key of its first tree left out."""
    plain: dict[str, Any] = json.loads(job_text(demo_job()))
    at = plain["trees"][0]["tree"]
    for name in path[:-1]:
        at = at[name]
    at.pop(path[-1])
    return parse_job(json.dumps(plain), "job").job


@pytest.mark.parametrize(
    ("path", "lacks", "unknown"),
    [
        (("height_m",), "height_m", "measured.height"),
        (("trunk", "diameter_m"), "trunk.diameter_m", "measured.diameter"),
        (("crown", "base_m"), "crown.base_m", "measured.crown"),
        (("crown", "readings"), "crown.readings.0.radius_m", "measured.crown"),
        (("lean",), "lean.angle_deg", "measured.lean"),
        (("lean", "angle_deg"), "lean.angle_deg", "measured.lean"),
    ],
)
def test_a_missing_key_is_not_measured_and_nothing_that_rests_on_it_is_clear(
    path: tuple[str, ...], lacks: str, unknown: str
) -> None:
    job = read_without(*path)
    assert lacks in job.trees[0].tree.stand_ins
    result, _ = judged_with_fall(job, "WH-07")
    levels = {finding.id: finding.level for finding in result.findings}
    assert levels[unknown] == "unknown"
    assert levels["balance.over"] == levels["fall.drift"] == levels["hinge.side"] == "unknown"


def test_a_whole_file_has_nothing_missing_and_a_plumb_stem_needs_no_bearing() -> None:
    whole = json.loads(job_text(demo_job()))
    assert all(not plan.tree.stand_ins for plan in parse_job(json.dumps(whole), "job").job.trees)
    lean = whole["trees"][0]["tree"]["lean"]
    lean["angle_deg"] = 0.0
    del lean["bearing_deg"]
    assert parse_job(json.dumps(whole), "job").job.trees[0].tree.stand_ins == ()
