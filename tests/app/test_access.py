"""Every step by keyboard, by screen reader, by finger, with large type and with weak eyes."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QAccessible, QColor, QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QPlainTextEdit,
    QScrollArea,
    QScrollBar,
    QWidget,
)

from plain_compass.app import text_size
from plain_compass.app.drawing.palette import DARK, LIGHT, PRINTED, Palette
from plain_compass.app.frame.drawing_view import DrawingView
from plain_compass.app.frame.painted import PaintedView
from plain_compass.app.frame.told import verdict_on
from plain_compass.app.frame.window import Window
from plain_compass.core.base.levels import GROUPS, Level

STEPS = ("look", "ground", "cut", "stages", "fall", "card")
FINGER_PX = 32
CONTRAST = 4.5
"""Of text and of every sign against what it stands on."""


def open_step(window: Window, step: str) -> QWidget:
    window.commands.run(f"step.{step}")
    window.falls.finish()
    for _ in range(5):
        QApplication.processEvents()
    page = window.stack.currentWidget()
    assert page is not None
    return page


def shown(whole: QWidget) -> Iterator[QWidget]:
    """Everything one can look at or go to, but for parts of controls that Qt makes for itself."""
    for widget in whole.findChildren(QWidget):
        if widget.isVisible() and not widget.objectName().startswith("qt_") and not isinstance(widget, QScrollBar):
            yield widget


def spoken(widget: QWidget) -> tuple[str, str]:
    """Name and description as a screen reader is told them."""
    told = QAccessible.queryAccessibleInterface(widget)
    assert told is not None
    return told.text(QAccessible.Text.Name), told.text(QAccessible.Text.Description)


def is_reached(widget: QWidget) -> bool:
    return bool(widget.focusPolicy() & Qt.FocusPolicy.TabFocus) and widget.isEnabled()


@pytest.mark.parametrize("step", STEPS)
def test_a_screen_reader_is_told_a_name_of_everything_and_no_two_fields_are_called_the_same(
    window: Window, step: str
) -> None:
    open_step(window, step)
    for face in range(3):
        window.side.show_face(face)
        QApplication.processEvents()
        fields: dict[str, QWidget] = {}
        for widget in shown(window):
            is_drawing = isinstance(widget, DrawingView | PaintedView)
            if not (is_drawing or widget.focusPolicy() != Qt.FocusPolicy.NoFocus):
                continue
            name, description = spoken(widget)
            about = f"{type(widget).__name__} {widget.objectName()}"
            assert name, f"{about} has no name"
            assert "<" not in name + description or "<" in widget.toolTip(), f"{about} is read out with its marks"
            if isinstance(widget, QLineEdit | QPlainTextEdit) and not isinstance(widget.parentWidget(), QComboBox):
                assert name not in fields or fields[name].objectName() == widget.objectName(), f"two fields {name!r}"
                fields[name] = widget


@pytest.mark.parametrize("step", STEPS)
def test_what_is_typed_or_chosen_beside_a_label_has_it_as_its_own(window: Window, step: str) -> None:
    """On this desktop a choice is read out by its text: its label, or its description, says what is chosen."""
    page = open_step(window, step)
    window.store.set("cut.back.form", "bored", "bored")
    for face in range(3):
        window.side.show_face(face)
        QApplication.processEvents()
        named = {label.buddy() for label in window.findChildren(QLabel) if label.buddy() is not None}
        for widget in shown(window):
            on_drawing = isinstance(widget.parentWidget(), DrawingView | QComboBox)
            if isinstance(widget, QLineEdit | QComboBox) and not on_drawing:
                told = widget in named or spoken(widget)[1]
                assert told, f"{type(widget).__name__} {widget.objectName()} {widget.accessibleName()}"
    assert page.isVisible()


@pytest.mark.parametrize("step", STEPS)
def test_every_drawing_says_its_verdict_in_a_sentence(window: Window, step: str) -> None:
    page = open_step(window, step)
    snapshot = window.store.snapshot
    for widget in shown(page):
        if not isinstance(widget, DrawingView | PaintedView):
            continue
        _, description = spoken(widget)
        assert description.endswith("."), widget.accessibleName()
        if widget.tells_of:
            assert description.startswith(verdict_on(snapshot, widget.tells_of)), widget.accessibleName()


def test_what_a_drawing_says_is_the_worst_of_what_it_is_about_and_follows_the_plan(window: Window) -> None:
    page = open_step(window, "cut")
    plan = next(view for view in shown(page) if view.accessibleName() == "Stump from above")
    before = plan.accessibleDescription()
    window.store.set("cut.hinge.left_m", 0.002, "too thin")
    after = plan.accessibleDescription()
    assert after != before and after.lower().startswith(("stop", "indicative, stop"))
    worst = next(f for f in window.store.snapshot.result.findings if f.level == Level.STOP and f.group in plan.tells_of)  # type: ignore[attr-defined]
    assert window.store.snapshot.speech.phrase(worst.sentence) in after
    assert verdict_on(window.store.snapshot, ()) == "Clear by what is known and drawn: ."


def test_unknown_is_never_told_as_clear(window: Window) -> None:
    window.commands.run("tree.add")
    snapshot = window.store.snapshot
    told = [verdict_on(snapshot, (group,)) for group in GROUPS]
    assert all(not each.startswith("Clear") for each in told if "not measured" in each or "ot looked" in each)
    assert not verdict_on(snapshot, GROUPS).startswith("Clear")


@pytest.mark.parametrize("step", STEPS)
def test_what_a_finger_goes_for_is_large_enough(window: Window, step: str) -> None:
    open_step(window, step)
    for face in range(3):
        window.side.show_face(face)
        QApplication.processEvents()
        for widget in shown(window):
            if isinstance(widget, QAbstractButton | QComboBox | QLineEdit | QCheckBox):
                about = (type(widget).__name__, widget.objectName(), widget.accessibleName())
                assert widget.height() >= FINGER_PX and widget.width() >= FINGER_PX, about


@pytest.mark.parametrize("step", STEPS)
def test_tab_reaches_every_control_of_a_step_and_shows_where_it_is(window: Window, step: str) -> None:
    page = open_step(window, step)
    wanted = {widget for widget in shown(page) if is_reached(widget)}
    first = next(iter(wanted))
    first.setFocus(Qt.FocusReason.TabFocusReason)
    met: list[QWidget] = []
    for _ in range(400):
        focused = QApplication.focusWidget()
        assert focused is not None
        if met and focused is met[0]:
            break
        met.append(focused)
        QTest.keyClick(focused, Qt.Key.Key_Tab)
    missed = [
        f"{type(each).__name__} {each.objectName()}" for each in wanted - set(met) if not isinstance(each, QScrollArea)
    ]
    assert not missed


@pytest.mark.parametrize("step", STEPS)
def test_the_focus_is_seen(window: Window, step: str) -> None:
    page = open_step(window, step)
    for widget in [each for each in shown(page) if is_reached(each) and not isinstance(each, QScrollArea)]:
        window.setFocus()
        page.setFocus()
        QApplication.processEvents()
        without = widget.grab().toImage()
        widget.setFocus(Qt.FocusReason.TabFocusReason)
        QApplication.processEvents()
        if widget.hasFocus():
            assert differs(without, widget.grab().toImage()), f"{type(widget).__name__} {widget.accessibleName()}"


def differs(one: QImage, other: QImage) -> bool:
    return one != other


def luminance(colour: str) -> float:
    """Relative luminance as the web's guidelines for access define it."""
    parts = [QColor(colour).redF(), QColor(colour).greenF(), QColor(colour).blueF()]
    linear = [each / 12.92 if each <= 0.03928 else ((each + 0.055) / 1.055) ** 2.4 for each in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one: str, other: str) -> float:
    lighter, darker = sorted((luminance(one), luminance(other)), reverse=True)
    return (lighter + 0.05) / (darker + 0.05)


