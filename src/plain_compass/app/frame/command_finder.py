"""Find a command by words (Ctrl+Space): a few letters of what one wants to do, in one's own trade words too."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QDialog, QHeaderView, QTreeWidget, QTreeWidgetItem, QVBoxLayout, QWidget

from ..drawing.palette import font
from .commands import Command, Commands
from .narrowing_edit import NarrowingEdit
from .shortcut_sheet import GROUPS

SIZE_PX, ROW_PX = (560, 420), 32
OTHER_WORDS: dict[str, str] = {
    "job.new": "begin empty start",
    "job.open": "load file",
    "job.demo": "sample example",
    "job.coupe": "sample example many trees block coppice",
    "job.save": "keep write file",
    "job.save_as": "copy another file elsewhere",
    "job.quit": "close exit leave end",
    "edit.undo": "back mistake revert",
    "edit.redo": "again forward",
    "edit.history": "list back earlier history",
    "tree.add": "new another",
    "tree.rename": "name number label",
    "tree.remove": "delete",
    "answer.round": "walk round none dead limbs wires nests clear answered",
    "answer.sound": "rot decay crack solid hammer mallet",
    "answer.leave": "owner licence permission season people",
    "answer.ground": "site obstacles nothing drawn",
    "answer.species": "wood kind oak beech spruce",
    "answer.next": "unknown settle missing question",
    "help.first": "guide tutorial begin learn help start",
    "tree.redesign": "reset start over notch undercut gob",
    "cut.suggest": "propose design ideas advice which cut",
    "practice.read": "school training rules",
    "wedge.add": "more lift",
    "wedge.remove": "fewer delete",
    "wedge.stack": "double pile stack",
    "step.look": "survey measure lean height crown girth walk round decay",
    "step.ground": "site plan obstacles lay direction rope winch wind slope where can it go",
    "step.cut": " ".join(("notch", "undercut", "gob", "face", "hinge", "holding", "wood", "back", "bore", "stump")),
    "step.stages": "sequence order bar passes mistakes",
    "step.fall": "land drift play fan hang",
    "step.card": "print page paper sheet",
    "view.sheet": "species practice notes kit person settings",
    "view.zoom_in": "bigger larger zoom",
    "view.zoom_out": "smaller zoom",
    "view.fit": "reset zoom all",
    "view.trees": "list overview many find tree",
    "view.menu": "everything",
    "view.units": "feet inches centimetres metres pounds",
    "view.words": "language vocabulary terms holding wood gob",
    "view.dark": "night colours scheme theme",
    "copy.picture": "image clipboard png",
    "copy.svg": "vector clipboard",
    "list.import": "csv spreadsheet inventory",
    "list.export": "csv spreadsheet inventory",
    "list.readings": "csv measurements",
    "site.import": "map gps",
    "site.export": "map gps",
    "fall.play": "animate motion watch run",
    "fall.keep": "compare second design",
    "fall.aim": "gun offset correct drift swing",
    "fall.export": "svg csv frames samples",
    "step.stump": "after fall read log what happened why",
    "step.block": "all trees order many map plan coupe",
    "train.open": "train learn exercise quiz look stump judge eye",
    "train.work": "exercise quiz class test open",
    "train.make": "exercise quiz class teacher new",
    "train.sheet": "print pdf class teacher key exercise",
    "train.keep": "teacher class example own case",
    "train.record": "answers csv export score",
    "train.eye": "lean bias own spread survey",
    "block.take": "turn apply accept order lays",
    "block.fix": "keep lay stay free",
    "block.free": "undo forget decided order",
    "block.forecast": "wind forecast weather gust hours csv",
    "block.zones": "kept away people circle danger",
    "block.hands": "crew people who kit saw packed hours break",
    "block.keep_kit": "save kit set saw store",
    "block.take_kit": "load kit set saw store",
    "block.cards": "pdf print cards order turn",
    "block.print": "paper printer day sheet map",
    "block.sheet": "day sheet pdf print calendar csv geojson export",
    "stump.planned": "as cut same no difference",
    "stump.mark": "top landed right place lay",
    "stump.log": "record keep entry book save",
    "stump.take": "merge given job entries crew",
    "stump.import": "merge crew others csv jsonl",
    "stump.export": "csv jsonl share give",
    "stump.yours": "learn bias hand aim own spread",
    "stump.days": "year statistics report near miss felled",
    "stump.days_csv": "table spreadsheet statistics",
    "stump.days_pdf": "print paper report crew talk",
    "stump.unread": "clear empty forget again",
    "card.print": "paper printer preview hard copy",
    "card.pdf": "print paper file telephone",
    "card.survey": "blank form measure paper pencil walk",
    "card.all": "print paper every set of cards job",
    "card.strip": "tape chalk marks print",
    "help.keys": "shortcuts keyboard help",
    "help.this": "handbook manual explain what field finding",
    "help.model": "equations formula physics constants sources handbook",
    "help.words": "glossary vocabulary terms handbook",
    "help.lessons": "learn tutorial handbook",
    "help.find": "search",
}
"""Words by which people look for a command beside those of its title."""


def found(commands: Iterable[Command], typed: str) -> list[Command]:
    """The commands that have every typed word, those that have them in their title first."""
    words = typed.lower().split()
    ranked = []
    for order, command in enumerate(commands):
        title = command.words.lower()
        whole = f"{title} {GROUPS.get(command.id.split('.')[0], '').lower()} {OTHER_WORDS.get(command.id, '')}"
        if all(_has(whole, word) for word in words):
            in_title = sum(_has(title, word) for word in words)
            ranked.append((not command.enabled(), -in_title, order, command))
    return [command for *_, command in sorted(ranked, key=lambda each: each[:3])]


def _has(text: str, word: str) -> bool:
    """Whether a word of the text begins so."""
    return any(each.startswith(word) for each in text.replace("…", "").split())


class CommandFinder(QDialog):
    """Shown by Ctrl+Space: typing narrows the list, arrows choose, Enter does it, Escape leaves all as it is."""

    def __init__(self, commands: Commands, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Find a command")
        self.setObjectName("page")
        self.commands = list(commands)
        self.typed = NarrowingEdit(16, "What do you want to do?", "Words of the command")
        self.list = QTreeWidget()
        self.list.setColumnCount(2)
        self.list.setHeaderHidden(True)
        self.list.setRootIsDecorated(False)
        self.list.header().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        self.list.header().setStretchLastSection(False)
        self.list.setFont(font(14))
        self.list.setAccessibleName("Commands found")
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        whole = QVBoxLayout(self)
        whole.addWidget(self.typed)
        whole.addWidget(self.list, 1)
        self.typed.textChanged.connect(self._narrow)
        self.typed.moved.connect(lambda step: self._choose(self.list.currentIndex().row() + step))
        self.typed.entered.connect(self._run)
        self.list.itemActivated.connect(lambda _: self._run())
        self.list.itemClicked.connect(lambda _: self._run())
        self.resize(*SIZE_PX)
        self._narrow("")

    def _narrow(self, typed: str) -> None:
        self.list.clear()
        for command in found(self.commands, typed):
            item = QTreeWidgetItem([command.words, command.shortcut])
            item.setData(0, Qt.ItemDataRole.UserRole, command)
            item.setSizeHint(0, QSize(0, ROW_PX))
            if not command.enabled():
                item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addTopLevelItem(item)
        self._choose(0)

    def _choose(self, row: int) -> None:
        item = self.list.topLevelItem(min(max(row, 0), self.list.topLevelItemCount() - 1))
        if item is not None:
            self.list.setCurrentItem(item)

    def _run(self) -> None:
        """Do what is chosen, the finder gone first: it may open a window of its own."""
        item = self.list.currentItem()
        if item is None or not item.flags() & Qt.ItemFlag.ItemIsEnabled:
            return
        self.accept()
        item.data(0, Qt.ItemDataRole.UserRole).do()
