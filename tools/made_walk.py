"""Walk through the window in the made language: what is said that is not in brackets was left out of the catalogue.

Called with a folder it writes a picture of each view there. What was left out, and what does not fit where it stands,
is printed as JSON.
"""

from __future__ import annotations

import json
import os
import re
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import Any

from made_language import CLOSE, OPEN
from screenshots import SCREEN, views

UNITS = frozenset(
    ("m", "cm", "mm", "km", "ft", "in", "lb", "kg", "t", "kN", "min", "m/s", "mph", "km/h", "MPa", "GPa", "m3", "cm2")
)
KEYS = frozenset(
    ("Alt", "Ctrl", "Shift", "Enter", "Esc", "Tab", "Del", "Ins", "Home", "End", "Up", "Down", "Left", "Right")
) | {"PgUp", "PgDown", "Space", "Return", "Backspace"}
OF_CODE = ("model", "constants")
"""Pages of the handbook that name parts of the code."""
NAMES = ("id", "name", "notes", "note", "whose", "who", "faller", "saw", "place")
"""Fields in which a document keeps what somebody called something."""
MARKUP = re.compile(r"<style.*?</style>|<[^<>]*>|&[a-z]+;", re.DOTALL)


class Walk:
    """The texts met on the way, each with where it was met first."""

    def __init__(self, own: set[str]) -> None:
        self.own = sorted((own | {"Plain Compass"}) - {""}, key=len, reverse=True)
        self.met: dict[str, str] = {}
        self.tight: dict[str, str] = {}
        self.at = "start"

    def hear(self, text: str) -> None:
        """A text that is shown."""
        if text:
            self.met.setdefault(text, self.at)

    def left_out(self) -> dict[str, str]:
        """What is said outside of brackets and is no name of somebody's own, no unit and no key: words -> where."""
        found: dict[str, str] = {}
        for text, at in self.met.items():
            text = text.replace("\N{NO-BREAK SPACE}", " ")
            for name in self.own:
                text = text.replace(name, " ")
            odd = [word for word in _outside(text) if _odd(word)]
            if odd:
                found.setdefault(" ".join(odd)[:120], f"{at}: {text[:160]}")
        return found


def _odd(word: str) -> bool:
    return len(word) > 1 and word not in UNITS | KEYS and not re.fullmatch(r"F\d+|[A-Z]{1,3}-?\d+.*", word)


def _outside(text: str) -> list[str]:
    """The words of a text that stand in no bracket."""
    depth, kept = 0, []
    for letter in MARKUP.sub(" ", text):
        depth += (letter == OPEN) - (letter == CLOSE)
        kept.append(letter if depth == 0 else " ")
    return [word for word in re.findall(r"[^\W\d_][\w'’/-]*", "".join(kept)) if any(map(str.isalpha, word))]


def listen_to_painters(walk: Walk) -> None:
    """Hear whatever is painted or laid out as a page."""
    from PySide6.QtCore import QRect, QRectF
    from PySide6.QtGui import QPainter, QTextDocument

    paint, lay_out = QPainter.drawText, QTextDocument.setHtml

    def painted(self: Any, *given: Any) -> Any:
        text = next((each for each in given if isinstance(each, str)), "")
        walk.hear(text)
        if isinstance(given[0], (QRectF, QRect)) and not _has_room(self, *given):
            walk.tight.setdefault(f"painted: {text}", walk.at)
        return paint(self, *given)

    def laid_out(self: Any, html: str) -> None:
        walk.hear(html)
        lay_out(self, html)

    QPainter.drawText = painted  # type: ignore[method-assign, assignment]
    QTextDocument.setHtml = laid_out  # type: ignore[method-assign, assignment]


def _has_room(painter: Any, box: Any, how: Any, text: str) -> bool:
    """Whether a line painted into a box is not cut off by it."""
    from PySide6.QtCore import Qt

    flags = int(getattr(how, "value", how))
    if flags & (Qt.TextFlag.TextWordWrap.value | Qt.TextFlag.TextDontClip.value):
        return True
    widest = max(painter.fontMetrics().horizontalAdvance(line) for line in text.split("\n"))
    return bool(widest <= box.width() + 2)


def hear_widgets(walk: Walk, root: Any) -> None:
    """Hear what the widgets under this one show, and note what does not fit into them."""
    from PySide6.QtWidgets import QWidget

    for widget in (root, *root.findChildren(QWidget)):
        for text in _texts_of(widget):
            walk.hear(text)
        if widget.isVisible() and not _fits(widget):
            walk.tight.setdefault(f"{type(widget).__name__}: {widget.text()}", walk.at)
    for action in {*root.actions(), *(a for w in root.findChildren(QWidget) for a in w.actions())}:
        walk.hear(action.text())
        walk.hear(action.toolTip())