def test_contrast_of_black_on_white_is_the_most_there_is() -> None:
    assert contrast("#000000", "#FFFFFF") == pytest.approx(21.0)
    assert contrast("#777777", "#FFFFFF") == pytest.approx(4.48, abs=0.01)


@pytest.mark.parametrize("palette", [LIGHT, DARK, PRINTED], ids=["light", "dark", "printed"])
def test_everything_that_is_read_stands_out_from_what_it_is_on(palette: Palette) -> None:
    for ground in (palette.paper, palette.sheet, palette.cut):
        for text in (palette.ink, palette.quiet, palette.lay, palette.load, palette.wedge, palette.focus):
            assert contrast(text, ground) >= CONTRAST, (text, ground)
    assert contrast(palette.sheet, palette.focus) >= CONTRAST, "what is picked in a list"


def test_type_grows_with_the_desktops_and_no_further_than_twice() -> None:
    sizes = [8.0, 9.0, 11.0, 13.0, 16.5, 22.0, 40.0]
    grown = [text_size.growth(size) for size in sizes]
    assert grown[:3] == [1.0, 1.0, 1.0] and grown[4] == 1.5 and grown[5:] == [2.0, 2.0]
    assert all(one <= other for one, other in pairwise(grown))


@pytest.mark.parametrize("step", STEPS)
def test_on_a_small_screen_one_scrolls_and_tab_brings_what_it_reaches_into_sight(window: Window, step: str) -> None:
    """Twice as large type on a common screen leaves 960 by 540: everything keeps its size and is scrolled to."""
    page = open_step(window, step)
    window.resize(960, 540)
    QApplication.processEvents()
    area = window.findChild(QScrollArea, "around")
    assert isinstance(area, QScrollArea)
    assert area.horizontalScrollBar().maximum() > 0 and area.verticalScrollBar().maximum() > 0
    assert page.width() >= 700
    for widget in [each for each in shown(page) if isinstance(each, QLineEdit)]:
        widget.setFocus(Qt.FocusReason.TabFocusReason)
        QApplication.processEvents()
        seen = widget.visibleRegion().boundingRect()
        assert seen.height() >= min(widget.height(), 20), widget.accessibleName()
