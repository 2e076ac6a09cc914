"""The menu of the top bar, made anew each time it opens."""

from __future__ import annotations

from PySide6.QtWidgets import QMenu

from .commands import Commands
from .job_actions import JobActions
from .kept_work import KeptWork
from .plain_label import plain_tip
from .settings import Settings

JOB_MENU = [
    "job.new",
    "job.open",
    "job.demo",
    "",
    "job.save",
    "job.save_as",
    "",
    "list.import",
    "list.export",
    "list.readings",
    "site.import",
    "site.export",
    "",
    "fall.aim",
    "fall.export",
    "card.pdf",
    "card.strip",
    "copy.picture",
    "copy.svg",
    "",
    "tree.add",
    "tree.rename",
    "tree.remove",
    "tree.redesign",
    "cut.suggest",
    "practice.read",
    "",
    "view.units",
    "view.words",
    "view.dark",
    "",
    "job.quit",
]
RECENT_AFTER = 3
"""Recent jobs stand behind the ways of opening one."""


def fill_job_menu(menu: QMenu, settings: Settings, commands: Commands, jobs: JobActions, kept: KeptWork) -> None:
    """Everything about the job, and the jobs of late."""
    menu.clear()
    commands.fill(menu, JOB_MENU[:RECENT_AFTER])
    recent = menu.addMenu("Recent jobs")
    for path in settings.recent():
        action = recent.addAction(path.name)
        action.setToolTip(plain_tip(str(path)))
        action.triggered.connect(lambda _=False, p=path: jobs.open(p))
    recent.setEnabled(bool(settings.recent()))
    kept.fill(menu.addMenu("Kept work"))
    commands.fill(menu, JOB_MENU[RECENT_AFTER:])
