"""The handbook in a window: pages that words find, on the left; the page itself on the right, its links followed."""

from __future__ import annotations

import re
from collections.abc import Iterator

from PySide6.QtCore import QSize, Qt, QUrl
from PySide6.QtGui import (
    QColor,
    QDesktopServices,
    QTextBlockFormat,
    QTextCharFormat,
    QTextCursor,
    QTextDocument,
    QTextImageFormat,
)
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from ...job import handbook
from ...job.language import tr
from ..drawing.palette import Palette, font
from ..drawing.rich_text import give_room
from .findings_list import FindingsList
from .help_picture import picture_on
from .narrowing_edit import NarrowingEdit
from .store import Snapshot

SIZE_PX = (980, 640)
"""Larger than the text needs, smaller than the smallest window it lies on."""
LIST_PX = 300
"""The longest title takes two lines of it."""
PAGE_ROWS = 10
"""Titles one moves on by Page Up and Page Down."""
MARGIN_PX = 18.0
"""Round a page."""
PICTURE = "picture"
"""What the picture of a page is called inside it."""
KINDS = {"group": tr("peg"), "finding": tr("finding"), "form": tr("cut"), "field": tr("field"), "term": tr("word")}
"""What a row is about where its title alone would not say it."""
ID = Qt.ItemDataRole.UserRole
"""Where a row keeps which page it is."""


def page_about(widget: QWidget | None, step: str) -> str:
    """The page about what has the keyboard: a field, a finding, a form of cut; else the drawing's step."""
    while widget is not None:
        if isinstance(widget, FindingsList):
            at = widget.currentIndex().row()
            found = widget.findings_model.rows[at].finding if at >= 0 else None
            return "findings" if found is None else handbook.finding_page(found.id)
        kind, _, rest = widget.objectName().partition(":")
        if kind in ("tile", "form") and rest:
            return _form_page(widget, rest)
        path = getattr(widget, "path", "")
        if isinstance(path, str) and handbook.field_page(path) != "fields":
            return handbook.field_page(path)
        widget = widget.parentWidget()
    return handbook.step_page(step)


def _form_page(widget: QWidget, key: str) -> str:
    """Of a tile by its form, of a choice of forms by the one that is chosen."""
    chosen = getattr(widget, "currentData", None)
    return handbook.form_page(key if chosen is None else f"{key}.{chosen()}")


def found_pages(texts: dict[str, str], typed: str) -> list[str]:
    """Pages that have every typed word: those with them in their title first, in the order of the book."""
    words = typed.lower().split()
    if not words:
        return list(texts)
    ranked = []
    for order, (id, text) in enumerate(texts.items()):
        title, _, rest = text.lower().partition("\n")
        if all(word in title or word in rest for word in words):
            ranked.append((not all(word in title for word in words), order, id))
    return [id for _, _, id in sorted(ranked)]


def _links(document: QTextDocument) -> Iterator[tuple[int, int]]:
    """From where to where in a document each link goes."""
    block = document.begin()
    while block.isValid():
        piece = block.begin()
        while not piece.atEnd():
            fragment = piece.fragment()
            if fragment.charFormat().isAnchor():
                yield fragment.position(), fragment.position() + fragment.length()
            piece += 1
        block = block.next()


