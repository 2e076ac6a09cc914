"""Render the demo's main views to PNG without a screen: ``make screenshots``."""

from __future__ import annotations

import json
import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
SCREEN = {"screens": [{"name": "paper", "x": 0, "y": 0, "width": 1280, "height": 800, "logicalDpi": 96, "dpr": 1}]}


def _stages_and_rope(window: Any, shot: Callable[[str], None]) -> None:
    """The cut walked through, a mistake played in, and a rope on the plan."""
    window.store.look_at("WH-12")
    window.show_step("stages")
    window.page.move_to(0.62)
    shot("stages")
    window.store.look_at("WH-21")
    window.page.play("thin-strap")
    window.page.go_to(2)
    shot("stages-mistake")
    window.page.play("")
    window.show_step("ground")
    window.page.rose.finish()
    window.page.pick("rope.anchor")
    shot("ground-rope")


def _fall(window: Any, shot: Callable[[str], None]) -> None:
    """A fall half way down, and another design held against it."""
    window.store.look_at("WH-12")
    window.show_step("fall")
    window.falls.finish()
    window.page.to_tilt(52.0)
    shot("fall")
    window.page.keep()
    window.commands.run("fall.aim")
    shot("fall-compare")
    window.page.keep()
    window.store.undo()


def _imperial(window: Any, shot: Callable[[str], None]) -> None:
    """A bored cut in inches and the other vocabulary."""
    window.store.set("cut.back.form", "bored", "bored")
    window.store.set("cut.face.form", "conventional", "conventional")
    window.store.set("units", "imperial", "imperial")
    window.store.set("words", "gob", "words")
    shot("cut-bored-imperial")
    for _ in range(4):
        window.store.undo()


def _suggestions(window: Any, shot: Callable[[str], None]) -> None:
    """Designs side by side in the page."""
    window.store.look_at("WH-07")
    window.edits.suggest().search()
    shot("suggestions")
    window.page.leave_suggestions()


def _block(window: Any, shot: Callable[[str], None]) -> None:
    """The made-up coupe, in order, a tree picked: last, for it is another job."""
    window.jobs.ask_unsaved = lambda: "keep"
    window.jobs.coupe()
    window.show_step("block")
    window.page.watch.finish()
    window.page.pick("K-07")
    shot("block")


def _stump(window: Any, shot: Callable[[str], None]) -> None:
    """A tree that is down, read; and what its faller's stumps teach."""
    window.store.look_at("WH-15")
    window.show_step("stump")
    window.page.watch.finish()
    shot("stump")
    window.book.log()
    window.book.finish()
    window.page.show_mode("yours")
    yours = window.page.parts["yours"]
    yours.fallers.setCurrentIndex(yours.fallers.findText("Wren"))
    yours.read_log()
    yours.rows["aim"].switch.click()
    shot("yours")
    window.store.undo()
    window.page.show_mode("stump")


def _lists(window: Any, folder: Path) -> None:
    """All trees of the job, and the table of cuts as tiles: windows of their own."""
    from plain_compass.app.frame.overview import Overview

    window.dialogs.trees()
    trees = window.findChild(Overview)
    trees.finish()
    trees.grab().save(str(folder / "trees.png"))
    trees.reject()
    window.show_step("cut")
    choice = window.page.choices[2]
    choice.showPopup()
    choice.tiles.grab().save(str(folder / "tiles.png"))
    choice.tiles.close()


def _handbook(window: Any, folder: Path) -> None:
    """A page of the handbook, drawn on the open tree: a window of its own."""
    from plain_compass.app.frame.help_window import HelpWindow

    window.dialogs.help_page("field:cut.hinge.left_m")
    book = window.findChildren(HelpWindow)[-1]
    book.grab().save(str(folder / "handbook.png"))
    book.close()


def _practice(window: Any, shot: Callable[[str], None]) -> None:
    """A tree judged by eye, the truth over it."""
    from plain_compass.job.practice_case import make_case

    window.commands.run("train.open")
    page = window.page
    page.session.ask(make_case("weight", 3, 21))
    page._show()
    page.answering.edit.setText("1 m L")
    page.advance()
    shot("practice")


def views(window: Any, shot: Callable[[str], None], folder: Path) -> None:
    """Every main view in its turn; one that is a window of its own is written by itself."""
    window.show_step("look")
    shot("look")
    window.show_step("ground")
    window.page.rose.finish()
    window.page.plan.show_read(45.0)
    window.page.pick("site.obstacles.1")
    shot("ground")
    window.show_step("cut")
    shot("cut")
    window.side.show_face(1)
    shot("tree-sheet")
    window.side.show_face(0)
    _imperial(window, shot)
    _handbook(window, folder)
    _stages_and_rope(window, shot)
    _fall(window, shot)
    _suggestions(window, shot)
    _lists(window, folder)
    _stump(window, shot)
    window.store.look_at("WH-07")
    window.show_step("card")
    shot("card")
    _block(window, shot)
    _practice(window, shot)


def main() -> int:
    """Write every view; a folder may be given instead of docs/screenshots."""
    folder = Path(sys.argv[1]) if len(sys.argv) > 1 else FOLDER
    folder.mkdir(parents=True, exist_ok=True)
    scratch = Path(tempfile.mkdtemp(prefix="plain-compass-"))
    (scratch / "screen.json").write_text(json.dumps(SCREEN))
    os.environ["QT_QPA_PLATFORM"] = f"offscreen:configfile={scratch / 'screen.json'}"

    from plain_compass.app.frame.recovery import Recovery
    from plain_compass.app.frame.settings import Settings
    from plain_compass.app.main import application, make_window
    from plain_compass.app.steps.look.page import LookPage
    from plain_compass.job.demo import demo_job
    from plain_compass.job.files import Opened

    app = application()
    window = make_window(Opened(demo_job()), None, Settings(scratch / "s.ini"), Recovery(scratch / "r"))
    window.resize(1280, 800)
    window.show()

    def shot(name: str) -> None:
        app.processEvents()
        window.falls.finish()
        if isinstance(window.page, LookPage):
            window.page.compute()
        window.side.survey.compute()
        window.side.mends.finish()
        app.processEvents()
        window.grab().save(str(folder / f"{name}.png"))

    views(window, shot, folder)
    print(f"Pictures written to {folder}.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
