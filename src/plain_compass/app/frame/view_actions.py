"""Steps, view, copying, help: the commands that change what is seen and nothing else."""

from __future__ import annotations

from typing import TYPE_CHECKING

from .commands import Command
from .copying import copy_picture, copy_svg
from .trail import STEPS

if TYPE_CHECKING:
    from .window import Window


def view_commands(window: Window) -> list[Command]:
    """All commands of the groups ``step``, ``view``, ``copy`` and ``help``."""
    steps = [
        Command(f"step.{s.key}", s.name, str(s.number), lambda key=s.key: window.show_step(key))  # type: ignore[misc]
        for s in STEPS
        if s.built
    ]
    return [
        *steps,
        Command("view.sheet", "Findings or tree sheet", "F2", lambda: window.side.next_face()),
        Command("view.zoom_in", "Nearer", "Ctrl++", lambda: window.page.zoom(1.25)),
        Command("view.zoom_out", "Further", "Ctrl+-", lambda: window.page.zoom(0.8)),
        Command("view.fit", "Whole drawing", "Ctrl+0", lambda: window.page.fit()),
        Command("view.trees", "Trees of this job", "F9", lambda: window.top.tree.showMenu()),
        Command("view.menu", "Job menu", "F10", lambda: window.top.job.showMenu()),
        Command("view.units", "Metric or imperial", "Ctrl+U", window.edits.next_units),
        Command("view.words", "The other vocabulary", "Ctrl+Shift+U", window.edits.next_words),
        Command("view.dark", "Light or dark", "Ctrl+D", window.toggle_scheme),
        Command("copy.picture", "Copy the drawing as a picture", "Ctrl+Shift+C", lambda: copy_picture(window)),
        Command("copy.svg", "Copy the drawing as SVG", "Ctrl+Alt+C", lambda: copy_svg(window)),
        Command("help.keys", "Keys", "F1", window.show_keys),
    ]