class HelpWindow(QDialog):
    """The handbook. Typing narrows the list, arrows turn the pages, Alt+Left goes back, Escape closes it."""

    def __init__(self, snapshot: Snapshot, page: str, colours: Palette, parent: QWidget) -> None:
        super().__init__(parent)
        self.snapshot, self.colours, speech = snapshot, colours, snapshot.speech
        self.setWindowTitle(tr("Handbook"))
        self.setObjectName("page")
        self.texts = {id: handbook.page(id, speech) for id in handbook.page_ids()}
        self.at, self.before, self._under = "", list[str](), parent
        self.typed = NarrowingEdit(16, tr("Find in the handbook"), tr("Words to find in the handbook"), PAGE_ROWS)
        self.list = QListWidget()
        self.list.setObjectName("helpPages")
        self.list.setAccessibleName(tr("Pages of the handbook"))
        self.list.setFont(font(14))
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.text = QTextBrowser()
        self.text.setObjectName("helpText")
        self.text.setAccessibleName(tr("Page of the handbook"))
        self.text.setFont(font(15))
        self.text.setOpenLinks(False)
        self.back = QPushButton(tr("Back"))
        self.back.setShortcut("Alt+Left")
        self.back.setAutoDefault(False)
        self._compose()
        self.typed.textChanged.connect(self._narrow)
        self.typed.moved.connect(lambda by: self.list.setCurrentRow(self._near(self.list.currentRow() + by)))
        self.typed.entered.connect(self.text.setFocus)
        self.list.currentItemChanged.connect(self._turned_to)
        self.text.anchorClicked.connect(self._followed)
        self.back.clicked.connect(self._go_back)
        self._narrow("")
        self.show_page(page)

    def _compose(self) -> None:
        left, row = QVBoxLayout(), QHBoxLayout(self)
        left.addWidget(self.typed)
        left.addWidget(self.list, 1)
        left.addWidget(self.back)
        row.addLayout(left)
        row.addWidget(self.text, 1)
        for part in (self.typed, self.list, self.back):
            part.setFixedWidth(LIST_PX)
        room = self._under.window().size() - QSize(40, 40)
        self.resize(QSize(*SIZE_PX).boundedTo(room))

    def show_page(self, id: str) -> None:
        """Turn to a page; the one that was open can be gone back to."""
        if id == self.at:
            return
        if self.at:
            self.before.append(self.at)
        self._open(id)

    def _open(self, id: str) -> None:
        self.at = id
        self.back.setEnabled(bool(self.before))
        self.text.setMarkdown(self.texts[id])
        self.text.document().setDocumentMargin(MARGIN_PX)
        give_room(self.text.document())
        self._colour_links()
        self._add_picture(id)
        self.text.moveCursor(QTextCursor.MoveOperation.Start)
        self.list.blockSignals(True)
        rows = [row for row in range(self.list.count()) if self.list.item(row).data(ID) == id]
        self.list.setCurrentRow(rows[0] if rows else -1)
        self.list.blockSignals(False)

    def _colour_links(self) -> None:
        """In a colour of the scheme in use: Qt's own blue cannot be read on dark paper."""
        document, ink = self.text.document(), QTextCharFormat()
        ink.setForeground(QColor(self.colours.focus))
        for start, end in list(_links(document)):
            cursor = QTextCursor(document)
            cursor.setPosition(start)
            cursor.setPosition(end, QTextCursor.MoveMode.KeepAnchor)
            cursor.mergeCharFormat(ink)

    def _add_picture(self, id: str) -> None:
        """Below the title, where the page is about something that can be drawn."""
        image = picture_on(id, self.snapshot, self.colours)
        if image is not None:
            document = self.text.document()
            document.addResource(QTextDocument.ResourceType.ImageResource, QUrl(PICTURE), image)
            cursor = QTextCursor(document.firstBlock())
            cursor.movePosition(QTextCursor.MoveOperation.EndOfBlock)
            cursor.insertBlock(QTextBlockFormat(), QTextCharFormat())
            shape = QTextImageFormat()
            shape.setName(PICTURE)
            shape.setWidth(image.deviceIndependentSize().width())
            cursor.insertImage(shape)

    def _near(self, row: int) -> int:
        return min(max(row, 0), self.list.count() - 1)

    def _narrow(self, typed: str) -> None:
        self.list.blockSignals(True)
        self.list.clear()
        for id in found_pages(self.texts, typed):
            kind = KINDS.get(id.partition(":")[0], "")
            item = QListWidgetItem(handbook.title_in(self.texts[id]) + (f" · {kind}" if kind else ""))
            item.setData(ID, id)
            self.list.addItem(item)
        self.list.blockSignals(False)
        if typed.strip() and self.list.count():
            self.list.setCurrentRow(0)

    def _turned_to(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            self.show_page(item.data(ID))

    def _followed(self, link: QUrl) -> None:
        """A link of the handbook turns the page; one to the world is for the browser, and only when asked for."""
        if link.scheme() == "help":
            self.show_page(re.sub(r"^help:", "", link.toString()))
        else:
            QDesktopServices.openUrl(link)

    def _go_back(self) -> None:
        if self.before:
            self._open(self.before.pop())
