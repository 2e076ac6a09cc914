"""A dimension that is typed in place: the one kind of number entry in the program."""

from __future__ import annotations

import math
from typing import Literal

from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QFocusEvent, QKeyEvent, QKeySequence, QMouseEvent
from PySide6.QtWidgets import QLineEdit, QWidget

from ...core.judge.unmeasured import STAND_INS
from ...job.fields import quantity_at
from ...job.language import tr
from ...job.stump_rows import Planned, planned_words
from ...job.tree_readings import path_taken
from ...job.typed import Typed, TypedError, parse_typed
from ...job.units import EXAMPLES
from ...job.words import Speech
from ...job.words.catalogue import capital
from ..drawing.palette import font
from .field_names import own_name
from .store import Snapshot, Store, now

READ = "as_cut."
"""How the paths begin of what is read off a stump."""


class FieldEdit(QLineEdit):
    """Shows one value of the document; Enter or leaving it sets the value, Escape restores it.

    What was typed stays in the field, marked, until it can be read; the arrow keys move it by its step.
    """

    def __init__(self, store: Store, path: str, parent: QWidget | None = None, *, as_girth: bool = False) -> None:
        super().__init__(parent)
        self.store, self.path = store, path
        self.quantity = quantity_at(path)
        self._as_girth = as_girth
        self._shown: str | None = None
        self._unmeasured = self._unread = False
        self._speech = Speech()
        self._label = ""
        self.setFont(font(14))
        # It paints all of itself, so the drawing under it can be painted without painting it again.
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.setObjectName(("girth:" if as_girth else "") + path)
        self.returnPressed.connect(self._entered)

    def refresh(self, snapshot: Snapshot) -> None:
        """Show the document's value. What was typed and could not be read stays until that value itself changes."""
        speech = snapshot.speech
        if not self.toolTip() or self._speech != speech:
            self._explain(speech)
        name = own_name(self._label, self.path, snapshot)
        if name != self.accessibleName():
            self.setAccessibleName(name)
        self._show_whether_measured(snapshot)
        text = self._formatted(snapshot)
        if text == self._shown:
            return
        self._shown = text
        self.setText(text)
        self._mark_wrong(False)
        if self.hasFocus():
            self.selectAll()

    def _show_whether_measured(self, snapshot: Snapshot) -> None:
        """A stand-in is no value to be read: the field stays empty and says that nothing was measured."""
        bare = self.path.removeprefix("tree.") in snapshot.plan.tree.stand_ins
        if self.path.startswith(READ):
            self._show_planned(snapshot)
        elif bare != self._unmeasured:
            self._unmeasured = bare
            self.setFont(font(11, narrow=True) if bare else font(14))
            self._mark("unmeasured", bare)
            self.setPlaceholderText(tr("not measured") if bare else tr("not taken") if self.quantity.optional else "")

    def _show_planned(self, snapshot: Snapshot) -> None:
        """Where a stump was not read yet: what was planned, pale."""
        bare = snapshot.value(self.path) is None
        if bare != self._unread:
            self._unread = bare
            self.setFont(font(11, narrow=True) if bare else font(14))
            self._mark("unmeasured", bare)
        planned = planned_words(self.path.removeprefix(READ), Planned(snapshot.plan, snapshot.result, snapshot.speech))
        self.setPlaceholderText(tr("plan {planned}", planned=planned) if planned else tr("not read"))

    def _formatted(self, snapshot: Snapshot) -> str:
        value = snapshot.value(self.path)
        if value is None or self._unmeasured:
            return ""
        return snapshot.speech.show(value * math.pi if self._as_girth else value, self.quantity.kind)

    def _explain(self, speech: Speech) -> None:
        self._speech, quantity = speech, self.quantity
        name = tr("girth") if self._as_girth else speech.label(quantity)
        scale = math.pi if self._as_girth else 1.0
        low, high = (speech.show(bound * scale, quantity.kind) for bound in (quantity.low, quantity.high))
        more = tr(", or a value ± its spread") if self.path.startswith("tree.") else ""
        self.setToolTip(
            tr(
                "{name}: {help}\nType for example {examples}{more}. Accepted: {low} to {high}. Arrow keys move it.",
                name=capital(name),
                help=speech.say(quantity.help),
                examples=EXAMPLES[quantity.kind],
                more=more,
                low=low,
                high=high,
            )
            + "".join(f"\n{meaning}" for meaning in speech.meanings(quantity.label))
        )
        self._label = name
        self.setAccessibleDescription(speech.say(quantity.help))
        self._unmeasured = False
        self.setPlaceholderText(tr("not taken") if quantity.optional else "")

    def _entered(self) -> None:
        """Set; from something that was not measured yet one walks on to the next that is not."""
        walks = self._unmeasured
        if self.commit():
            after = next_unmeasured(self.window(), self.path) if walks else None
            if after is not None:
                after.setFocus(Qt.FocusReason.TabFocusReason)
            self.selectAll()

    def commit(self) -> bool:
        """Set the value from the text; True when the document has it."""
        if self.text() == self._shown:
            return True
        typed = self._read()
        if typed is False:
            return False
        if not self._keep(typed):
            self._mark_wrong(True)
            return False
        text = self.text().strip()
        self._shown = None
        self.setModified(False)
        self._mark_wrong(False)
        self.refresh(self.store.snapshot)
        if typed is not None and typed.guessed:
            self.store.told.emit(tr("“{text}” is read as {what}.", text=text, what=self.text()))
        return True

    def _keep(self, typed: Typed | None) -> bool:
        """Set the value; one typed with its spread, or in paces, is kept as a reading."""
        title = f"{self.accessibleName()} {self.text().strip() or tr('not taken')}"
        if typed is None:
            return self.store.set(self.path, None, title)
        spread = typed.spread
        if spread is None and typed.paced:
            spread = self.store.snapshot.job.person.pace_spread_ratio * abs(typed.value)
        if spread is not None and self.path.startswith("tree."):
            by = "paced" if typed.paced else "typed"
            plan, note = self.store.snapshot.plan, self.text().strip()
            taken = path_taken(plan, self.path, (typed.value, spread), by, note, now())
            return self.store.record_reading(taken, title, self.path)
        return self.store.set(self.path, int(typed.value) if self.quantity.kind == "count" else typed.value, title)

    def _read(self) -> Typed | Literal[False] | None:
        """What was typed; False after saying why it cannot be read."""
        text = self.text().strip()
        if not text and self.quantity.optional:
            return None
        snapshot = self.store.snapshot
        try:
            depth = snapshot.result.parts.section.depth_m if self.quantity.kind == "length" else None
            typed = parse_typed(text, self.quantity.kind, snapshot.job.units, depth, snapshot.job.person.pace_m)
        except TypedError as error:
            self._mark_wrong(True)
            self.store.refused.emit(f"{self.accessibleName().capitalize()} {error.sentence()}")
            return False
        if self._as_girth and "girth" not in text.lower():
            spread = None if typed.spread is None else typed.spread / math.pi
            return Typed(typed.value / math.pi, spread, typed.paced, typed.guessed)
        return typed

    def _mark_wrong(self, wrong: bool) -> None:
        self._mark("wrong", wrong)

    def _mark(self, name: str, state: bool) -> None:
        """A state the style sheet shows."""
        if bool(self.property(name)) != state:
            self.setProperty(name, state)
            self.style().unpolish(self)
            self.style().polish(self)

    def event(self, event: QEvent) -> bool:
        """Undo and redo belong to the document while nothing is being typed here."""
        if event.type() == QEvent.Type.ShortcutOverride and self.text() == self._shown:
            assert isinstance(event, QKeyEvent)
            if event.matches(QKeySequence.StandardKey.Undo) or event.matches(QKeySequence.StandardKey.Redo):
                event.ignore()
                return False
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape restores, arrows move by the step, everything else types."""
        if event.key() == Qt.Key.Key_Escape:
            self._shown = None
            self.setModified(False)
            self._mark_wrong(False)
            self.refresh(self.store.snapshot)
            self.selectAll()
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._nudge(1 if event.key() == Qt.Key.Key_Up else -1)
        else:
            super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            # A field eats its own Return: the drawing under it has another use for the key.
            event.accept()

    def _nudge(self, direction: int) -> None:
        value = self.store.snapshot.value(self.path)
        if value is None or self._unmeasured:
            return
        quantity = self.quantity
        moved = value + direction * quantity.step
        if quantity.kind == "bearing":
            moved %= 360
        moved = min(max(moved, quantity.low), quantity.high)
        if quantity.kind == "count":
            moved = int(moved)
        self.store.set(self.path, moved, tr("{name} moved", name=self.accessibleName()))
        self.setModified(False)

    def focusInEvent(self, event: QFocusEvent) -> None:
        """Select the whole value, so that typing replaces it."""
        super().focusInEvent(event)
        self.selectAll()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """A click selects the whole value as well, unless somebody is in the middle of typing or selecting."""
        super().mouseReleaseEvent(event)
        if not self.isModified() and not self.hasSelectedText():
            self.selectAll()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        """Leaving the field sets the value."""
        super().focusOutEvent(event)
        self.commit()


def to_measure(window: QWidget) -> None:
    """The keyboard to what is to be measured first."""
    first = next_unmeasured(window)
    if first is not None:
        first.setFocus(Qt.FocusReason.OtherFocusReason)


def next_unmeasured(window: QWidget, after: str = "") -> FieldEdit | None:
    """The field in sight that is to be measured next, in the order in which it is best taken; none when all are.

    Args:
        after: path of the one that was taken last.
    """
    order = [f"tree.{path}" for path in STAND_INS]
    bare = {
        field.path: field
        for field in window.findChildren(FieldEdit)
        if field._unmeasured and field.isVisible() and field.path in order
    }
    start = order.index(after) + 1 if after in order else 0
    return next((bare[path] for path in (*order[start:], *order[:start]) if path in bare), None)
