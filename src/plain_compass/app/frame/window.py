"""The window: composes the frame's parts and tells them of every change. It decides nothing itself."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QLineEdit,
    QMainWindow,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ...core.judge.findings import Finding
from ...job.document import STANDS
from ...job.language import tr
from ..drawing.palette import DARK, LIGHT, Palette
from .answer_actions import AnswerActions
from .arrivals import Arrivals
from .autosave import Autosave
from .band import MarginBand
from .commands import Command, Commands
from .dialogs import Dialogs
from .edit_actions import EditActions
from .fall_watch import FallWatch
from .field_edit import FieldEdit
from .first_tree import FirstTree
from .job_actions import JobActions
from .kept_work import KeptWork
from .late import Late
from .list_actions import ListActions
from .log_book import LogBook
from .menus import fill_job_menu
from .message_bar import MessageBar
from .page import Page, PageFactory
from .recovery import Recovery
from .settings import Settings
from .side_column import SideColumn
from .site_actions import SiteActions
from .store import Snapshot, Store
from .style import style_sheet
from .told import tell_drawings
from .top_bar import TopBar
from .trail import Trail
from .view_actions import go_to, view_commands

WHOLE, LEAST = (1100, 642), (480, 360)
"""Least size of everything under the top bar, and to which the window can be made smaller."""


def _one_over_the_other(*parts: QWidget, grows: QWidget) -> QWidget:
    """A widget of widgets without a gap, one of which takes the room there is."""
    body = QWidget()
    body.setObjectName("page")
    whole = QVBoxLayout(body)
    whole.setContentsMargins(0, 0, 0, 0)
    whole.setSpacing(0)
    for part in parts:
        whole.addWidget(part, int(part is grows))
    return body


class Window(QMainWindow):
    """Top bar, trail, page, findings or sheet, margin band."""

    def __init__(
        self,
        store: Store,
        settings: Settings,
        recovery: Recovery,
        pages: dict[str, PageFactory],
        panels: dict[str, PageFactory],
        more_commands: Callable[[Window], list[Command]],
    ) -> None:
        super().__init__()
        self.store, self.settings = store, settings
        self.last_field: FieldEdit | None = None
        self.frame: QWidget = self
        self.scheme, self.step = "light", ""
        self.autosave, self.falls = Autosave(store, recovery), FallWatch(store)
        self.book = LogBook(store, settings.log_file)
        self.kept = KeptWork(self)
        self.jobs, self.edits = JobActions(self, self.kept), EditActions(self)
        self.lists = ListActions(self)
        self.sites = SiteActions(self)
        self.arrivals = Arrivals(self, self.jobs, self.lists, self.sites)
        self.commands = Commands(self)
        self.dialogs = Dialogs(self)
        self.pages = Late(self._bound(pages), self._page_made)
        self.commands.add(*self.jobs.commands(), *self.lists.commands(), *self.sites.commands(), *self.edits.commands())
        self.commands.add(*view_commands(self, self.edits), *AnswerActions(self).commands(), *more_commands(self))
        self.guide = FirstTree(store, settings, self.commands)
        self.commands.add(Command("help.first", tr("First tree, step by step"), "", self.guide.begin))
        self._compose(panels)
        self._connect()
        self.setAcceptDrops(True)
        self.show_scheme(settings.text("scheme", "light"))
        self.show_step("cut")
        self._refresh(store.snapshot)

    # Composition ---------------------------------------------------------------------------------------

    def _compose(self, panels: dict[str, PageFactory]) -> None:
        self.top, self.trail, self.band = TopBar(self.commands), Trail(), MarginBand()
        self.stack = QStackedWidget()
        self.side = SideColumn(self.store, self._bound(panels), self.dress, self.guide)
        middle = QWidget()
        row = QHBoxLayout(middle)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.trail)
        row.addWidget(self.stack, 1)
        row.addWidget(self.side)
        work = _one_over_the_other(middle, self.band, grows=middle)
        self.around = self._around(work)
        self.setCentralWidget(_one_over_the_other(self.top, self.around, grows=self.around))
        self.message = MessageBar(self.stack)
        self.setMinimumSize(*LEAST)

    @staticmethod
    def _around(work: QWidget) -> QScrollArea:
        """On a small screen, or with large type, one scrolls to what does not fit: nothing is squeezed or cut."""
        work.setMinimumSize(*WHOLE)
        area = QScrollArea()
        area.setObjectName("around")
        area.setAccessibleName(tr("Steps and findings"))
        area.setFrameShape(QScrollArea.Shape.NoFrame)
        area.setWidget(work)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        return area

    def _bound(self, factories: dict[str, PageFactory]) -> dict[str, Callable[[], QWidget]]:
        return {key: partial(make, self.store, self.commands, self) for key, make in factories.items()}

    def _page_made(self, page: QWidget) -> None:
        page.setObjectName("page")
        self.stack.addWidget(page)
        self.dress(page)

    def _connect(self) -> None:
        store = self.store
        store.changed.connect(self._refresh)
        store.stepped.connect(self.commands.refresh)
        store.stepped.connect(self._refresh_names)
        store.stepped.connect(self.message.clear_refusal)
        store.refused.connect(self.message.refuse)
        store.told.connect(self.message.tell)
        self.side.findings.picked.connect(lambda finding: self.page.bring_out(finding))
        self.side.findings.opened_at.connect(partial(go_to, self))
        self.band.picked.connect(self._pick)
        for key, button in self.trail.buttons.items():
            button.clicked.connect(lambda _=False, k=key: self.show_step(k))
        self.top.tree.clicked.connect(self.dialogs.trees)
        self.top.job.menu().aboutToShow.connect(
            lambda: fill_job_menu(self.top.job.menu(), self.settings, self.commands, self.jobs, self.kept)
        )
        QApplication.instance().focusChanged.connect(self._focus_moved)  # type: ignore[union-attr]

    # Following the document ----------------------------------------------------------------------------

    @property
    def page(self) -> Page:
        """The page that is open."""
        return cast(Page, self.stack.currentWidget())

    def _refresh(self, snapshot: Snapshot) -> None:
        result, speech = snapshot.result, snapshot.speech
        self._refresh_names()
        self.page.refresh(snapshot)
        if not self.store.dragging:
            tell_drawings(self.stack.currentWidget(), snapshot)
        self.side.refresh(snapshot)
        self.guide.refresh(snapshot, self.step)
        self.band.show_findings(result.findings, speech)
        self.trail.show_findings(result.findings, result.verdict.level)
        self.trail.show_read(snapshot.plan.as_cut.is_read)
        self.trail.show_left(sum(plan.state in STANDS for plan in snapshot.job.trees))
        if not self.store.dragging:
            self.commands.refresh()

    def _refresh_names(self) -> None:
        """Top bar and title: what is looked at, and whether its file has all of it."""
        snapshot = self.store.snapshot
        self.top.refresh(snapshot, unsaved=self.store.unsaved)
        name = self.store.path.name if self.store.path else snapshot.job.name
        title = f"{'• ' if self.store.unsaved else ''}{name} – Plain Compass"
        if title != self.windowTitle():
            self.setWindowTitle(title)

    def show_step(self, key: str) -> None:
        """Open a step's page."""
        self.stack.setCurrentWidget(self.pages[key])
        self.step = key
        self.page.refresh(self.store.snapshot)
        is_step = key in self.trail.buttons
        # A mode of its own has nothing of the job round it.
        for part in (self.trail, self.side, self.band):
            part.setVisible(is_step)
        self.top.show_mode("" if is_step else tr("Practice"))
        if not is_step:
            return
        self.trail.buttons[key].setChecked(True)
        tell_drawings(self.stack.currentWidget(), self.store.snapshot)
        self.side.follow_step(key)
        self.guide.refresh(self.store.snapshot, key)

    def _pick(self, finding: Finding) -> None:
        self.side.show_face(0)
        self.side.findings.show_picked(finding)

    def _focus_moved(self, _: QWidget | None, now: QWidget | None) -> None:
        if isinstance(now, FieldEdit):
            self.last_field = now
        if now is not None and self.around.isAncestorOf(now):
            self.around.ensureWidgetVisible(now)

    # Looks ---------------------------------------------------------------------------------------------

    def show_scheme(self, name: str) -> None:
        """Light or dark, for every part of the window."""
        self.scheme = name
        self.setStyleSheet(style_sheet(self.colours))
        self.dress(self)
        self.side.findings.delegate.palette_in_use = self.colours
        self.update()

    @property
    def colours(self) -> Palette:
        """Those of the scheme in use."""
        return DARK if self.scheme == "dark" else LIGHT

    def dress(self, whole: QWidget) -> None:
        """Hand the scheme's colours to everything that paints itself."""
        for widget in [whole, *whole.findChildren(QWidget)]:
            if hasattr(widget, "palette_in_use"):
                widget.palette_in_use = self.colours

    def toggle_scheme(self) -> None:
        """The other scheme, remembered."""
        self.show_scheme("light" if self.scheme == "dark" else "dark")
        self.settings.remember("scheme", self.scheme)

    # Coming and going ----------------------------------------------------------------------------------

    def settle(self) -> None:
        """Take what is being typed into the document."""
        focused = self.focusWidget()
        if isinstance(focused, FieldEdit):
            focused.commit()
        elif isinstance(focused, QLineEdit):
            focused.editingFinished.emit()

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """A job file or a tree list may be dropped anywhere."""
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """Every file dropped goes to its reader."""
        self.arrivals.take([Path(url.toLocalFile()) for url in event.mimeData().urls() if url.isLocalFile()])

    def closeEvent(self, event: QCloseEvent) -> None:
        """Nothing unsaved goes without a word."""
        self.settle()
        keep = False
        if self.store.unsaved:
            answer = self.jobs.ask_unsaved()
            if answer == "stay" or (answer == "save" and not self.jobs.save()):
                event.ignore()
                return
            keep = answer == "keep"
            if keep and not self.autosave.write():
                # What could not be kept is not left behind: the sentence says why, and the work stays open.
                event.ignore()
                return
        self.settings.remember("geometry", self.saveGeometry())
        self.autosave.end(keep=keep)
        self.falls.stop()
        self.side.mends.stop()
        self.book.close()
        event.accept()