def _texts_of(widget: Any) -> Iterator[str]:
    yield from (widget.toolTip(), widget.accessibleName(), widget.accessibleDescription(), widget.windowTitle())
    for name in ("text", "placeholderText", "title"):
        asked = getattr(widget, name, None)
        told = asked() if callable(asked) else ""
        if isinstance(told, str):
            yield told
    if hasattr(widget, "itemText"):
        yield from (widget.itemText(row) for row in range(widget.count()))
    if hasattr(widget, "toPlainText"):
        yield widget.toPlainText()
    model = widget.model() if hasattr(widget, "model") and not hasattr(widget, "itemText") else None
    if model is not None:
        yield from _of_model(model)


def _of_model(model: Any) -> Iterator[str]:
    from PySide6.QtCore import QAbstractListModel, QModelIndex, Qt

    top = QModelIndex()
    for column in range(1 if isinstance(model, QAbstractListModel) else model.columnCount(top)):
        yield str(model.headerData(column, Qt.Orientation.Horizontal) or "")
        for row in range(min(model.rowCount(top), 40)):
            yield str(model.data(model.index(row, column, top), Qt.ItemDataRole.DisplayRole) or "")


def _fits(widget: Any) -> bool:
    """Whether a label or button of one line shows all of its words."""
    from PySide6.QtWidgets import QAbstractButton, QLabel

    from plain_compass.app.frame.fitted_button import FittedButton

    text = widget.text() if isinstance(widget, (QLabel, QAbstractButton)) else ""
    if not text or "<" in text or (isinstance(widget, QLabel) and widget.wordWrap()):
        return True
    if isinstance(widget, FittedButton):
        return widget.is_whole()
    widest = max(widget.fontMetrics().horizontalAdvance(line) for line in text.split("\n"))
    return bool(widest <= widget.contentsRect().width())


def names_of(job: Any) -> set[str]:
    """Everything somebody typed into a document: names are nobody's to translate."""
    found: set[str] = set()
    waiting = [job]
    while waiting:
        content = waiting.pop()
        for key, each in content.items() if isinstance(content, dict) else enumerate(content):
            if isinstance(each, (dict, list, tuple)):
                waiting.append(each)
            elif isinstance(each, str) and key in NAMES:
                found.add(each)
    return found


def dialogs(window: Any, walk: Walk) -> None:
    """What opens over the window."""
    from PySide6.QtWidgets import QDialog

    opened = ("keys", "find", "trees", "history")
    for name in opened:
        walk.at = f"dialog {name}"
        getattr(window.dialogs, name)()
    window.edits.read_practices()
    from plain_compass.job.handbook import page_ids

    window.dialogs.help_page("index")
    for dialog in window.findChildren(QDialog):
        walk.at = f"dialog {type(dialog).__name__}"
        if hasattr(dialog, "finish"):
            dialog.finish()
        if hasattr(dialog, "show_page"):
            for page in page_ids():
                walk.at = f"handbook {page}"
                dialog.show_page(page)
                if page in OF_CODE:
                    continue
                walk.hear(dialog.text.toPlainText())
        hear_widgets(walk, dialog)
        dialog.close()


def panels(window: Any, walk: Walk) -> None:
    """What stands beside the drawing."""
    for face in range(4):
        walk.at = f"side {face}"
        window.side.show_face(face)
        hear_widgets(walk, window)
    window.side.show_face(0)


def menus(window: Any, walk: Walk) -> None:
    """Every command, and the menu of the job."""
    from PySide6.QtWidgets import QMenu

    from plain_compass.app.frame.menus import fill_job_menu

    walk.at = "menus"
    for command in window.commands:
        walk.hear(command.words)
    menu = QMenu(window)
    fill_job_menu(menu, window.settings, window.commands, window.jobs, window.kept)
    waiting = [menu]
    while waiting:
        for action in waiting.pop().actions():
            walk.hear(action.text())
            if action.menu() is not None:
                waiting.append(action.menu())


def every_tree(window: Any, shot: Any) -> None:
    """Each tree of the demo on each step that says something of its own of it."""
    for tree in window.store.snapshot.job.trees:
        window.store.look_at(tree.id)
        for step in ("look", "ground", "cut", "stages", "fall", "stump"):
            window.show_step(step)
            if hasattr(window.page, "rose"):
                window.page.rose.finish()
            shot(f"{tree.id} {step}")


