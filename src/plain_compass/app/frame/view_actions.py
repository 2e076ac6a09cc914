"""Steps, view, copying, help: the commands that change what is seen and nothing else."""

from __future__ import annotations

from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from ...core.base.levels import FindingKind
from ...core.judge.findings import Finding
from ...core.judge.places import where_of
from ...job.language import tr
from .commands import Command
from .copying import copy_picture, copy_svg
from .desk import Room
from .edit_actions import EditActions
from .language_choice import LanguageChoice
from .trail import STEPS


def go_to(room: Room, finding: Finding) -> None:
    """Open the step where a finding is put right, and bring out there what it is about, its field where it has one."""
    where = where_of(finding.id)
    room.show_step(where.step)
    room.page.bring_out(finding)
    if finding.kind == FindingKind.UNKNOWN or where.field.startswith("person."):
        on_page = cast(QWidget, room.page).findChild(QWidget, where.field) if where.field else None
        if not room.side.show_field(where.field) and on_page is not None:
            on_page.setFocus(Qt.FocusReason.OtherFocusReason)


def view_commands(room: Room, edits: EditActions) -> list[Command]:
    """All commands of the groups ``step``, ``view``, ``copy`` and ``help``."""
    steps = [
        Command(f"step.{s.key}", s.name, str(s.number), lambda key=s.key: room.show_step(key))  # type: ignore[misc]
        for s in STEPS
    ]
    return [
        *steps,
        Command("view.sheet", tr("Findings or tree sheet"), "F2", lambda: room.side.next_face()),
        Command("view.zoom_in", tr("Nearer"), "Ctrl++", lambda: room.page.zoom(1.25)),
        Command("view.zoom_out", tr("Further"), "Ctrl+-", lambda: room.page.zoom(0.8)),
        Command("view.fit", tr("Whole drawing"), "Ctrl+0", lambda: room.page.fit()),
        Command("view.trees", tr("Trees of this job"), "F9", room.dialogs.trees),
        Command("view.menu", tr("Job menu"), "F10", lambda: room.top.job.showMenu()),
        Command("view.units", tr("Metric or imperial"), "Ctrl+U", edits.next_units),
        Command("view.words", tr("The other vocabulary"), "Ctrl+Shift+U", edits.next_words),
        Command("view.dark", tr("Light or dark"), "Ctrl+D", room.toggle_scheme),
        Command("view.language", tr("Language…"), "", LanguageChoice(room).change),
        Command("copy.picture", tr("Copy the drawing as a picture"), "Ctrl+Shift+C", lambda: copy_picture(room)),
        Command("copy.svg", tr("Copy the drawing as SVG"), "Ctrl+Alt+C", lambda: copy_svg(room)),
        Command("help.this", tr("Help on this"), "F1", lambda: room.dialogs.help(room.step)),
        Command(
            "help.explain",
            tr("Where this comes from"),
            "Shift+F1",
            lambda: room.dialogs.explain(room.side.findings.current_finding),
        ),
        Command("help.model", tr("How it reckons"), "", lambda: room.dialogs.help_page("model")),
        Command("help.words", tr("Words of the trade"), "", lambda: room.dialogs.help_page("terms")),
        Command("help.lessons", tr("Ten lessons"), "", lambda: room.dialogs.help_page("lessons")),
        Command("help.keys", tr("Keys"), "Ctrl+F1", room.dialogs.keys),
        Command("edit.history", tr("Steps so far…"), "Ctrl+H", room.dialogs.history),
        Command("help.find", tr("Find a command"), "Ctrl+Space", room.dialogs.find),
    ]
