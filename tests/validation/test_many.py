"""Many cases at once against each of them alone: forms, sections, ropes, winds and neighbours mixed in one batch."""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import case, round_tree
from plain_compass.core.assess import assess, assess_many
from plain_compass.core.base.errors import InputError
from plain_compass.core.cuts import PARTS, form_of, forms
from plain_compass.core.design.cut import WedgeSeat
from plain_compass.core.judge.limits import IDS, shares_of
from plain_compass.core.plan.case import Case
from plain_compass.core.plan.many import alone, many_of
from plain_compass.core.site.rigging import Rope
from plain_compass.core.site.site import Obstacle, Place, Site
from plain_compass.core.tree.butt import Lobe
from plain_compass.core.tree.tree import Decay, Tree

LOBES = tuple(Lobe(bearing_deg=b, projection_m=0.08, width_m=0.25, top_m=1.2) for b in (20.0, 120.0, 220.0, 320.0))
GROUND = Site(
    name="Withy Holm",
    obstacles=(Obstacle(kind="tree", points=(Place(6.0, 5.0),), radius_m=3.0, height_m=14.0, base_m=4.0),),
    slope_deg=8.0,
    downhill_deg=70.0,
    wind_m_s=4.0,
    wind_from_deg=200.0,
)
ROPE = Rope(use="set", attached_m=8.0, anchor=Place(20.0, 15.0), hauler=Place(25.0, 2.0), haul_N=3000.0)
ROTS = (
    Decay(kind="none"),
    Decay(kind="unknown"),
    Decay(kind="cavity", offset_m=0.05, bearing_deg=110.0, radius_m=0.07),
)
OF_PART = {part: st.sampled_from(sorted(key for own, key in forms() if own == part)) for part in PARTS}


@st.composite
def trees(draw: st.DrawFn) -> Tree:
    decay = draw(st.sampled_from(ROTS))
    return round_tree(
        lobes=draw(st.sampled_from(((), LOBES))),
        decay=decay,
        lean__angle_deg=draw(st.floats(0.0, 8.0)),
        lean__bearing_deg=draw(st.floats(0.0, 359.0)),
        trunk__diameter_m=draw(st.sampled_from((0.4, 0.55))),
        trunk__butt_diameter_m=draw(st.sampled_from((0.4, 0.6))),
        condition=draw(st.sampled_from(("live", "dead"))),
    )


@st.composite
def cases(draw: st.DrawFn) -> Case:
    whole = replace(case(draw(trees())), site=GROUND, rope=draw(st.sampled_from((Rope(), ROPE))))
    wedges = draw(st.sampled_from(((), (WedgeSeat(0.0),), (WedgeSeat(40.0, 2), WedgeSeat(-35.0), WedgeSeat(10.0)))))
    overcut = draw(st.sampled_from((0.0, 0.02)))
    lay = draw(st.floats(0.0, 359.0))
    for part in PARTS:
        whole = replace(whole, cut=form_of(part, draw(OF_PART[part])).design(whole))
    cut = whole.cut
    hinge = replace(cut.hinge, left_m=draw(st.floats(0.015, 0.05)), middle_m=draw(st.sampled_from((0.0, 0.01))))
    return replace(
        whole, cut=replace(cut, lay_deg=lay, wedges=wedges, hinge=hinge, face=replace(cut.face, overcut_m=overcut))
    )


def fits(one: Case) -> bool:
    try:
        assess(one)
    except InputError:
        return False
    return True


def same(one: Any, other: Any, where: str) -> None:
    """Alike to a thousand-millionth, text and tuples to the letter."""
    if is_dataclass(one) and not isinstance(one, type):
        for item in fields(one):
            same(getattr(one, item.name), getattr(other, item.name), f"{where}.{item.name}")
    elif isinstance(one, tuple):
        assert len(one) == len(other), where
        for index, (a, b) in enumerate(zip(one, other, strict=True)):
            same(a, b, f"{where}[{index}]")
    elif isinstance(one, float | np.ndarray):
        assert np.asarray(one) == pytest.approx(np.asarray(other), rel=1e-9, abs=1e-9, nan_ok=True), where
    else:
        assert one == other, where


@settings(max_examples=20)
@given(st.lists(cases().filter(fits), min_size=2, max_size=5))
def test_many_cases_are_each_of_them_alone(some: list[Case]) -> None:
    together = many_of(some)
    for row, one in enumerate(some):
        single, mine = alone(one).parts(0), together.parts(row)
        for item in fields(single):
            if item.name != "section":
                same(getattr(mine, item.name), getattr(single, item.name), item.name)


@settings(max_examples=20)
@given(st.lists(cases().filter(fits), min_size=2, max_size=5))
def test_limits_of_many_cases_are_those_of_each_alone(some: list[Case]) -> None:
    together = shares_of(many_of(some))
    for row, one in enumerate(some):
        uses = shares_of(alone(one)).use[:, 0]
        for place, id in enumerate(IDS):
            same(together.use[place, row], uses[place], id)


@settings(max_examples=10)
@given(st.lists(cases(), min_size=1, max_size=4))
def test_findings_of_many_cases_are_those_of_each_alone(some: list[Case]) -> None:
    """To the letter and the level; a case whose cut does not fit has no assessment among the others either."""
    for one, found in zip(some, assess_many(some), strict=True):
        if not fits(one):
            assert found is None
            continue
        assert found is not None
        apart = assess(one)
        assert {f.id: (f.level, f.sentence.key) for f in found.findings} == {
            f.id: (f.level, f.sentence.key) for f in apart.findings
        }


def test_a_limit_that_is_not_asked_has_no_share() -> None:
    uses = shares_of(alone(case())).at(0)
    assert "split.strap" not in uses and "rope.pull" not in uses and "face.overcut" not in uses
    assert {"balance.over", "hinge.side", "split.index", "bar.reach"} <= set(uses)


def test_the_ruling_limit_has_the_least_margin_of_all_that_are_asked() -> None:
    shares = shares_of(alone(case()))
    ruled, margin = shares.ruling()
    uses = shares.at(0)
    assert margin[0] == pytest.approx(1.0 - max(uses.values()))
    assert uses[IDS[int(ruled[0])]] == max(uses.values())
    without = shares.ruling_at(0, leaving_out=(IDS[int(ruled[0])],))
    assert without[0] != int(ruled[0]) and without[1] >= margin[0]
