"""Chances of limits: against whole redraws, by hand where one input rules, and what they do to levels."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import case, finding, plain_cut, round_tree
from plain_compass.core.assess import Assessment, assess, with_chances
from plain_compass.core.judge.chances import (
    CLEAR_BETA,
    SPREAD,
    Chances,
    Spreads,
    below,
    chances_of,
    inputs_of,
    level_of_chance,
    many_shifted,
    shifted,
)
from plain_compass.core.judge.limits import IDS, LIMITS, shares_of
from plain_compass.core.judge.states import STATES
from plain_compass.core.plan.case import Case
from plain_compass.core.site.site import Site
from plain_compass.core.tree.moved import ACROSS, leaning, moved
from plain_compass.core.tree.tree import Decay, Lean
from plain_compass.job.spreads import cutting_spreads, usual_spreads, wood_spreads

DRAWS = 400


def spreads(made: Case) -> Spreads:
    return Spreads(usual_spreads(made.tree), wood_spreads(made.tree.species), cutting_spreads())


def judged(made: Case) -> tuple[Assessment, Chances]:
    chances = chances_of(made, spreads(made))
    return with_chances(assess(made), chances), chances


def standing(**changes: Any) -> Case:
    site = Site(wind_m_s=changes.pop("wind", 0.0), wind_from_deg=20.0)
    cut = plain_cut(**changes.pop("cut", {}))
    kit = changes.pop("kit", {})
    return replace(case(round_tree(**changes), cut, **kit), site=site)


CASES = {
    "back lean": standing(lean__angle_deg=2.0, lean__bearing_deg=180.0),
    "upright": standing(),
    "side weight": standing(lean__angle_deg=7.0, lean__bearing_deg=270.0),
    "near its wedge": standing(
        lean__angle_deg=2.2, lean__bearing_deg=160.0, cut={"goes_on": "wedges"}, kit={"wedge_thickness_m": 0.025}
    ),
    "near the end of its plan": standing(
        lean__angle_deg=4.2, lean__bearing_deg=165.0, kit={"wedge_thickness_m": 0.022, "wedge_length_m": 0.2}
    ),
    "rotten": standing(decay=Decay(kind="cavity", radius_m=0.12), lean__angle_deg=1.0, lean__bearing_deg=90.0),
    "leaner that splits": standing(
        species="ash", height_m=22.0, lean__angle_deg=7.0, trunk__diameter_m=0.5, trunk__butt_diameter_m=0.5
    ),
    "small": standing(
        trunk__diameter_m=0.2, trunk__butt_diameter_m=0.2, height_m=15.0,
        cut={"face__depth_m": 0.045, "hinge__left_m": 0.022, "hinge__right_m": 0.022},
    ),
    "in the wind": standing(lean__angle_deg=1.0, lean__bearing_deg=180.0, wind=4.0),
}  # fmt: skip


def redrawn(made: Case, count: int) -> dict[str, float]:
    """How often each limit fails when everything is drawn anew, whole."""
    widths = inputs_of(made, spreads(made))
    drawn = np.random.default_rng(7).standard_normal((count, len(widths)))
    names = list(widths)
    strong, stiff = names.index("wood.rupture"), names.index("wood.elasticity")
    drawn[:, stiff] = 0.7 * drawn[:, strong] + math.sqrt(1 - 0.49) * drawn[:, stiff]
    rows = [dict(zip(names, (row * list(widths.values())).tolist(), strict=True)) for row in drawn]
    use = np.concatenate(
        [
            shares_of(many_shifted([shifted(made, row) for row in rows[first : first + 100]])).use
            for first in range(0, count, 100)
        ],
        axis=1,
    )
    return dict(zip(IDS, (np.nan_to_num(use) > 1.0).mean(axis=1).tolist(), strict=True))


@pytest.mark.parametrize("name", CASES)
def test_a_chance_is_how_often_the_limit_fails_when_everything_is_drawn_anew(name: str) -> None:
    """Within a factor of 1.5 or 0.02, and what so many draws leave open themselves (two standard errors)."""
    made = CASES[name]
    _, chances = judged(made)
    counted = redrawn(made, DRAWS)
    for id in chances.ways:
        told, is_so = chances.chance(id), counted[id]
        open_by = 2.0 * math.sqrt(max(is_so * (1 - is_so), 1.0 / DRAWS) / DRAWS)
        assert told <= 1.5 * (is_so + open_by) + 0.02, (id, told, is_so)
        assert told >= (is_so - open_by) / 1.5 - 0.02, (id, told, is_so)


def test_where_one_input_rules_the_chance_is_that_of_a_normal_variable() -> None:
    made = CASES["rotten"]
    shell = chances_of(made, Spreads({"tree.decay.radius_m": 0.01}))
    plain = shares_of(many_shifted([shifted(made, {})])).use[IDS.index("decay.shell"), 0]
    moved_up = shares_of(many_shifted([shifted(made, {"tree.decay.radius_m": 0.01})])).use[IDS.index("decay.shell"), 0]
    assert shell.beta("decay.shell") == pytest.approx(-math.log(plain) / math.log(moved_up / plain), rel=1e-9)
    assert shell.chance("decay.shell") == pytest.approx(below(-shell.beta("decay.shell")))


def test_nothing_unknown_is_no_chance_and_a_limit_already_past_is_certain() -> None:
    sure = chances_of(CASES["upright"], Spreads())
    assert all(sure.chance(id) == 0.0 for id in sure.ways)
    past = chances_of(standing(lean__angle_deg=30.0, lean__bearing_deg=180.0), Spreads())
    assert past.chance("balance.over") == 1.0


def test_rupture_and_elasticity_of_one_tree_go_together() -> None:
    made = CASES["leaner that splits"]
    both = chances_of(made, Spreads(wood={"rupture": 0.16, "elasticity": 0.22}))
    strong, stiff = (
        both.ways["split.index"][0].slopes[both.inputs.index(f"wood.{n}")] for n in ("rupture", "elasticity")
    )
    apart = math.hypot(strong, stiff)
    assert both.ways["split.index"][0].spread ** 2 == pytest.approx(apart**2 + 2 * 0.7 * strong * stiff)
    assert strong * stiff < 0  # a stronger tree splits more, a stiffer one less: together they ease one another


@settings(max_examples=25, deadline=None)
@given(grows=st.floats(1.2, 4.0), name=st.sampled_from(("back lean", "near its wedge", "leaner that splits")))
def test_a_worse_measured_tree_is_never_surer(grows: float, name: str) -> None:
    made = CASES[name]
    here = spreads(made)
    wider = Spreads({path: grows * spread for path, spread in here.measured.items()}, here.wood, here.cutting)
    one, other = chances_of(made, here), chances_of(made, wider)
    for id in ("split.index", "balance.over"):
        if 0 < one.beta(id) < 5:
            assert other.beta(id) <= one.beta(id) + 0.15


def test_side_weight_counts_to_either_side() -> None:
    """Of an upright tree, whose weight may hang left or right alike, the chance is that of both."""
    weak = standing(cut={"hinge__left_m": 0.02, "hinge__right_m": 0.02}, height_m=30.0)
    chances = chances_of(weak, Spreads({f"tree.{ACROSS}": 4.0}))
    left, right = chances.ways["hinge.side"]
    assert chances.chance("hinge.side") == pytest.approx(below(-left.beta) + below(-right.beta))
    assert left.beta == pytest.approx(right.beta, rel=0.05)


def test_shares_of_the_spread_add_up_to_all_of_it() -> None:
    _, chances = judged(CASES["back lean"])
    for id, (nearest, *_) in chances.ways.items():
        if nearest.spread > 0:
            assert sum(chances.shares(id).values()) == pytest.approx(1.0)


@pytest.mark.parametrize(
    ("chance", "use", "level"),
    [(0.0, 0.99, "clear"), (0.0199, 0.5, "clear"), (0.02, 0.5, "watch"), (0.2, 0.9, "watch"), (0.21, 0.9, "stop"),
     (0.0, 1.01, "stop")],
)  # fmt: skip
def test_levels_by_chance(chance: float, use: float, level: str) -> None:
    assert level_of_chance(chance, use) == level
    assert below(-CLEAR_BETA) == pytest.approx(0.02)


def test_a_finding_carries_its_chance_its_index_and_a_spread_that_reaches_the_limit_at_it() -> None:
    result, chances = judged(CASES["near its wedge"])
    over = finding(result, "balance.over")
    assert over.chance == chances.chance("balance.over") > 0.02
    assert over.beta == chances.beta("balance.over")
    assert over.use + over.beta * over.spread == pytest.approx(1.0)
    assert over.level == level_of_chance(over.chance, over.use)


def test_in_a_drag_the_chances_of_before_are_told_as_still_to_be_reckoned() -> None:
    made = CASES["back lean"]
    chances = chances_of(made, spreads(made))
    result = with_chances(assess(made), chances, is_pending=True)
    assert finding(result, "balance.over").is_pending
    assert not finding(result, "hinge.thickness").is_pending


def test_every_limit_either_has_a_chance_or_is_one_that_holds_or_does_not() -> None:
    assert set(SPREAD) == {id for id, kind in LIMITS.items() if not kind.is_hard}
    assert set(STATES) <= set(SPREAD)


def test_states_of_their_own_fall_through_zero_with_their_share() -> None:
    """Where a share passes its limit its state changes its sign."""
    for angle in np.linspace(0.0, 12.0, 25).tolist():
        for bearing in (0.0, 90.0, 180.0, 200.0):
            many = many_shifted([shifted(standing(lean__angle_deg=angle, lean__bearing_deg=bearing), {})])
            use = dict(zip(IDS, shares_of(many).use[:, 0].tolist(), strict=True))
            for id, state in STATES.items():
                if not math.isnan(use[id]) and abs(use[id] - 1.0) > 0.02:
                    assert (min(way[0] for way in state(many)) < 0) == (use[id] > 1.0), (id, angle, bearing, use[id])


def test_a_lean_moved_across_leans_more_and_elsewhere() -> None:
    lean = leaning(Lean(angle_deg=3.0, bearing_deg=350.0), 0.0, 4.0)
    assert lean.angle_deg == pytest.approx(5.0)
    assert lean.bearing_deg == pytest.approx(350.0 + math.degrees(math.atan2(4, 3)) - 360.0)
    over = leaning(Lean(angle_deg=1.0, bearing_deg=10.0), -3.0, 0.0)
    assert (over.angle_deg, over.bearing_deg) == (pytest.approx(2.0), pytest.approx(190.0))
    tree = round_tree(lean__angle_deg=0.0, lean__bearing_deg=0.0)
    assert moved(tree, ACROSS, 2.0).lean.bearing_deg == pytest.approx(90.0)


def test_a_slope_keeps_its_sense_on_whichever_side_it_was_taken() -> None:
    """More lean ahead helps and more lean back harms, and both are followed on the side on which the limit fails."""
    for bearing, sense in ((0.0, 1.0), (180.0, -1.0)):
        made = standing(lean__angle_deg=0.4, lean__bearing_deg=bearing)
        chances = chances_of(made, Spreads({"tree.lean.angle_deg": 0.7}))
        (way,) = chances.ways["balance.over"]
        assert way.slopes[0] * sense > 0
