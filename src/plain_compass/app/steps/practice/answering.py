"""What an answer is given with: a number that is typed or one of several that is picked, and how sure one is."""

from __future__ import annotations

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ....job.language import tr
from ....job.practice_words import Question
from ...drawing.palette import font
from ...frame.fitted_button import FittedButton
from ...frame.plain_label import PlainLabel

SURE = (0.2, 0.4, 0.6, 0.8, 0.95)
"""How sure one may say one is: finer than that nobody knows it."""
SURE_WORDS = (tr("a guess"), tr("hardly"), tr("rather"), tr("fairly"), tr("certain"))


class OptionList(QListWidget):
    """Answers to pick from; a number key picks one, Enter answers.

    Signals:
        entered: it is to be answered.
    """

    entered = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Answers"))
        self.setFont(font(14))
        self.setWordWrap(True)
        self.itemDoubleClicked.connect(lambda _: self.entered.emit())

    def event(self, event: QEvent) -> bool:
        """Here a number is an answer, not a step of the work."""
        is_asked = isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride
        if is_asked and isinstance(event, QKeyEvent) and self._picks(event) >= 0:
            event.accept()
            return True
        return super().event(event)

    def _picks(self, event: QKeyEvent) -> int:
        """Row that a key picks; -1 for none."""
        number = event.key() - Qt.Key.Key_1
        plain = event.modifiers() in (Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.KeypadModifier)
        return number if plain and 0 <= number < self.count() else -1

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Numbers pick."""
        number = self._picks(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.entered.emit()
        elif number >= 0:
            self.setCurrentRow(number)
        else:
            super().keyPressEvent(event)


class AnswerEdit(QLineEdit):
    """A line whose Enter is its own: it answers, and does not go on to the next as well."""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter ends here."""
        super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            event.accept()


class Answering(QWidget):
    """All of it.

    Signals:
        answered: Enter was pressed.
        typed: a design was changed.
    """

    answered = Signal()
    typed = Signal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.edit, self.options = AnswerEdit(), OptionList()
        self.edit.setFont(font(15))
        self.edit.returnPressed.connect(self.answered)
        self.edit.textEdited.connect(self.typed)
        self.options.entered.connect(self.answered)
        self.stack = QStackedWidget()
        typing = QWidget()
        column = QVBoxLayout(typing)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.edit)
        column.addStretch()
        for each in (typing, self.options):
            self.stack.addWidget(each)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(6)
        whole.addWidget(self.stack, 1)
        head = PlainLabel(tr("How sure are you?"))
        head.setFont(font(13))
        whole.addWidget(head)
        whole.addLayout(self._sureness())

    def _sureness(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(4)
        self.sure_buttons = QButtonGroup(self)
        for number, (share, words) in enumerate(zip(SURE, SURE_WORDS, strict=True)):
            button = FittedButton()
            button.setText(f"{words}\n{100 * share:.0f} %")
            button.setFont(font(12, narrow=True))
            button.setCheckable(True)
            button.setProperty("framed", True)
            button.setProperty("close", True)
            button.setAccessibleName(tr("{words}, {percent:.0f} percent sure", words=words, percent=100 * share))
            button.setToolTip(f"Alt+{number + 1}")
            button.setShortcut(f"Alt+{number + 1}")
            self.sure_buttons.addButton(button, number)
            button.fill_row()
            row.addWidget(button, 1)
        self.sure_buttons.button(2).setChecked(True)
        return row

    @property
    def sure(self) -> float:
        """How sure, as it is set."""
        return SURE[max(self.sure_buttons.checkedId(), 0)]

    @property
    def answer(self) -> str:
        """As it stands: what was typed, or the key of what is picked; empty where nothing is."""
        if self.stack.currentIndex() == 0:
            return self.edit.text().strip()
        item = self.options.currentItem()
        return "" if item is None else str(item.data(Qt.ItemDataRole.UserRole))

    def ask(self, question: Question, asks: str, design: str) -> None:
        """Made ready for another question.

        Args:
            design: how a design is written, in the words the person speaks.
        """
        self.setEnabled(True)
        self.options.clear()
        for number, (key, words) in enumerate(question.options, 1):
            item = QListWidgetItem(f"{number}  {words}")
            item.setData(Qt.ItemDataRole.UserRole, key)
            self.options.addItem(item)
        self.edit.clear()
        named = {
            "cut": tr("Your design"),
            "height": tr("Height"),
            "lean": tr("Lean"),
            "weight": tr("Left or right"),
            "reach": tr("Reach"),
        }
        self.edit.setAccessibleName(named.get(asks, tr("Answer")))
        self.edit.setPlaceholderText(design if asks == "cut" else tr("in your own units"))
        self.stack.setCurrentIndex(1 if question.options else 0)
        (self.options if question.options else self.edit).setFocus()
