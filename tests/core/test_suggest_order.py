"""Which design is suggested first: what people there are used to, as long as it holds with enough to spare."""

from __future__ import annotations

from dataclasses import replace

import pytest

from builders import case, round_tree
from plain_compass.core.advice.begin import begun
from plain_compass.core.advice.suggest import suggest
from plain_compass.core.assess import Assessment, assess
from plain_compass.core.base.levels import FindingKind
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.edits import set_value


@pytest.mark.parametrize(("lean_deg", "towards_deg"), [(1.0, 0.0), (2.5, 0.0), (2.0, 40.0), (0.0, 0.0)])
def test_the_practices_own_design_comes_first_as_drawn_though_another_has_more_to_spare(
    lean_deg: float, towards_deg: float
) -> None:
    tree = case(round_tree(lean__angle_deg=lean_deg, lean__bearing_deg=towards_deg))
    found = suggest(assess(tree))
    assert found is not None
    first = found.best[0]
    assert first.is_own and not first.watched
    assert first.cut == begun(tree)


def test_it_gives_way_where_something_is_to_watch_that_another_design_has_not() -> None:
    drawn = assess_tree(set_value(demo_job(), "WH-18", "cut.goes_on", "wedges"), "WH-18")
    own = assess(replace(drawn.case, cut=begun(drawn.case)))
    found = suggest(drawn)
    assert found is not None
    first = found.best[0]
    assert not first.is_own and not first.watched
    assert _troubles(own) - _troubles(first.result)


def _troubles(result: Assessment) -> set[str]:
    return {f.id for f in result.findings if f.kind is FindingKind.LIMIT and f.level in ("watch", "stop")}
