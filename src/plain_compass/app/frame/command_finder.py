"""Find a command by words (Ctrl+Space): a few letters of what one wants to do, in one's own trade words too."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QDialog, QHeaderView, QTreeWidget, QTreeWidgetItem, QVBoxLayout, QWidget

from ...job.language import tr
from ..drawing.palette import font
from .commands import Command, Commands
from .narrowing_edit import NarrowingEdit
from .shortcut_sheet import GROUPS

SIZE_PX, ROW_PX = (560, 420), 32
OTHER_WORDS: dict[str, str] = {
    "job.new": tr("begin empty start"),
    "job.open": tr("load file"),
    "job.demo": tr("sample example"),
    "job.coupe": tr("sample example many trees block coppice"),
    "job.save": tr("keep write file"),
    "job.save_as": tr("copy another file elsewhere"),
    "job.quit": tr("close exit leave end"),
    "edit.undo": tr("back mistake revert"),
    "edit.redo": tr("again forward"),
    "edit.history": tr("list back earlier history"),
    "tree.add": tr("new another"),
    "tree.rename": tr("name number label"),
    "tree.remove": tr("delete"),
    "answer.round": tr("walk round none dead limbs wires nests clear answered"),
    "answer.sound": tr("rot decay crack solid hammer mallet"),
    "answer.leave": tr("owner licence permission season people"),
    "answer.ground": tr("site obstacles nothing drawn"),
    "answer.species": tr("wood kind oak beech spruce"),
    "answer.next": tr("unknown settle missing question"),
    "help.first": tr("guide tutorial begin learn help start"),
    "tree.redesign": tr("reset start over notch undercut gob"),
    "cut.suggest": tr("propose design ideas advice which cut"),
    "practice.read": tr("school training rules"),
    "wedge.add": tr("more lift"),
    "wedge.remove": tr("fewer delete"),
    "wedge.stack": tr("double pile stack"),
    "step.look": tr("survey measure lean height crown girth walk round decay"),
    "step.ground": tr("site plan obstacles lay direction rope winch wind slope where can it go"),
    "step.cut": " ".join(
        (
            tr("notch"),
            tr("undercut"),
            tr("gob"),
            tr("face"),
            tr("hinge"),
            tr("holding"),
            tr("wood"),
            tr("back"),
            tr("bore"),
            tr("stump"),
        )
    ),
    "step.stages": tr("sequence order bar passes mistakes"),
    "step.fall": tr("land drift play fan hang"),
    "step.card": tr("print page paper sheet"),
    "view.sheet": tr("species practice notes kit person settings"),
    "view.zoom_in": tr("bigger larger zoom"),
    "view.zoom_out": tr("smaller zoom"),
    "view.fit": tr("reset zoom all"),
    "view.trees": tr("list overview many find tree"),
    "view.menu": tr("everything"),
    "view.units": tr("feet inches centimetres metres pounds"),
    "view.words": tr("language vocabulary terms holding wood gob"),
    "view.language": tr("translation tongue english other"),
    "view.dark": tr("night colours scheme theme"),
    "copy.picture": tr("image clipboard png"),
    "copy.svg": tr("vector clipboard"),
    "list.import": tr("csv spreadsheet inventory"),
    "list.export": tr("csv spreadsheet inventory"),
    "list.readings": tr("csv measurements"),
    "site.import": tr("map gps"),
    "site.export": tr("map gps"),
    "fall.play": tr("animate motion watch run"),
    "fall.keep": tr("compare second design"),
    "fall.aim": tr("gun offset correct drift swing"),
    "fall.export": tr("svg csv frames samples"),
    "step.stump": tr("after fall read log what happened why"),
    "step.block": tr("all trees order many map plan coupe"),
    "train.open": tr("train learn exercise quiz look stump judge eye"),
    "train.work": tr("exercise quiz class test open"),
    "train.make": tr("exercise quiz class teacher new"),
    "train.sheet": tr("print pdf class teacher key exercise"),
    "train.keep": tr("teacher class example own case"),
    "train.record": tr("answers csv export score"),
    "train.eye": tr("lean bias own spread survey"),
    "block.take": tr("turn apply accept order lays"),
    "block.fix": tr("keep lay stay free"),
    "block.free": tr("undo forget decided order"),
    "block.forecast": tr("wind forecast weather gust hours csv"),
    "block.zones": tr("kept away people circle danger"),
    "block.hands": tr("crew people who kit saw packed hours break"),
    "block.keep_kit": tr("save kit set saw store"),
    "block.take_kit": tr("load kit set saw store"),
    "block.cards": tr("pdf print cards order turn"),
    "block.print": tr("paper printer day sheet map"),
    "block.sheet": tr("day sheet pdf print calendar csv geojson export"),
    "stump.planned": tr("as cut same no difference"),
    "stump.mark": tr("top landed right place lay"),
    "stump.log": tr("record keep entry book save"),
    "stump.take": tr("merge given job entries crew"),
    "stump.import": tr("merge crew others csv jsonl"),
    "stump.export": tr("csv jsonl share give"),
    "stump.yours": tr("learn bias hand aim own spread"),
    "stump.days": tr("year statistics report near miss felled"),
    "stump.days_csv": tr("table spreadsheet statistics"),
    "stump.days_pdf": tr("print paper report crew talk"),
    "stump.unread": tr("clear empty forget again"),
    "card.print": tr("paper printer preview hard copy"),
    "card.pdf": tr("print paper file telephone"),
    "card.survey": tr("blank form measure paper pencil walk"),
    "card.all": tr("print paper every set of cards job"),
    "card.strip": tr("tape chalk marks print"),
    "help.keys": tr("shortcuts keyboard help"),
    "help.this": tr("handbook manual explain what field finding"),
    "help.explain": tr("why reason number source inputs readings come from"),
    "help.model": tr("equations formula physics constants sources handbook"),
    "help.words": tr("glossary vocabulary terms handbook"),
    "help.lessons": tr("learn tutorial handbook"),
    "help.find": tr("search"),
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
        self.setWindowTitle(tr("Find a command"))
        self.setObjectName("page")
        self.commands = list(commands)
        self.typed = NarrowingEdit(16, tr("What do you want to do?"), tr("Words of the command"))
        self.list = QTreeWidget()
        self.list.setColumnCount(2)
        self.list.setHeaderHidden(True)
        self.list.setRootIsDecorated(False)
        self.list.header().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        self.list.header().setStretchLastSection(False)
        self.list.setFont(font(14))
        self.list.setAccessibleName(tr("Commands found"))
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
