"""What became of the trees of a block, and when: the day goes on from there."""

from __future__ import annotations

from ..base.frozen import dataclass
from ..base.quantity import Kind, name, quantity


@dataclass(frozen=True, slots=True)
class Progress:
    """One tree whose state was said.

    Attributes:
        at: when, as 2026-12-01T09:40; state: as a tree's state.
        took_min: minutes of work since what was said before it on that day; None where nobody can say.
        told_min: minutes that were told of it, with the walk there; None where nobody reckoned them.
    """

    tree: str = name("", "tree")
    state: str = name("", "state")
    at: str = name("", "when")
    took_min: float | None = quantity(
        None, kind=Kind.NUMBER, low=0.0, high=1440.0, label="minutes", optional=True, help="Since the one before."
    )
    told_min: float | None = quantity(
        None, kind=Kind.NUMBER, low=0.0, high=1e6, label="minutes told", optional=True, help="As they were reckoned."
    )