def practised(window: Any, shot: Any) -> None:
    """A case of each skill, before and after it is answered; and the record."""
    from plain_compass.core.practice.skills import SKILLS
    from plain_compass.job.practice_case import make_case

    window.show_step("practice")
    page = window.page
    for skill in SKILLS:
        page.session.ask(make_case(skill.key, 2, 5))
        page._show()
        shot(f"practice {skill.key}")
        page.session.give_up() if hasattr(page.session, "give_up") else page.advance()
        shot(f"practice {skill.key} answered")
    page.choose("record")
    shot("practice record")


def papers(window: Any, walk: Walk, scratch: Path) -> None:
    """What is printed: card, strip, survey sheet, day sheet, a set of practice."""
    from plain_compass.app.steps.block.sheet import write_day_sheet
    from plain_compass.app.steps.card.paper import LayoutWanted
    from plain_compass.app.steps.card.pdf import write_card
    from plain_compass.app.steps.card.survey_sheet import write_survey_sheet
    from plain_compass.app.steps.card.tape_strip import write_strip
    from plain_compass.app.steps.practice.paper import write_set
    from plain_compass.job.practice_set import mixed_set

    snapshot, speech = window.store.snapshot, window.store.snapshot.speech
    walk.at = "paper"
    write_card(snapshot, scratch / "card.pdf", LayoutWanted())
    write_strip(snapshot, scratch / "strip.pdf")
    write_survey_sheet(1, speech, scratch / "survey.pdf", "A4")
    write_set(mixed_set(1, 1, 10), speech, scratch / "set.pdf")
    watch = window.pages["block"].watch
    write_day_sheet(snapshot.job, watch.block, watch.found, scratch / "day.pdf")


def main() -> int:
    """Walk, and print what was left out."""
    scratch = Path(tempfile.mkdtemp(prefix="plain-compass-"))
    folder = Path(sys.argv[1]) if len(sys.argv) > 1 else scratch / "views"
    folder.mkdir(parents=True, exist_ok=True)
    maker = Path(__file__).with_name("made_language.py")
    subprocess.run([sys.executable, str(maker), str(scratch / "xx.json")], check=True)
    (scratch / "screen.json").write_text(json.dumps(SCREEN))
    os.environ["QT_QPA_PLATFORM"] = f"offscreen:configfile={scratch / 'screen.json'}"
    # Before anything of the program is imported: some texts are looked up as modules are.
    os.environ["PLAIN_COMPASS_LANGUAGE"] = str(scratch / "xx.json")

    from plain_compass.app.frame.recovery import Recovery
    from plain_compass.app.frame.settings import Settings
    from plain_compass.app.main import application, make_window
    from plain_compass.app.steps.look.page import LookPage
    from plain_compass.job.demo import demo_coupe, demo_job
    from plain_compass.job.files import Opened
    from plain_compass.job.plain import job_to_plain
    from plain_compass.job.tables import DATA

    app = application()
    jobs = [job_to_plain(job) for job in (demo_job(), demo_coupe())]
    stumps = (DATA / "demo" / "withy-holm-stumps.jsonl").read_text(encoding="utf-8").splitlines()
    jobs += [json.loads(line) for line in stumps]
    dates = {f"{date(2026, month, 1):%B}" for month in range(1, 13)} | {
        f"{date(2026, 1, day):%a}" for day in range(1, 8)
    }
    dates |= {f"{date(2026, month, 1):%b}" for month in range(1, 13)}
    walk = Walk(set().union(dates, *map(names_of, jobs)))
    listen_to_painters(walk)
    window = make_window(Opened(demo_job()), None, Settings(scratch / "s.ini"), Recovery(scratch / "r"))
    window.resize(1280, 800)
    window.show()

    def shot(name: str) -> None:
        walk.at = name
        app.processEvents()
        window.falls.finish()
        if isinstance(window.page, LookPage):
            window.page.compute()
        window.side.survey.compute()
        window.side.mends.finish()
        app.processEvents()
        window.grab().save(str(folder / f"{name}.png"))
        hear_widgets(walk, window)

    shot("first")
    panels(window, walk)
    dialogs(window, walk)
    menus(window, walk)
    every_tree(window, shot)
    window.store.look_at("WH-07")
    views(window, shot, folder)
    window.show_step("block")
    window.page.show_hands()
    shot("hands")
    papers(window, walk, scratch)
    practised(window, shot)
    print(json.dumps({"left out": walk.left_out(), "tight": walk.tight}, ensure_ascii=False, indent=1))
    return 0


if __name__ == "__main__":
    sys.exit(main())
