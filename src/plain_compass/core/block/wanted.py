"""What people have decided of a block: which of two comes first, which lays stay, from when on, until when."""

from __future__ import annotations

from ..base.frozen import dataclass
from ..base.quantity import Kind, choice, name, quantity
from .crew import Worker
from .forecast import Hour
from .hours import Hours
from .kit_sets import KitSet
from .progress import Progress

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
        starts_s, break_at_s: seconds after midnight.
        forecast: wind hour by hour, in order; empty where nobody has brought one.
        crew: who is there; kits: what is carried, by saw or person; progress: what was done, in order.
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
    starts_s: float = quantity(
        28800.0,
        kind=Kind.TIME,
        low=0.0,
        high=72000.0,
        label="work begins",
        step=900.0,
        help="Time of day, in seconds after midnight.",
    )
    break_at_s: float = quantity(
        43200.0, kind=Kind.TIME, low=0.0, high=86400.0, label="break at", step=900.0, help="When the long break begins."
    )
    break_s: float = quantity(
        1800.0, kind=Kind.TIME, low=0.0, high=14400.0, label="break", step=300.0, help="How long it is; 0 for none."
    )
    begins: str = name("", "first day")
    first: tuple[First, ...] = ()
    forecast: tuple[Hour, ...] = ()
    trees: tuple[OfTree, ...] = ()
    crew: tuple[Worker, ...] = ()
    kits: tuple[KitSet, ...] = ()
    progress: tuple[Progress, ...] = ()

    @property
    def hours(self) -> Hours:
        """Its days by the clock."""
        return Hours(*(each / 60.0 for each in (self.starts_s, self.break_at_s, self.break_s, self.day_s)))

    def of(self, tree_id: str) -> OfTree:
        """What was decided of a tree."""
        return next((each for each in self.trees if each.id == tree_id), OfTree(tree_id))
