"""What people have decided of a block: which of two comes first, which lays stay, from when on, until when."""

from __future__ import annotations

from dataclasses import dataclass

from ..base.quantity import Kind, choice, name, quantity
from .forecast import Hour

LAYS = {"free": "may be laid another way", "fixed": "stays on its lay"}


@dataclass(frozen=True, slots=True)
class First:
    """One tree that is to come before another."""

    earlier: str = name("", "earlier tree")
    later: str = name("", "later tree")


@dataclass(frozen=True, slots=True)
class OfTree:
    """What was decided of one tree.

    Attributes:
        not_before, not_after: days, as 2026-09-01; empty where the season does not matter.
        wind_m_s: mean wind up to which it may be felled; None where nobody has said.
    """

    id: str = name("", "tree")
    lay: str = choice("free", LAYS, "its lay", "Whether the order may turn it to another lay.")
    not_before: str = name("", "not before")
    not_after: str = name("", "not after")
    wind_m_s: float | None = quantity(
        None,
        kind=Kind.SPEED,
        low=0.0,
        high=30.0,
        label="wind limit",
        step=0.5,
        optional=True,
        help="Mean wind up to which it may be felled.",
    )


@dataclass(frozen=True, slots=True)
class BlockWanted:
    """All of it.

    Attributes:
        begins: first day, as 2026-10-01; empty for today.
        forecast: wind hour by hour, in order; empty where nobody has brought one.
    """

    day_s: float = quantity(
        21600.0,
        kind=Kind.TIME,
        low=1800.0,
        high=50400.0,
        label="work a day",
        step=1800.0,
        help="Hours of work a day, breaks left out.",
    )
    begins: str = name("", "first day")
    first: tuple[First, ...] = ()
    forecast: tuple[Hour, ...] = ()
    trees: tuple[OfTree, ...] = ()

    def of(self, tree_id: str) -> OfTree:
        """What was decided of a tree."""
        return next((each for each in self.trees if each.id == tree_id), OfTree(tree_id))
