"""What can be done with a stump: read it in few words, or take back what was read."""

from __future__ import annotations

from datetime import date

from ....job.stump_edits import as_planned, on_its_mark, unread
from ...frame.commands import Command
from ...frame.desk import Desk


class StumpActions:
    """The commands of the group ``stump``."""

    def __init__(self, desk: Desk) -> None:
        self.desk, self.store = desk, desk.store

    def commands(self) -> list[Command]:
        """Cut as planned, on its mark, nothing read."""
        return [
            Command("stump.planned", "Cut as planned", "Alt+P", self.planned),
            Command("stump.mark", "Lies on its mark", "Alt+M", self.mark),
            Command("stump.unread", "Nothing read", "", self.unread, self._is_read),
        ]

    def _is_read(self) -> bool:
        return self.store.snapshot.plan.as_cut.is_read

    def planned(self) -> None:
        """What was not read of the cut came out as planned."""
        tree_id, day = self.store.tree_id, date.today().isoformat()
        self.desk.show_step("stump")
        self.store.change("cut as planned", lambda job: as_planned(job, tree_id, day))

    def mark(self) -> None:
        """The top lies on its mark."""
        tree_id = self.store.tree_id
        self.desk.show_step("stump")
        self.store.change("lies on its mark", lambda job: on_its_mark(job, tree_id))

    def unread(self) -> None:
        """The stump as if nobody had looked at it."""
        tree_id = self.store.tree_id
        self.store.change("nothing read off the stump", lambda job: unread(job, tree_id))
