"""What was seen, sounded and asked on the walk round, and what the findings make of it."""

from __future__ import annotations

from dataclasses import fields, replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import assessed, finding, finding_ids, plain_cut, round_tree, told
from plain_compass.core.base.errors import InputError
from plain_compass.core.base.levels import LEVELS
from plain_compass.core.judge.places import level_at_step
from plain_compass.core.tree.around import ABOVE, GIVEN, LEAVE, LIFE, SEEN, Around, words_of
from plain_compass.core.tree.butt import Lobe
from plain_compass.core.tree.limbs import Fork, Limb
from plain_compass.core.tree.soundness import Defect, Sounding, beside_cut
from plain_compass.core.tree.tree import Decay

FORKED = Fork(kind="second", union="wide", height_m=2.0, diameter_m=0.2, top_m=12.0)


def sides(*sounds: str) -> tuple[Sounding, ...]:
    return tuple(Sounding(90.0 * number, sound) for number, sound in enumerate(sounds))


@pytest.mark.parametrize("name", [item.name for item in fields(Around) if item.name != "tangled_deg"])
def test_one_unanswered_item_keeps_the_verdict_open_and_is_named(name: str) -> None:
    tree = round_tree()
    result = assessed(replace(tree, around=replace(tree.around, **{name: "unknown"})))
    group = next(key for key, names in (("above", ABOVE), ("life", LIFE), ("leave", LEAVE)) if name in names)
    found = finding(result, f"around.{group}")
    assert found.level == "unknown"
    assert words_of(name) in told(found.sentence)
    assert result.verdict.level in ("unknown", "stop")


def test_a_tree_nobody_walked_round_is_unknown_not_clear() -> None:
    result = assessed(replace(round_tree(), around=Around()))
    assert {finding(result, f"around.{key}").level for key in ("above", "life", "leave")} == {"unknown"}
    assert level_at_step(result.findings, "look") == "unknown"


@pytest.mark.parametrize(
    ("name", "answer", "level"),
    [
        ("hung_pieces", "yes", "stop"),
        ("wires", "yes", "stop"),
        ("nests", "yes", "stop"),
        ("roosts", "yes", "stop"),
        ("leave", "no", "stop"),
        ("licence", "no", "stop"),
        ("dead_limbs", "yes", "watch"),
        ("vines", "yes", "watch"),
        ("people_told", "no", "watch"),
        ("licence", "not needed", "clear"),
    ],
)
def test_answers_against_the_plan_rule_by_how_much_they_matter(name: str, answer: str, level: str) -> None:
    tree = round_tree()
    result = assessed(replace(tree, around=replace(tree.around, **{name: answer})))
    group = next(key for key, names in (("above", ABOVE), ("life", LIFE), ("leave", LEAVE)) if name in names)
    assert finding(result, f"around.{group}").level == level


def test_a_stop_seen_above_is_not_hidden_by_what_is_unanswered() -> None:
    around = replace(Around(), hung_pieces="yes")
    found = finding(assessed(replace(round_tree(), around=around)), "around.above")
    assert found.level == "stop"
    assert "dead limbs above" in told(found.sentence)


def test_a_tangled_crown_says_towards_which_bearing() -> None:
    around = replace(round_tree().around, tangled="yes", tangled_deg=135.0)
    found = finding(assessed(replace(round_tree(), around=around)), "around.above")
    assert "crown tangled towards 135°" in told(found.sentence)


@given(
    st.fixed_dictionaries(
        {name: st.sampled_from(list(SEEN)) for name in (*ABOVE, *LIFE)}
        | {name: st.sampled_from(list(GIVEN)) for name in LEAVE}
    )
)
def test_no_set_of_answers_with_a_gap_is_ever_clear(answers: dict[str, str]) -> None:
    result = assessed(replace(round_tree(), around=Around(**answers)))
    for key, names in (("above", ABOVE), ("life", LIFE), ("leave", LEAVE)):
        if any(answers[name] == "unknown" for name in names):
            assert LEVELS.index(finding(result, f"around.{key}").level) >= LEVELS.index("unknown")


@pytest.mark.parametrize(
    ("union", "level"), [("unknown", "unknown"), ("wide", "clear"), ("tight", "watch"), ("cracked", "stop")]
)
def test_a_fork_is_judged_by_its_union(union: str, level: str) -> None:
    assert finding(assessed(replace(round_tree(), fork=replace(FORKED, union=union))), "fork.union").level == level


def test_a_cracked_union_counts_as_a_crack_for_splitting() -> None:
    whole = assessed(replace(round_tree(), fork=FORKED))
    cracked = assessed(replace(round_tree(), fork=replace(FORKED, union="cracked")))
    assert cracked.parts.splitting.split_index == pytest.approx(2 * whole.parts.splitting.split_index)


def test_a_fork_below_the_cut_adds_no_mass_and_says_that_the_stems_fall_one_by_one() -> None:
    low = replace(FORKED, height_m=0.2)
    alone, beside = assessed(), assessed(replace(round_tree(), fork=low))
    assert beside.parts.mass == alone.parts.mass
    assert finding(beside, "fork.below").level == "watch"


