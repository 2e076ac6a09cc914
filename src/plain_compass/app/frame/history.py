"""Unlimited undo over whole documents, with named steps. Knows nothing of Qt."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...job.document import Job


@dataclass(frozen=True, slots=True)
class State:
    """A document and the tree that is being looked at."""

    job: Job
    tree_id: str


@dataclass(slots=True)
class History:
    """Past and future states; ``titles[i]`` names the step that led to ``states[i]``."""

    states: list[State]
    titles: list[str] = field(default_factory=lambda: [""])
    at: int = 0

    @property
    def now(self) -> State:
        """The state shown."""
        return self.states[self.at]

    @property
    def undo_title(self) -> str:
        """What undo would take back; empty when there is nothing."""
        return self.titles[self.at] if self.at else ""

    @property
    def redo_title(self) -> str:
        """What redo would do again; empty when there is nothing."""
        return self.titles[self.at + 1] if self.at + 1 < len(self.states) else ""

    def push(self, title: str, state: State, *, joins: bool = False) -> None:
        """Add a step; what had been undone is gone. A step that changes nothing is not kept.

        Args:
            joins: whether it becomes part of the last step when that has the same title, as typed text does.
        """
        if state == self.now:
            return
        if joins and self.at and self.titles[self.at] == title:
            del self.states[self.at + 1 :], self.titles[self.at + 1 :]
            self.states[self.at] = state
            return
        del self.states[self.at + 1 :], self.titles[self.at + 1 :]
        self.states.append(state)
        self.titles.append(title)
        self.at += 1

    def move(self, steps: int) -> State:
        """Undo (negative) or redo (positive), as far as there is anything."""
        self.at = min(max(self.at + steps, 0), len(self.states) - 1)
        return self.now
