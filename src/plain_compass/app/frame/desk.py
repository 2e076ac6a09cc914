"""What actions and menus may ask of their window: small protocols, so that none of them knows the window itself."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtWidgets import QWidget

from .autosave import Autosave
from .commands import Commands
from .dialogs import Dialogs
from .fall_watch import FallWatch
from .field_edit import FieldEdit
from .late import Late
from .log_book import LogBook
from .message_bar import MessageBar
from .page import Page
from .settings import Settings
from .side_column import SideColumn
from .store import Store
from .top_bar import TopBar


class Desk(Protocol):
    """The document, where to say something about it, and what is in front of the person.

    Attributes:
        pages: those of the steps, made when first opened.
        last_field: the dimension that was typed into last.
        step: key of the page that is open.
    """

    store: Store
    settings: Settings
    autosave: Autosave
    message: MessageBar
    last_field: FieldEdit | None
    commands: Commands
    pages: Late
    falls: FallWatch
    book: LogBook
    step: str

    @property
    def frame(self) -> QWidget:
        """The widget over which dialogs open."""
        ...

    @property
    def page(self) -> Page:
        """The page that is open."""
        ...

    def show_step(self, key: str) -> None:
        """Open a step's page."""
        ...

    def settle(self) -> None:
        """Take what is being typed into the document."""
        ...

    def close(self) -> bool:
        """Close the window, unless something unsaved keeps it open."""
        ...


class Room(Desk, Protocol):
    """The same with the parts of the window that can be turned over, opened and dressed."""

    side: SideColumn
    top: TopBar
    dialogs: Dialogs

    def toggle_scheme(self) -> None:
        """Light or dark."""
        ...
