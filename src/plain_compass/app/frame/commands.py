"""Everything the person can do, as data: id, title, shortcut, when it can be done, and what it does."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QMenu, QToolButton, QWidget

from ...core.base.frozen import dataclass
from .fitted_button import FittedButton


def always() -> bool:
    """Can be done at any time."""
    return True


@dataclass(frozen=True, slots=True)
class Command:
    """One thing to do.

    Attributes:
        id: ``group.what``; the group is its heading in menus and on the shortcut sheet.
        title: what it says; a callable when that changes, such as "Undo face depth".
        shortcut: key sequence, empty for none.
        do: does it.
        enabled: whether it can be done now.
    """

    id: str
    title: str | Callable[[], str]
    shortcut: str
    do: Callable[[], object]
    enabled: Callable[[], bool] = always

    @property
    def words(self) -> str:
        """The title as it reads now."""
        return self.title if isinstance(self.title, str) else self.title()


class Commands:
    """The commands of one window, each with its action."""

    def __init__(self, owner: QWidget) -> None:
        self._owner = owner
        self._commands: dict[str, Command] = {}
        self._actions: dict[str, QAction] = {}

    def add(self, *commands: Command) -> None:
        """Register commands and bind their shortcuts to the window."""
        for command in commands:
            action = QAction(command.words, self._owner)
            if command.shortcut:
                action.setShortcut(QKeySequence(command.shortcut))
                action.setShortcutContext(Qt.ShortcutContext.WindowShortcut)
            action.triggered.connect(lambda _=False, run=command.do: run())
            self._owner.addAction(action)
            self._commands[command.id], self._actions[command.id] = command, action

    def __iter__(self) -> Iterator[Command]:
        return iter(self._commands.values())

    def run(self, name: str) -> None:
        """Do a command by its id, if it can be done."""
        command = self._commands[name]
        if command.enabled():
            command.do()

    def refresh(self) -> None:
        """Titles and enablement as they are now."""
        for name, command in self._commands.items():
            self._actions[name].setText(command.words)
            self._actions[name].setEnabled(command.enabled())

    def button(self, name: str, text: str = "") -> QToolButton:
        """A button for a command; it follows the command's title and enablement."""
        button = FittedButton()
        action = self._actions[name]
        command = self._commands[name]
        button.setObjectName(f"button:{name}")
        button.setFocusPolicy(Qt.FocusPolicy.TabFocus)

        def follow() -> None:
            button.setText(text or action.text())
            button.setEnabled(action.isEnabled())
            keys = f" ({command.shortcut})" if command.shortcut else ""
            button.setToolTip(action.text() + keys)
            button.setAccessibleName(action.text())

        follow()
        action.changed.connect(follow)
        button.clicked.connect(action.trigger)
        return button

    def fill(self, menu: QMenu, names: list[str]) -> None:
        """Put commands into a menu; an empty name is a separator."""
        for name in names:
            if name:
                menu.addAction(self._actions[name])
            else:
                menu.addSeparator()