@pytest.mark.parametrize(
    ("sounds", "decay", "level"),
    [
        (("sound",) * 4, "none", "clear"),
        (("sound", "dull", "sound", "sound"), "none", "watch"),
        (("sound", "hollow", "sound", "sound"), "none", "stop"),
        (("sound", "hollow", "sound", "sound"), "cavity", "watch"),
        (("sound", "unknown", "sound", "sound"), "none", "unknown"),
    ],
)
def test_soundings_are_held_against_the_rot_that_is_drawn(sounds: tuple[str, ...], decay: str, level: str) -> None:
    tree = round_tree(decay=Decay(kind=decay, soundings=sides(*sounds)))
    assert finding(assessed(tree), "decay.sounding").level == level


def test_a_bracket_above_sound_wood_is_a_stop_and_above_drawn_rot_a_watch() -> None:
    bracket = (Defect("bracket", 90.0, 1.0),)
    assert finding(assessed(replace(round_tree(), defects=bracket)), "defect.bracket").level == "stop"
    drawn = round_tree(decay=Decay(kind="cavity", radius_m=0.05, top_m=2.0), defects=bracket)
    assert finding(assessed(drawn), "defect.bracket").level == "watch"
    too_low = round_tree(decay=Decay(kind="cavity", radius_m=0.05, top_m=0.8), defects=bracket)
    assert finding(assessed(too_low), "defect.bracket").level == "stop"


@pytest.mark.parametrize("kind", ["crack", "wound", "stain", "metal"])
def test_defects_concern_the_cut_only_when_they_are_near_it(kind: str) -> None:
    near = replace(round_tree(), defects=(Defect(kind, 10.0, 0.5, 0.2),))
    far = replace(round_tree(), defects=(Defect(kind, 10.0, 4.0, 0.2),))
    assert f"defect.{kind}" in finding_ids(assessed(near))
    assert f"defect.{kind}" not in finding_ids(assessed(far))


def test_a_crack_seen_beside_the_cut_halves_the_resistance_to_splitting() -> None:
    tree = round_tree(lean__angle_deg=4.0)
    seen = replace(tree, defects=(Defect("crack", 0.0, 0.5, 1.0),))
    plain, cracked = (assessed(t).parts.splitting.split_index for t in (tree, seen))
    assert cracked == pytest.approx(2 * plain)


LOBES = tuple(Lobe(bearing, 0.10, 0.25) for bearing in (0.0, 90.0, 270.0))


def test_the_flares_to_trim_are_those_that_keep_the_bar_from_crossing() -> None:
    tree = round_tree(lobes=LOBES, trunk__butt_diameter_m=0.52)
    wide = assessed(tree, bar_m=0.42)
    sentence = told(finding(wide, "bar.flare").sentence)
    assert {each for each in ("0°", "90°", "270°") if f" {each}" in sentence} <= {"90°", "270°"}
    assert "°" in sentence
    trimmed = tuple(replace(lobe, state="trimmed") if lobe.bearing_deg != 0.0 else lobe for lobe in LOBES)
    assert "bar.flare" not in finding_ids(assessed(replace(tree, lobes=trimmed), bar_m=0.42))
    assert "bar.flare" not in finding_ids(assessed(tree, bar_m=1.2))


def test_a_bar_too_short_for_the_round_stem_is_not_helped_by_trimming() -> None:
    tree = round_tree(lobes=LOBES, trunk__butt_diameter_m=0.52)
    assert "every buttress trimmed" in told(finding(assessed(tree, bar_m=0.2), "bar.flare").sentence)


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"fork": replace(FORKED, height_m=14.9)}, "tree.fork.height_m"),
        ({"fork": replace(FORKED, top_m=2.2)}, "tree.fork.top_m"),
        ({"limbs": (Limb(0.0, 20.0),)}, "tree.limbs.0.height_m"),
        ({"lobes": tuple(Lobe(b, 0.5, 0.6) for b in range(0, 360, 60))}, "tree.lobes.projection_m"),
    ],
)
def test_what_cannot_stand_is_refused_by_name(changes: dict[str, object], field: str) -> None:
    with pytest.raises(InputError) as caught:
        assessed(replace(round_tree(), **changes))
    assert caught.value.field == field


def test_a_seen_stop_rules_the_verdict_before_any_arithmetic() -> None:
    tree = round_tree(lean__angle_deg=8.0, lean__bearing_deg=180.0, fork=replace(FORKED, union="cracked"))
    result = assessed(tree, plain_cut())
    assert result.verdict.ruling.id == "fork.union"


@pytest.mark.parametrize(
    ("height", "length", "reach", "beside"),
    [
        (1.0, 0.6, 0.4, True),
        (1.0, 0.6, 0.3, False),
        (0.95, 0.8, 0.3, True),
        (0.3, 0.0, 0.0, True),
        (0.0, 0.2, 0.1, False),
    ],
)
def test_a_defect_lies_beside_the_cut_when_its_nearer_end_does(
    height: float, length: float, reach: float, beside: bool
) -> None:
    """It reaches half its length either way of its middle; the cut is 30 cm up."""
    assert beside_cut(Defect("crack", 0.0, height, length), 0.3, reach) is beside
