"""What of one's own stumps is used in plans: a mean and a spread for each quantity that was switched on."""

from __future__ import annotations

from dataclasses import replace

from ..base.frozen import dataclass
from ..base.kept import kept
from ..base.quantity import Kind, name, quantity
from ..tree.wood import Indicative

AIM, LEFT, RIGHT, HEIGHT, LEAN = "aim", "hinge_left", "hinge_right", "height", "lean"
BLOWS, LIFT, SPLIT, TIME = "blows", "lift", "split", "time"
FACTORS = (BLOWS, LIFT, SPLIT, TIME)
"""Quantities whose mean is a factor: on a constant of the model, or on the minutes a tree takes."""
MOST_FACTOR = 3.0
"""Whatever a file says, no constant is moved farther."""


@dataclass(frozen=True, slots=True)
class Used:
    """One quantity in use.

    Attributes:
        key: which; with a class or a way of measuring behind a colon, as in ``split:ready`` and ``height:clinometer``.
        faller: whose stumps it is from; count how many.
        mean, spread: of his errors, in the quantity's own unit; of a factor the factor itself, and no spread.
    """

    key: str = name("aim", "quantity")
    faller: str = name("", "faller")
    count: int = quantity(0, kind=Kind.COUNT, low=0, high=10_000_000, label="stumps", help="How many it is from.")
    mean: float = quantity(0.0, kind=Kind.NUMBER, low=-90.0, high=90.0, label="mean", help="Middle of the errors.")
    spread: float = quantity(0.0, kind=Kind.NUMBER, low=0.0, high=90.0, label="spread", help="Of the next one.")


@dataclass(frozen=True, slots=True)
class Hand:
    """All that is in use; nothing, to begin with."""

    used: tuple[Used, ...] = ()

    def get(self, key: str) -> Used | None:
        """What is in use of a quantity; None where the shipped value is."""
        return next((each for each in self.used if each.key == key), None)

    @property
    def count(self) -> int:
        """Stumps it rests on: the most of any quantity."""
        return max((each.count for each in self.used), default=0)


SHIPPED = Hand()
"""Nothing learned is used."""


def with_used(hand: Hand, used: Used) -> Hand:
    """One more quantity in use, or another value of it."""
    return Hand((*(each for each in hand.used if each.key != used.key), used))


def without(hand: Hand, key: str) -> Hand:
    """A quantity by its shipped value again."""
    return Hand(tuple(each for each in hand.used if each.key != key))


@kept("own constants", 8)
def _factors(used: tuple[Used, ...]) -> dict[str, float]:
    return {each.key: min(max(each.mean, 1 / MOST_FACTOR), MOST_FACTOR) for each in used if _of(each.key) in FACTORS}


def _of(key: str) -> str:
    return key.partition(":")[0]


def time_factor(hand: Hand) -> float:
    """How many times as long as told one's own trees take; 1 where that is not in use."""
    return _factors(hand.used).get(TIME, 1.0)


def with_factors(constants: Indicative, hand: Hand) -> Indicative:
    """The constants with those that were learned moved by their factors."""
    factors = _factors(hand.used)
    if not factors:
        return constants
    peaks = {each: at * factors.get(f"{LIFT}:{each}", 1.0) for each, at in constants.law_peaks_at.items()}
    splits = {each: of * factors.get(f"{SPLIT}:{each}", 1.0) for each, of in constants.fracture_energy_J_m2.items()}
    return replace(
        constants,
        blow_efficiency=constants.blow_efficiency * factors.get(BLOWS, 1.0),
        law_peaks_at=peaks,
        fracture_energy_J_m2=splits,
    )
