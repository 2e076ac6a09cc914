"""Findings: what is a stop, what is a watch, and that the unknown is never clear."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, finding, finding_ids, plain_cut, round_tree, told
from plain_compass.core.base.levels import GROUPS, LEVELS, FindingKind, Group, Level
from plain_compass.core.base.phrase import phrase
from plain_compass.core.base.polygon import across, behind, moments
from plain_compass.core.judge.findings import (
    Done,
    Finding,
    Limit,
    as_fact,
    level_of,
    margin_of,
    stated,
    verdict_of,
    worst_first,
)
from plain_compass.core.judge.places import level_at_step
from plain_compass.core.tree.tree import Decay


def made(name: str, level: str, margin: float | None) -> Finding:
    return Finding(
        name, name.split(".")[0], level, None, None, "ratio", margin, phrase("It is so."), phrase("Change it.")
    )


def test_every_finding_has_a_level_a_group_and_two_plain_sentences() -> None:
    for item in assessed().findings:
        assert item.level in LEVELS
        assert item.group in GROUPS
        assert told(item.sentence).endswith(".")
        assert told(item.change).endswith(".")
        assert item.source in ("physics", "practice", "site")


def test_nothing_says_safe() -> None:
    for cut in (plain_cut(), plain_cut(back__form="bored")):
        for item in assessed(cut=cut).findings:
            assert "safe" not in (told(item.sentence) + told(item.change)).lower()


@pytest.mark.parametrize(
    ("use", "level"), [(0.0, "clear"), (0.69, "clear"), (0.7, "watch"), (1.0, "watch"), (1.01, "stop")]
)
def test_levels_by_use_of_a_limit(use: float, level: str) -> None:
    assert level_of(use) == level


def test_what_is_not_a_number_is_unknown_and_what_is_infinite_is_a_stop() -> None:
    assert level_of(math.nan) == "unknown"
    assert level_of(math.inf) == "stop"


@given(use=st.floats(allow_nan=False))
def test_margins_can_always_be_drawn(use: float) -> None:
    assert -9.99 <= margin_of(use) <= 1.0


def test_the_worst_comes_first_then_what_is_to_do_and_facts_last() -> None:
    order = worst_first(
        (
            as_fact(made("g.fact", "watch", 0.1)),
            replace(made("b.duty", "clear", None), kind=FindingKind.DUTY),
            made("a.clear", "clear", 0.9),
            made("c.watch", "watch", 0.2),
            made("d.unknown", "unknown", None),
            made("e.stop", "stop", -0.5),
            made("f.stop", "stop", -2.0),
        )
    )
    assert [f.id for f in order] == ["f.stop", "e.stop", "d.unknown", "c.watch", "a.clear", "b.duty", "g.fact"]


def test_any_stop_makes_the_plan_a_stop() -> None:
    verdict = verdict_of((made("a.x", "clear", 0.9), made("b.x", "stop", -0.1), made("c.x", "watch", 0.1)))
    assert verdict.level == "stop"
    assert verdict.ruling.id == "b.x"


def test_an_unknown_rules_over_a_watch() -> None:
    verdict = verdict_of((made("a.x", "watch", 0.1), made("b.x", "unknown", None)))
    assert verdict.level == "unknown"


def test_a_plan_that_nothing_stands_against_is_ruled_by_what_is_to_do_and_never_by_a_fact() -> None:
    duties = [replace(made(name, "clear", None), kind=FindingKind.DUTY) for name in ("a.duty", "b.duty")]
    verdict = verdict_of((made("a.x", "clear", 0.9), as_fact(made("b.x", "stop", -1.0)), *duties))
    assert (verdict.level, verdict.duties, verdict.more) == ("clear", 2, 1)
    assert verdict.ruling is duties[0]
    done = tuple(replace(duty, done=Done(duty.id, "", "AB", "today")) for duty in duties)
    verdict = verdict_of((made("a.x", "clear", 0.9), *done))
    assert (verdict.level, verdict.duties, verdict.ruling) == ("clear", 0, None)


def test_ground_and_ways_out_are_said_not_to_be_judged() -> None:
    result = assessed()
    assert finding(result, "way_out.not_judged").level == "unknown"
    assert finding(result, "landing.not_judged").level == "unknown"


@pytest.mark.parametrize(
    ("path", "ids"),
    [
        ({"decay": Decay(kind="unknown")}, {"decay.shell", "decay.hinge"}),
        ({"lean__method": "unknown"}, {"balance.lean"}),
        ({"crack": "unknown"}, {"split.crack"}),
    ],
)
def test_what_was_not_looked_at_is_unknown_and_rules(path: dict[str, object], ids: set[str]) -> None:
    result = assessed(round_tree(lean__angle_deg=1.0, lean__bearing_deg=180.0, **path), bar_m=0.6)
    for name in ids:
        assert finding(result, name).level == "unknown"
    assert result.verdict.level == "unknown"


def test_a_tree_that_was_not_sounded_has_no_shell_ratio_rather_than_a_full_one() -> None:
    parts = assessed(round_tree(decay=Decay(kind="unknown"))).parts
    assert parts.section.shell_ratio is None
    assert parts.section.sound_fraction is None


def test_a_thin_shell_is_a_stop_whatever_else_holds() -> None:
    thin = assessed(round_tree(decay=Decay(kind="cavity", radius_m=0.15)))
    assert finding(thin, "decay.shell").level == "stop"
    assert thin.verdict.level == "stop"


@pytest.mark.parametrize(
    ("changes", "name", "level"),
    [
        ({"face__depth_m": 0.08}, "face.depth", "clear"),
        ({"face__depth_m": 0.10}, "face.depth", "clear"),
        ({"face__depth_m": 0.06}, "face.depth", "fact"),
        ({"face__depth_m": 0.15}, "face.depth", "fact"),
        ({"face__roof_deg": 30.0}, "face.opening", "fact"),
        ({"hinge__left_m": 0.015, "hinge__right_m": 0.015}, "hinge.thickness", "stop"),
        ({"hinge__left_m": 0.03, "hinge__right_m": 0.03}, "hinge.thickness", "fact"),
        ({"back__step_m": 0.0}, "hinge.step", "fact"),
        ({"back__step_m": 0.04}, "hinge.step", "clear"),
        ({"back__step_m": 0.0, "back__form": "bored"}, "hinge.step", "clear"),
    ],
)
def test_the_practice_holds_the_design_against_its_ranges(changes: dict[str, object], name: str, level: str) -> None:
    found = finding(assessed(cut=plain_cut(**changes)), name)
    assert (found.kind if found.kind == "fact" else found.level) == level
    assert found.source == "practice"
    assert found.margin is None or found.kind == "limit"


def test_a_thin_hinge_in_dead_wood_is_not_held_to_the_live_minimum() -> None:
    thin = plain_cut(hinge__left_m=0.015, hinge__right_m=0.015)
    assert finding(assessed(round_tree(condition="dead"), thin), "hinge.thickness").kind == "fact"


def test_the_thicker_end_belongs_away_from_the_weight() -> None:
    heavy_left = round_tree(lean__angle_deg=3.0, lean__bearing_deg=270.0)
    wrong = assessed(heavy_left, plain_cut(hinge__left_m=0.05))
    right = assessed(heavy_left, plain_cut(hinge__right_m=0.05))
    assert wrong.parts.balance.left_m > 0
    assert finding(wrong, "hinge.taper").level == "stop"
    assert not {"hinge.taper", "hinge.uneven"} & finding_ids(right)
    # Told once: by the practice only where the weight is too little to matter.
    assert "hinge.uneven" not in finding_ids(wrong)
    slight = assessed(round_tree(lean__angle_deg=0.3, lean__bearing_deg=270.0), plain_cut(hinge__left_m=0.05))
    assert finding(slight, "hinge.uneven").kind == "fact"


def test_a_bar_that_does_not_reach_takes_two_sides_which_is_a_fact_and_one_far_too_short_is_a_stop() -> None:
    assert "bar.sides" not in finding_ids(assessed(bar_m=0.5))
    both = assessed(bar_m=0.3)
    assert finding(both, "bar.reach").level == "clear"
    assert finding(both, "bar.sides").kind == "fact"
    assert finding(assessed(bar_m=0.15), "bar.reach").level == "stop"
    assert "bar.sides" not in finding_ids(assessed(bar_m=0.15))


def test_boring_needs_room_for_the_bar() -> None:
    tight = assessed(cut=plain_cut(back__form="bored", back__strap_m=0.13), bar_width_m=0.2)
    assert finding(tight, "bar.bore_room").level == "stop"


def test_indicative_relations_are_labelled() -> None:
    result = assessed(round_tree(lean__angle_deg=2.0, lean__bearing_deg=180.0))
    for name in ("split.index", "hinge.side", "hinge.holds", "wedge.drive"):
        assert finding(result, name).indicative


def test_a_tree_that_goes_by_itself_is_clear_on_balance_and_never_worse_for_needing_less_help() -> None:
    leaning = [round_tree(lean__angle_deg=angle, lean__bearing_deg=0.0) for angle in (2.0, 4.0, 8.0)]
    found = [finding(assessed(tree), "balance.over") for tree in leaning]
    assert [each.level for each in found] == ["clear"] * 3
    margins = [each.margin for each in found]
    assert margins == sorted(margins)


def test_a_small_stem_that_does_not_sit_back_is_not_stopped_for_want_of_a_wedge() -> None:
    small = round_tree(trunk__diameter_m=0.16, trunk__butt_diameter_m=0.16, height_m=9.0)
    cut = plain_cut(face__depth_m=0.03, hinge__left_m=0.02, hinge__right_m=0.02)
    result = assessed(small, cut)
    assert not result.parts.balance.sits_back
    assert finding(result, "wedge.fits_first").level != "stop"
    assert not any(f.id == "cut.back" and f.level == "stop" for f in result.findings)


def test_a_kept_corner_is_judged_as_deep_as_it_is_cut() -> None:
    """The corner reaches two straps forward: its area is that of the corner the steps tell one to leave."""
    cut = plain_cut(back__form="corner", back__strap_m=0.06)
    parts = assessed(round_tree(), cut).parts
    whole = behind(parts.section.wood, parts.section.back_m + 0.12)
    high = parts.section.left_m
    area = moments(across(whole, high - 0.12, high), across(whole[:0], high - 0.12, high)).area_m2
    assert parts.splitting.strap_area_m2 == pytest.approx(area, rel=1e-6)


def test_no_step_shows_a_better_sign_than_what_is_put_right_or_told_there() -> None:
    """Fall was green beside *does not go over 5 times in 10*; ground beside a neighbour that holds the crown."""
    over = stated(Limit("balance.over", Group.BALANCE), Level.STOP, phrase("decay.shell.change"), "decay.shell.change")
    hangs = stated(Limit("fall.hangs", Group.LANDING), Level.STOP, phrase("decay.shell.change"), "decay.shell.change")
    rot = stated(Limit("decay.shell", Group.DECAY), Level.WATCH, phrase("decay.shell.change"), "decay.shell.change")
    assert level_at_step((over,), "fall") == level_at_step((over,), "cut") == "stop"
    assert level_at_step((hangs,), "ground") == level_at_step((hangs,), "fall") == "stop"
    assert (level_at_step((rot,), "look"), level_at_step((rot,), "cut")) == ("watch", "unknown")
