"""What is carried, by saw and by person, and all of it together."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ..base.frozen import dataclass
from ..base.quantity import Kind, choice, name, quantity
from ..design.kit import Kit

PACKED = {"yes": "packed", "no": "stays at home"}


def _count(label: str, high: int, help: str) -> int:
    found: int = quantity(0, kind=Kind.COUNT, low=0, high=high, label=label, step=1, help=help)
    return found


@dataclass(frozen=True, slots=True)
class KitSet:
    """What belongs to one saw, or to one person."""

    whose: str = name("", "whose")
    name: str = name("", "set")
    packed: str = choice("yes", PACKED, "packed", "Whether it comes along.")
    bar_m: float | None = quantity(
        None,
        kind=Kind.LENGTH,
        low=0.1,
        high=2.0,
        label="bar",
        step=0.01,
        optional=True,
        help="Usable length of the bar.",
    )
    wedges: int = _count("wedges", 24, "How many wedges are in it.")
    wedge_head_m: float = quantity(
        0.025,
        kind=Kind.LENGTH,
        low=0.005,
        high=0.1,
        label="wedge head",
        step=0.001,
        help="Thickness of a wedge's head.",
    )
    mauls: int = _count("mauls", 6, "What wedges are driven with.")
    levers: int = _count("levers", 6, "Felling levers, or hooks to turn a stem.")
    rope_m: float = quantity(
        0.0, kind=Kind.SPAN, low=0.0, high=500.0, label="rope", step=5.0, help="Length of rope; nothing without one."
    )
    pull_N: float = quantity(
        0.0, kind=Kind.FORCE, low=0.0, high=200_000.0, label="rope pull", step=500.0, help="Most that pulls on it."
    )
    sheaves: int = _count("sheaves", 12, "What leads a rope aside.")
    slings: int = _count("slings", 24, "What makes a rope fast to a stem.")
    signs: int = _count("signs", 24, "What closes a way.")


@dataclass(frozen=True, slots=True)
class Packed:
    """All that comes along; None of what nobody has listed."""

    bar_m: float
    wedges: float
    wedge_head_m: float
    pull_N: float
    mauls: float | None = None
    rope_m: float | None = None
    sheaves: float | None = None
    slings: float | None = None
    signs: float | None = None


def packed_of(sets: Sequence[KitSet], kit: Kit) -> Packed:
    """What the packed sets hold together; that of the plans' own kit where no sets are listed."""
    if not sets:
        return Packed(kit.bar_m, float(kit.wedge_count), kit.wedge_thickness_m, kit.pull_N)
    along = [each for each in sets if each.packed == "yes"]
    heads = [each.wedge_head_m for each in along if each.wedges]
    return Packed(
        bar_m=max((each.bar_m or 0.0 for each in along), default=0.0),
        wedges=_sum(each.wedges for each in along),
        wedge_head_m=min(heads, default=0.0),
        pull_N=max((each.pull_N for each in along), default=0.0),
        mauls=_sum(each.mauls for each in along),
        rope_m=max((each.rope_m for each in along), default=0.0),
        sheaves=_sum(each.sheaves for each in along),
        slings=_sum(each.slings for each in along),
        signs=_sum(each.signs for each in along),
    )


def _sum(counts: Iterable[int]) -> float:
    return float(sum(counts))
