"""The two menus of the top bar, made anew each time they open."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ...job.tables import wood_of
from .plain_label import plain_tip

if TYPE_CHECKING:
    from .window import Window

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


def fill_tree_menu(window: Window) -> None:
    """The trees of the job, the one looked at ticked."""
    menu = window.top.tree.menu()
    menu.clear()
    for plan in window.store.snapshot.job.trees:
        species = wood_of(plan.tree.species).name.lower()
        action = menu.addAction(f"{plan.id}  {species}")
        action.setCheckable(True)
        action.setChecked(plan.id == window.store.tree_id)
        action.triggered.connect(lambda _=False, tree=plan.id: window.store.look_at(tree))
    menu.addSeparator()
    window.commands.fill(menu, ["tree.add", "tree.rename", "tree.remove"])


def fill_job_menu(window: Window) -> None:
    """Everything about the job, and the jobs of late."""
    menu = window.top.job.menu()
    menu.clear()
    window.commands.fill(menu, JOB_MENU[:RECENT_AFTER])
    recent = menu.addMenu("Recent jobs")
    for path in window.settings.recent():
        action = recent.addAction(path.name)
        action.setToolTip(plain_tip(str(path)))
        action.triggered.connect(lambda _=False, p=path: window.jobs.open(p))
    recent.setEnabled(bool(window.settings.recent()))
    window.kept.fill(menu.addMenu("Kept work"))
    window.commands.fill(menu, JOB_MENU[RECENT_AFTER:])
