"""The menu of the top bar, made anew each time it opens."""

from __future__ import annotations

from PySide6.QtWidgets import QMenu

from ...job.language import tr
from .commands import Commands
from .job_actions import JobActions
from .kept_work import KeptWork
from .plain_label import plain_tip
from .settings import Settings

FIRST = ["job.new", "job.open"]
"""Recent jobs and kept work stand behind the ways of opening one."""
SAVING = ["", "job.save", "job.save_as", ""]
GROUPED: dict[str, list[str]] = {
    tr("In and out"): [
        "list.import",
        "site.import",
        "",
        "card.print",
        "card.pdf",
        "card.all",
        "card.strip",
        "card.survey",
        "",
        "list.export",
        "list.readings",
        "site.export",
        "fall.export",
        "",
        "copy.picture",
        "copy.svg",
    ],
    tr("Trees"): [
        "view.trees",
        "",
        "tree.add",
        "tree.rename",
        "tree.remove",
        "",
        "answer.next",
        "answer.species",
        "answer.round",
        "answer.sound",
        "answer.leave",
        "answer.ground",
    ],
    tr("Cut"): [
        "cut.suggest",
        "tree.redesign",
        "fall.aim",
        "practice.read",
        "",
        "wedge.add",
        "wedge.remove",
        "wedge.stack",
    ],
    tr("Stump"): [
        "stump.planned",
        "stump.mark",
        "stump.unread",
        "",
        "stump.log",
        "stump.take",
        "stump.import",
        "stump.export",
        "",
        "stump.yours",
        "stump.days",
        "stump.days_csv",
        "stump.days_pdf",
    ],
    tr("Block"): [
        *("block.take", "block.fix", "block.free", ""),
        *("block.zones", "block.hands", "block.forecast", "block.keep_kit", "block.take_kit", ""),
        *("block.cards", "block.print", "block.sheet", "", "job.coupe"),
    ],
    tr("Practice"): [
        *("train.open", "", "train.work", "train.make", "train.sheet", "train.keep", ""),
        *("train.record", "train.eye"),
    ],
    tr("View and help"): [
        "view.units",
        "view.words",
        "view.dark",
        "",
        "view.zoom_in",
        "view.zoom_out",
        "view.fit",
        "",
        "edit.history",
        "",
        "help.this",
        "help.lessons",
        "view.language",
        "",
        "job.demo",
        "help.first",
        "help.keys",
        "help.find",
    ],
}
"""Menus of their own, none longer than a hand of things at a time."""
LAST = ["", "job.quit"]


def fill_job_menu(menu: QMenu, settings: Settings, commands: Commands, jobs: JobActions, kept: KeptWork) -> None:
    """Everything about the job, and the jobs of late."""
    menu.clear()
    commands.fill(menu, FIRST)
    recent = menu.addMenu(tr("Recent jobs"))
    for path in settings.recent():
        action = recent.addAction(path.name)
        action.setToolTip(plain_tip(str(path)))
        action.triggered.connect(lambda _=False, p=path: jobs.open(p))
    recent.setEnabled(bool(settings.recent()))
    kept.fill(menu.addMenu(tr("Kept work")))
    commands.fill(menu, SAVING)
    for title, names in GROUPED.items():
        commands.fill(menu.addMenu(title), names)
    commands.fill(menu, LAST)
