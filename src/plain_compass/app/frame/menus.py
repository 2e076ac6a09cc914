"""The two menus of the top bar, made anew each time they open."""

from __future__ import annotations

from PySide6.QtWidgets import QMenu

from ...job.tables import wood_of
from .commands import Commands
from .job_actions import JobActions
from .kept_work import KeptWork
from .plain_label import plain_tip
from .settings import Settings
from .store import Store

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


def fill_tree_menu(menu: QMenu, store: Store, commands: Commands) -> None:
    """The trees of the job, the one looked at ticked."""
    menu.clear()
    for plan in store.snapshot.job.trees:
        species = wood_of(plan.tree.species).name.lower()
        action = menu.addAction(f"{plan.id}  {species}")
        action.setCheckable(True)
        action.setChecked(plan.id == store.tree_id)
        action.triggered.connect(lambda _=False, tree=plan.id: store.look_at(tree))
    menu.addSeparator()
    commands.fill(menu, ["tree.add", "tree.rename", "tree.remove"])


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
