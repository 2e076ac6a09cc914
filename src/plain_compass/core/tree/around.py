"""What is above and around the tree, and whether it may be felled. Every item begins unanswered."""

from __future__ import annotations

from dataclasses import fields

from ..base.frozen import dataclass
from ..base.quantity import bearing, choice

SEEN = {"unknown": "not looked", "no": "looked, none", "yes": "yes, there"}
GIVEN = {"unknown": "not asked", "yes": "yes", "no": "no", "not needed": "not needed here"}


@dataclass(frozen=True, slots=True)
class Around:
    """Answers of the walk round; ``unknown`` until somebody has looked or asked."""

    dead_limbs: str = choice("unknown", SEEN, "dead limbs above", "Dead wood in the crown that may come down first.")
    hung_pieces: str = choice(
        "unknown", SEEN, "hung pieces above", "Broken tops or limbs caught in this or the next crown."
    )
    vines: str = choice("unknown", SEEN, "vines", "Climbers that tie this crown to others.")
    tangled: str = choice("unknown", SEEN, "crown tangled", "Whether the crown is grown into a neighbour's.")
    tangled_deg: float = bearing("tangled towards", "Bearing in which the crowns are grown together.")
    wires: str = choice("unknown", SEEN, "wires in reach", "Wires within the tree's own length, on any side.")
    nests: str = choice("unknown", SEEN, "nests", "Nests in use in this tree or its neighbours.")
    roosts: str = choice("unknown", SEEN, "roost features", "Holes, splits and loose bark that bats may use.")
    leave: str = choice("unknown", GIVEN, "owner's leave", "Whether the owner has agreed to this tree being felled.")
    licence: str = choice(
        "unknown", GIVEN, "licence or permit", "Whether the felling permit the law asks for is there."
    )
    season: str = choice(
        "unknown", GIVEN, "season allows it", "Whether law and site allow felling at this time of year."
    )
    people_told: str = choice("unknown", GIVEN, "people told", "Whether everyone who may come near has been told.")


ABOVE = ("dead_limbs", "hung_pieces", "vines", "tangled", "wires")
LIFE = ("nests", "roosts")
LEAVE = ("leave", "licence", "season", "people_told")


def words_of(name: str) -> str:
    """What a person calls an item."""
    found: str = next(f.metadata["label"] for f in fields(Around) if f.name == name)
    return found


def with_answer(around: Around, names: tuple[str, ...], answer: str) -> tuple[str, ...]:
    """Those of the items that have this answer."""
    return tuple(name for name in names if getattr(around, name) == answer)
