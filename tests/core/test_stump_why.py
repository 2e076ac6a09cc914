"""The miss shared out: shares add up, what was as planned has none, and a known slip is found again."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import case, one_tree_job, plain_cut, round_tree
from plain_compass.core.base.errors import InputError
from plain_compass.core.plan.case import Case
from plain_compass.core.stump.as_cut import GROUPS, AsCut, case_as, cut_as, differing, miss_deg
from plain_compass.core.stump.shares import coalitions, shapley
from plain_compass.core.stump.why import FARTHEST, explanations, why
from plain_compass.core.tree.moved import ACROSS, moved
from plain_compass.job.demo import demo_job
from plain_compass.job.document import case_of
from plain_compass.job.edits import set_value, set_values
from plain_compass.job.files import job_text, parse_job
from plain_compass.job.stump_rows import PARTS
from plain_compass.job.stump_why import sentences_of, why_to_plain

NAMES = ("a", "b", "c", "d")
games = st.lists(st.floats(-50, 50), min_size=16, max_size=16)


def value_of(numbers: list[float]) -> dict[frozenset[str], float]:
    return dict(zip(coalitions(NAMES), numbers, strict=True))


# Sharing out ------------------------------------------------------------------------------------------------


@given(games)
def test_shares_add_up_to_the_whole(numbers: list[float]) -> None:
    value = value_of(numbers)
    whole = value[frozenset(NAMES)] - value[frozenset()]
    assert sum(shapley(NAMES, value).values()) == pytest.approx(whole, abs=1e-9)


@given(games)
def test_who_never_changes_anything_has_no_share(numbers: list[float]) -> None:
    value = value_of(numbers)
    value |= {group | {"d"}: value[group] for group in coalitions(NAMES[:3])}
    assert shapley(NAMES, value)["d"] == pytest.approx(0.0, abs=1e-12)


@given(games, games, st.floats(-3, 3))
def test_shares_of_a_sum_are_the_sums_of_shares(one: list[float], other: list[float], by: float) -> None:
    mixed = [a + by * b for a, b in zip(one, other, strict=True)]
    first, second = shapley(NAMES, value_of(one)), shapley(NAMES, value_of(other))
    for name, share in shapley(NAMES, value_of(mixed)).items():
        assert share == pytest.approx(first[name] + by * second[name], abs=1e-8)


def test_two_who_only_count_together_share_alike() -> None:
    """The closed form of the simplest game: nothing alone, ten together."""
    value = {frozenset(): 0.0, frozenset("a"): 0.0, frozenset("b"): 0.0, frozenset("ab"): 10.0}
    assert shapley(("a", "b"), value) == {"a": 5.0, "b": 5.0}


# The stump ---------------------------------------------------------------------------------------------------


def standing() -> Case:
    """A plain tree that goes to the north, on both sides alike."""
    return case(round_tree(), replace(plain_cut(), lay_deg=0.0))


def test_a_stump_as_planned_explains_nothing_and_changes_nothing() -> None:
    planned = standing()
    cut = planned.cut
    alike = AsCut(
        towards_deg=cut.gun_deg, depth_m=cut.face.depth_m, hinge_left_m=cut.hinge.left_m, step_left_m=cut.back.step_m,
        step_right_m=cut.back.step_m, top_deg=4.0,
    )  # fmt: skip
    assert differing(planned, alike) == () and cut_as(cut, alike) == cut
    found = why(planned, alike)
    assert found.shares == {} and found.told_deg == found.planned_deg
    assert found.miss_deg == pytest.approx(-4.0)
    assert found.unexplained_deg == pytest.approx(-4.0 - found.planned_deg)


def test_a_face_aimed_beside_the_lay_is_the_miss_it_makes() -> None:
    """On a tree that is alike on both sides the top goes where the face points."""
    for off in (-6.0, 3.0):
        found = why(standing(), AsCut(towards_deg=(0.0 - off) % 360))
        assert found.shares == {"aim": pytest.approx(off, abs=0.2)}


def test_the_thicker_end_pulls_and_mirrored_the_other_way() -> None:
    planned = case(replace(round_tree(), lean=replace(round_tree().lean, angle_deg=3.0, bearing_deg=0.0)), plain_cut())
    thick = planned.cut.hinge.left_m + 0.02
    left, right = why(planned, AsCut(hinge_left_m=thick)), why(planned, AsCut(hinge_right_m=thick))
    assert left.shares["left"] > 0.01
    assert left.shares["left"] == pytest.approx(-right.shares["right"], abs=1e-6)


@settings(max_examples=12)
@given(st.floats(-8, 8), st.floats(-0.01, 0.02), st.floats(-0.01, 0.02), st.floats(0.0, 0.05))
def test_planned_shares_and_the_unexplained_add_up_to_the_miss(
    off: float, left: float, right: float, step: float
) -> None:
    planned = case_of(demo_job(), "WH-12")
    hinge = planned.cut.hinge
    read = AsCut(
        towards_deg=(planned.cut.lay_deg - off) % 360, hinge_left_m=hinge.left_m + left,
        hinge_right_m=hinge.right_m + right, step_left_m=step, top_deg=(planned.cut.lay_deg + 5.0) % 360,
    )  # fmt: skip
    found = why(planned, read)
    assert found.planned_deg + sum(found.shares.values()) == pytest.approx(found.told_deg, abs=1e-9)
    assert found.unexplained_deg is not None
    assert found.told_deg + found.unexplained_deg == pytest.approx(-5.0, abs=1e-9)
    assert found.miss_m(10.0) == pytest.approx(10.0 * -0.08716, abs=1e-3)


def test_a_miss_is_told_within_half_a_turn_left_positive() -> None:
    cut = replace(plain_cut(), lay_deg=350.0)
    assert miss_deg(cut, AsCut(top_deg=10.0), 20.0) == pytest.approx(-20.0)
    assert miss_deg(cut, AsCut(top_deg=340.0), 20.0) == pytest.approx(10.0)
    assert miss_deg(cut, AsCut(), 20.0) is None


def test_paces_off_the_mark_are_a_miss_too_and_a_bearing_goes_before_them() -> None:
    cut = replace(plain_cut(), lay_deg=350.0)
    assert miss_deg(cut, AsCut(beside_m=2.0), 20.0) == pytest.approx(5.739, abs=1e-3)
    assert miss_deg(cut, AsCut(beside_m=-2.0, top_m=10.0), 20.0) == pytest.approx(-11.537, abs=1e-3)
    assert miss_deg(cut, AsCut(beside_m=-2.0, top_deg=340.0), 20.0) == pytest.approx(10.0)
    assert miss_deg(cut, AsCut(beside_m=30.0), 20.0) == pytest.approx(90.0), "no farther off than it is long"


def test_the_mean_of_both_steps_and_as_many_wedges_as_were_driven_are_reckoned() -> None:
    cut = case_of(demo_job(), "WH-07").cut
    assert cut_as(cut, AsCut(step_left_m=0.02, step_right_m=0.05)).back.step_m == pytest.approx(0.035)
    assert sum(seat.stacked for seat in cut.wedges) == 4
    for count in range(5):
        assert sum(seat.stacked for seat in cut_as(cut, AsCut(wedges=count)).wedges) == count
    assert cut_as(cut, AsCut(wedges=9)).wedges == cut.wedges


def test_only_what_is_asked_for_is_exchanged() -> None:
    planned = case_of(demo_job(), "WH-07")
    cut = planned.cut
    read = AsCut(
        towards_deg=210.0, hinge_left_m=0.06, hinge_right_m=0.03, step_left_m=0.0, overcut_m=0.01, wedges=1,
        rot_m=0.1, wind_m_s=5.0,
    )  # fmt: skip
    for group in GROUPS:
        changed = case_as(planned, read, (group,))
        assert changed != planned and differing(changed, read) == tuple(each for each in GROUPS if each != group)
    assert case_as(planned, read, ()) == planned
    assert cut_as(cut, read, ("left",)).hinge == replace(cut.hinge, left_m=0.06)
    assert cut_as(cut, read, ()) == cut


def test_what_is_left_over_is_explained_by_the_input_that_was_really_off() -> None:
    """The tree is made to lean farther across than was measured; just that, and so far, explains the rest."""
    planned = case_of(demo_job(), "WH-12")
    spreads = {f"tree.{ACROSS}": 0.5, "tree.height_m": 0.2}
    truth = replace(planned, tree=moved(planned.tree, ACROSS, 0.75))
    lies = AsCut(top_deg=(planned.cut.lay_deg - why(truth, AsCut()).planned_deg) % 360)
    found = why(planned, lies)
    told = explanations(planned, lies, found, spreads)
    assert told[0].path == f"tree.{ACROSS}"
    assert told[0].spreads == pytest.approx(1.5, abs=0.2) and told[0].by == pytest.approx(0.75, abs=0.1)
    assert told[0].chance == pytest.approx(0.134, abs=0.04), "an error of 1.5 spreads either way"
    assert all(abs(each.spreads) <= FARTHEST for each in told)
    assert all(abs(one.spreads) <= abs(other.spreads) for one, other in pairwise(told))


def test_nothing_is_looked_for_where_nothing_is_left_over() -> None:
    planned = case_of(demo_job(), "WH-12")
    lies = AsCut(top_deg=(planned.cut.lay_deg - why(planned, AsCut()).planned_deg) % 360)
    assert explanations(planned, lies, why(planned, lies), {f"tree.{ACROSS}": 0.5}) == ()
    assert explanations(planned, AsCut(), why(planned, AsCut()), {f"tree.{ACROSS}": 0.5}) == ()


def test_a_stump_that_cannot_be_names_the_field_it_was_read_into() -> None:
    with pytest.raises(InputError) as refused:
        why(case_of(demo_job(), "WH-07"), AsCut(hinge_left_m=0.9))
    assert refused.value.field == "as_cut.hinge_left_m"
    with pytest.raises(InputError):
        set_value(demo_job(), "WH-07", "as_cut.top_deg", 400.0)


# In the job --------------------------------------------------------------------------------------------------


def test_what_was_read_is_kept_with_the_tree_and_told_in_words() -> None:
    job = demo_job()
    assert sentences_of(job, "WH-12") == ("Nothing has been read off this stump yet.",)
    job = set_values(job, "WH-12", {"as_cut.towards_deg": 49.0, "as_cut.top_deg": 46.0, "as_cut.rot": "a hand deep"})
    again = parse_job(job_text(job), "job").job
    assert again.plan("WH-12").as_cut == job.plan("WH-12").as_cut
    (told, *_) = sentences_of(again, "WH-12")
    assert told.startswith("The top lies 6° left of the lay: ") and "the face as it was cut" in told
    gob = replace(again, words="gob")
    assert "the gob as it was cut" in sentences_of(gob, "WH-12")[0]
    plain = why_to_plain(again, "WH-12")
    assert plain["as_cut"] == {"towards_deg": 49.0, "top_deg": 46.0, "rot": "a hand deep"}
    whole = plain["planned_deg"] + sum(plain["shares_deg"].values()) + plain["unexplained_deg"]
    assert whole == pytest.approx(plain["miss_deg"])


def test_a_tree_that_lies_just_as_planned_is_told_in_a_whole_sentence() -> None:
    job = one_tree_job()
    case_now = case_of(job, "WH-07")
    lies = (case_now.cut.lay_deg - why(case_now, AsCut()).planned_deg) % 360
    (told, *more) = sentences_of(set_value(job, "WH-07", "as_cut.top_deg", round(lies, 3)), "WH-07")
    assert re.fullmatch(r"The top lies .+ of the lay: .+ as planned\.", told)
    assert more == ["Nothing that was read looks like one of the usual mistakes."]


def test_the_page_for_the_stump_asks_what_the_record_keeps() -> None:
    """Every field once, in the order of the record."""
    assert [field for rows in PARTS.values() for row in rows for field in row] == list(AsCut.__slots__)


def test_a_hinge_seen_to_part_early_and_the_wind_have_their_shares() -> None:
    """WH-12 is heavy on one side: a hinge lost at once lets it go there; a side wind blows it further."""
    planned = case_of(demo_job(), "WH-12")
    early = why(planned, AsCut(broke_deg=10.0))
    assert set(early.shares) == {"loss"} and abs(early.shares["loss"]) > 1.0
    late = why(planned, AsCut(broke_deg=110.0))
    assert late.shares["loss"] == pytest.approx(0.0, abs=1e-6), "later than it is reckoned to part changes nothing"
    windy = why(planned, AsCut(broke_deg=10.0, wind_m_s=8.0, wind_from_deg=(planned.cut.lay_deg + 90.0) % 360))
    assert windy.shares["wind"] > 0.05, "a wind from the right pushes left"


def test_whether_it_split_is_read_from_its_length_or_the_words_for_it() -> None:
    assert AsCut().has_split is None and AsCut(split="no").has_split is False
    assert AsCut(split="left of the middle").has_split is True
    assert AsCut(split="left", split_m=0.0).has_split is False and AsCut(split_m=0.4).has_split is True
