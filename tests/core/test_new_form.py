"""A form of cut is one file, one line and its words: a made-up one goes through without anybody knowing its name."""

from __future__ import annotations

import ast
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtWidgets import QComboBox

import plain_compass
from builders import case, finding_ids, round_tree, told
from plain_compass.app.frame.window import Window
from plain_compass.core import cuts
from plain_compass.core.assess import assess
from plain_compass.core.base.phrase import phrase
from plain_compass.core.cuts.form import Band, Bands, CutForm, CutStep
from plain_compass.core.cuts.plain_back import CRACK
from plain_compass.core.cuts.shapes import GOOD, hinge_bands
from plain_compass.core.cuts.stages import stages_of, sweep_of
from plain_compass.core.design import cut as design
from plain_compass.core.design.cut import BackCut
from plain_compass.core.design.traits import BackTraits, KeptPiece, Marker, Notch, Standing
from plain_compass.core.plan.case import Planned
from plain_compass.core.tree.section import Section
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.edits import set_value, take_form
from plain_compass.job.words import sentences

PACKAGE = Path(plain_compass.__file__).parent
OUTER_m = 0.06


def _kept(section: Section, _notch: Notch, back: BackCut, _hinge: Standing) -> tuple[KeptPiece, ...]:
    """Two tabs, one at either side of the back."""
    half, edge = section.width_m / 2, section.back_m + back.kept_m
    return ((half - OUTER_m, half, edge), (-half, OUTER_m - half, edge))


def _marks(marker: Marker, section: Section, _notch: Notch, back: BackCut, _rear_m: float) -> None:
    marker.line("strap_edge", section.back_m + back.kept_m)


def _steps(result: Planned, _: Bands) -> tuple[CutStep, ...]:
    hinge, section, back = hinge_bands(result), result.parts.section, result.case.cut.back
    tabs = tuple(Band(*piece[:2], section.back_m, 0.0, piece[2], 0.0) for piece in _kept(section, None, back, None))  # type: ignore[arg-type]
    do, stand, look = phrase("cut.back.twin.do"), "cut.back.twin.stand", "cut.back.twin.look"
    return (
        CutStep("tabs", "cut.back.twin.tabs", do, stand, look, CRACK, lambda _: (*hinge, *tabs)),
        CutStep("free", "cut.back.twin.free", do, stand, look, CRACK, lambda _: hinge, releases=True),
    )


WORDS = {
    "cut.back.twin.name": "twin tabs",
    "cut.back.twin.purpose": "Made up for a test.",
    "cut.back.twin.drill": "One tab thinner than the other.",
    "cut.back.twin.tab": "tab",
    "cut.back.twin.do": "Bore through and leave a tab on either side of the [hinge].",
    "cut.back.twin.stand": "Beside the stem.",
    "cut.back.twin.look": "Both tabs.",
    "cut.back.twin.tabs": "Tabs",
    "cut.back.twin.free": "Free",
}


TWIN = CutForm(
    "twin",
    "back",
    lambda _: GOOD,
    lambda whole: replace(whole.cut, back=replace(whole.cut.back, form="twin", strap_m=0.1)),
    _steps,
    traits=BackTraits("twin tabs", held=True, keeps_back=True, bored=True, kept=_kept, marks=_marks),
    fields=("cut.back.strap_m",),
    labels={"cut.back.strap_m": "cut.back.twin.tab"},
)


@pytest.fixture(autouse=True)
def twin() -> Iterator[CutForm]:
    cuts.add_form(TWIN)
    sentences().update(WORDS)
    yield TWIN
    for key in WORDS:
        del sentences()[key]
    for table in (cuts.forms(), design.BACKS, design.BACK_FORMS):
        for key in ("twin", ("back", "twin")):
            table.pop(key, None)  # type: ignore[attr-defined]


def test_it_is_assessed_with_what_it_keeps_and_marked_with_its_own_marks() -> None:
    whole = case(round_tree(lean__angle_deg=4.0, lean__bearing_deg=0.0))
    result = assess(replace(whole, cut=TWIN.design(whole)))
    # Two tabs of 6 cm and 10 cm deep at most, on a stem 40 cm wide: less than a strap right across.
    area = result.parts.splitting.strap_area_m2
    strapped = assess(replace(whole, cut=replace(whole.cut, back=replace(whole.cut.back, form="bored", strap_m=0.1))))
    assert area is not None and 0 < area < (strapped.parts.splitting.strap_area_m2 or 0)
    assert "bar.nick" in finding_ids(result)
    assert "strap_edge" in {mark.key for mark in result.tape_marks}


def test_it_is_walked_through_and_swept() -> None:
    whole = case(round_tree(lean__angle_deg=4.0, lean__bearing_deg=0.0))
    result = assess(replace(whole, cut=TWIN.design(whole)))
    titles = [told(stage.step.title) for stage in stages_of(result) if stage.step]
    assert titles[-2:] == ["Tabs", "Free"]
    assert sweep_of(result).states.standing.shape == sweep_of(result).progress.shape


def test_it_is_chosen_typed_and_drawn_in_the_window(window: Window) -> None:
    window.show_step("cut")
    job = take_form(window.store.snapshot.job, "WH-07", "back", "twin")
    assert window.store.change("twin tabs", lambda _: job)
    box = window.page.findChild(QComboBox, "form:back")
    assert isinstance(box, QComboBox)
    assert window.store.snapshot.plan.cut.back.form == "twin"
    for step in ("cut", "stages", "fall", "card"):
        window.show_step(step)
        assert not window.grab().isNull()


def test_a_file_may_name_it_and_the_check_knows_it() -> None:
    job = set_value(demo_job(), "WH-07", "cut.back.form", "twin")
    assert assess_tree(job, "WH-07").findings


# Nobody asks -------------------------------------------------------------------------------------------------


SHARED = ("__init__.py", "form.py", "shapes.py", "faces.py", "posts.py", "sequence.py", "stages.py")
"""What lies beside the forms in their folder and serves them all."""


def _asked(tree: ast.AST) -> Iterator[int]:
    """Lines on which a form is compared with a name."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr == "get":
            # A table of names looked up by a form is the same question.
            if any(isinstance(each, ast.Attribute) and each.attr == "form" for each in node.args):
                yield node.lineno
            continue
        if not isinstance(node, ast.Compare):
            continue
        sides = [node.left, *node.comparators]
        form = any(isinstance(side, ast.Attribute) and side.attr == "form" for side in sides)
        if form and any(isinstance(each, ast.Constant | ast.Tuple) for each in sides):
            yield node.lineno


def test_nobody_outside_the_forms_asks_for_a_forms_name() -> None:
    found = [
        f"{path.relative_to(PACKAGE)}:{line}"
        for path in sorted(PACKAGE.rglob("*.py"))
        if PACKAGE / "core" / "cuts" not in path.parents or path.name in SHARED
        for line in _asked(ast.parse(path.read_text()))
    ]
    assert not found


def test_the_search_would_see_one() -> None:
    assert list(_asked(ast.parse('if cut.back.form == "bored": pass')))
    assert list(_asked(ast.parse('own = {"bored": 1}.get(cut.back.form)')))
    assert list(_asked(ast.parse('x = cut.back.form in ("bored", "corner")')))
    assert not list(_asked(ast.parse("x = form.key == other.key")))
