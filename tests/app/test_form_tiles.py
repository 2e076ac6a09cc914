"""The table of cuts as tiles: each form on this very tree, told by sign and word, taken by mouse or keyboard."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from plain_compass.app.frame.window import Window
from plain_compass.app.steps.cut.form_choice import FormChoice
from plain_compass.app.steps.cut.page import CutPage
from plain_compass.app.steps.cut.tiles import FormTiles
from plain_compass.core.cuts import PARTS, forms_of


def opened(window: Window, part: str) -> tuple[FormChoice, FormTiles]:
    QTest.keyClick(window, Qt.Key.Key_3)
    page = window.page
    assert isinstance(page, CutPage)
    choice = page.choices[list(PARTS).index(part)]
    choice.showPopup()
    return choice, choice.tiles


@pytest.mark.parametrize("part", ["face", "hinge", "back"])
@pytest.mark.parametrize("tree_id", ["WH-07", "WH-21", "WH-24"])
def test_there_is_a_tile_for_every_form_and_it_says_whether_it_fits(window: Window, part: str, tree_id: str) -> None:
    window.store.look_at(tree_id)
    _, tiles = opened(window, part)
    told = {tile.form.key: tile.level for tile in tiles.tiles}
    assert told == {form.key: form.fits(window.store.snapshot.result).level for form in forms_of(part)}
    assert [tile.form.key for tile in tiles.tiles if tile.is_now] == [window.store.snapshot.value(f"cut.{part}.form")]
    assert all(tile.accessibleName().endswith(tile.level) for tile in tiles.tiles)
    tiles.grab()
    tiles.close()


def test_a_form_is_drawn_as_it_begins_on_this_tree_and_unlike_forms_unlike(window: Window) -> None:
    _, tiles = opened(window, "back")
    solids = {tile.form.key: tile.solid for tile in tiles.tiles}
    plain, bored = solids["plain"], solids["bored"]
    assert plain is not None
    assert bored is not None
    assert "held behind" in bored.places
    assert "held behind" not in plain.places
    tiles.close()


def test_arrows_and_enter_take_a_form_over_and_undo_brings_the_other_back(window: Window) -> None:
    _, tiles = opened(window, "hinge")
    before = window.store.snapshot.plan.cut
    at = next(number for number, tile in enumerate(tiles.tiles) if tile.is_now)
    other = tiles.tiles[at + 1] if at + 1 < len(tiles.tiles) else tiles.tiles[at - 1]
    QTest.keyClick(tiles.tiles[at], Qt.Key.Key_Right if at + 1 < len(tiles.tiles) else Qt.Key.Key_Left)
    assert tiles.focusWidget() is other
    key = other.form.key
    QTest.keyClick(other, Qt.Key.Key_Return)
    assert window.store.snapshot.plan.cut.hinge.form == key
    window.store.undo()
    assert window.store.snapshot.plan.cut == before


def test_a_click_takes_one_escape_takes_none(window: Window) -> None:
    _, tiles = opened(window, "back")
    QTest.keyClick(tiles.tiles[0], Qt.Key.Key_Escape)
    assert window.store.snapshot.plan.cut.back.form == "plain"
    _, tiles = opened(window, "back")
    bored = next(tile for tile in tiles.tiles if tile.form.key == "bored")
    QTest.mouseClick(bored, Qt.MouseButton.LeftButton)
    assert window.store.snapshot.plan.cut.back.form == "bored"


def test_a_specialist_form_is_not_taken_before_its_statement_was_read(window: Window) -> None:
    choice, tiles = opened(window, "back")
    asked = []
    choice.ask = lambda _, form, __: asked.append(form.key) is not None
    special = next(tile for tile in tiles.tiles if tile.form.specialist)
    key = special.form.key
    QTest.mouseClick(special, Qt.MouseButton.LeftButton)
    assert asked == [key]
    assert window.store.snapshot.plan.cut.back.form == "plain"
