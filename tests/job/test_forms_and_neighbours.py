"""Forms of cut in the document, the job's trees as each other's neighbours, ropes and spot heights that are kept."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest

from plain_compass.core.base.errors import InputError
from plain_compass.core.base.paths import with_value
from plain_compass.core.cuts import forms
from plain_compass.core.site.rigging import initial_rope
from plain_compass.core.site.site import Place
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree, case_of
from plain_compass.job.edits import set_value, take_form
from plain_compass.job.files import read_job, write_job
from plain_compass.job.site_edits import MOST_SPOTS, add_obstacle, add_spot, remove_spot


@pytest.mark.parametrize(("part", "key"), sorted(forms()))
def test_every_form_can_be_taken_kept_in_a_file_and_read_again(part: str, key: str, tmp_path: Path) -> None:
    job = take_form(demo_job(), "WH-21", part, key, read=True)
    write_job(tmp_path / "job.pcjob.json", job)
    again = read_job(tmp_path / "job.pcjob.json").job
    assert again == job
    assert getattr(again.plan("WH-21").cut, part).form == key
    assert f"{part}:{key}" in again.plan("WH-21").cut.read.split()
    assert assess_tree(again, "WH-21").findings


def test_a_statement_is_noted_once_and_stays_with_its_tree() -> None:
    job = take_form(take_form(demo_job(), "WH-21", "back", "slot", read=True), "WH-21", "back", "slot", read=True)
    assert job.plan("WH-21").cut.read == "back:slot"
    assert job.plan("WH-07").cut.read == ""


def test_a_stem_measured_anew_takes_every_length_of_its_cut_along() -> None:
    job = take_form(demo_job(), "WH-07", "face", "blocked")
    before = job.plan("WH-07").cut
    after = set_value(job, "WH-07", "tree.trunk.butt_diameter_m", 1.1 * job.plan("WH-07").tree.trunk.butt_diameter_m)
    cut = after.plan("WH-07").cut
    factor = cut.face.depth_m / before.face.depth_m
    assert factor > 1.02
    assert cut.face.block_m == pytest.approx(before.face.block_m * factor)
    assert cut.hinge.heart_m == pytest.approx(before.hinge.heart_m * factor)
    assert cut.face.form == "blocked"


def test_the_other_trees_are_neighbours_with_their_own_crowns_until_they_are_down() -> None:
    job = demo_job()
    names = {o.name: o for o in case_of(job, "WH-07").site.obstacles}
    assert names["WH-12"].height_m == job.plan("WH-12").tree.height_m
    down = replace(job, trees=tuple(replace(t, state="down") if t.id == "WH-12" else t for t in job.trees))
    assert "WH-12" not in {o.name for o in case_of(down, "WH-07").site.obstacles}
    alone = replace(job, trees=job.trees[:1])
    assert case_of(alone, "WH-07").site == job.site


def test_a_stem_left_standing_by_work_aloft_stays_in_the_way_of_the_others() -> None:
    job = demo_job()
    tree = replace(with_value(job.plan("WH-12"), "cut.height_m", 6.0), state="down")
    aloft = replace(job, trees=tuple(tree if each.id == "WH-12" else each for each in job.trees))
    (left,) = (o for o in case_of(aloft, "WH-07").site.obstacles if o.name.startswith("WH-12"))
    assert (left.height_m, left.points) == (6.0, (tree.at,))
    assert left.radius_m == pytest.approx(tree.tree.trunk.diameter_m / 2, abs=0.006)
    assert left.overhead == "no"


def test_what_a_neighbour_has_overhead_is_what_was_seen_in_it() -> None:
    job = demo_job()
    trees = tuple(with_value(t, "tree.around.dead_limbs", "yes") if t.id == "WH-12" else t for t in job.trees)
    seen = {o.name: o.overhead for o in case_of(replace(job, trees=trees), "WH-07").site.obstacles}
    assert seen["WH-12"] == "yes"


def test_ropes_and_spot_heights_are_kept_in_the_file(tmp_path: Path) -> None:
    job = demo_job()
    plan = job.plan("WH-07")
    rope = initial_rope(plan.rope, plan.at, plan.cut.lay_deg, plan.tree.height_m)
    job = replace(job, trees=(replace(plan, rope=rope), *job.trees[1:]))
    job = add_spot(job, Place(3.0, 4.0))
    write_job(tmp_path / "job.pcjob.json", job)
    again = read_job(tmp_path / "job.pcjob.json").job
    assert again.plan("WH-07").rope == rope
    assert again.site.spots == job.site.spots
    assert remove_spot(again, len(again.site.spots) - 1).site.spots == demo_job().site.spots


def test_more_spots_than_a_site_holds_and_a_rock_on_a_stem_are_refused() -> None:
    job = demo_job()
    full = with_value(job, "site.spots", job.site.spots * (MOST_SPOTS // len(job.site.spots) + 1))
    with pytest.raises(InputError, match=r"site\.spots"):
        add_spot(full, Place(1, 1))
    with pytest.raises(InputError, match="stem of WH-12"):
        add_obstacle(job, "rock", job.plan("WH-12").at)
