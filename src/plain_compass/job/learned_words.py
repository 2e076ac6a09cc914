"""What was learned, in words: what a quantity is called, and how much it is off which way."""

from __future__ import annotations

from ..core.base.phrase import phrase
from ..core.base.quantity import Kind
from ..core.stump.hand import FACTORS, Hand
from ..core.stump.hand_facts import named, used_phrase
from ..core.stump.quantities import Known
from .words import Speech

WAYS = {
    "aim": ("left", "right"),
    "hinge_left": ("thicker", "thinner"),
    "hinge_right": ("thicker", "thinner"),
    "depth": ("deeper", "shallower"),
    "step": ("higher", "lower"),
    "height": ("too_tall", "too_short"),
    "lean": ("too_far", "too_little"),
}
"""Quantity -> what an error of it is called, more and less."""


def quantity_name(key: str, speech: Speech) -> str:
    """What it is called, with its class or way of measuring."""
    return speech.phrase(named(key))


def said(key: str, value: float, kind: str, speech: Speech) -> str:
    """An error, with the way it goes; of a factor how many times."""
    head = key.partition(":")[0]
    if head in FACTORS:
        return speech.tell(phrase("learned.times", value=f"{value:.2f}"))
    more, less = WAYS[head]
    shown = speech.show(abs(value), Kind.ANGLE if kind == Kind.ASIDE else kind)
    return speech.tell(phrase(f"learned.{more if value >= 0 else less}", value=shown))


def known_words(known: Known, speech: Speech) -> str:
    """One sentence: what is known, from how many, and what is shipped."""
    show = speech.show
    if known.normal is not None:
        kind = Kind.ANGLE if known.kind == Kind.ASIDE else known.kind
        if not known.count:
            return speech.phrase(phrase("learned.nothing", spread=show(known.shipped, kind)))
        return speech.phrase(
            phrase(
                "learned.known",
                said=said(known.key, known.normal.mean, known.kind, speech),
                spread=show(known.normal.next_spread, kind),
                count=float(known.count),
                shipped=show(known.shipped, kind),
            )
        )
    assert known.factor is not None
    if not known.count:
        return speech.phrase("learned.nothing_factor")
    low, high = known.factor.interval(0.9)
    return speech.phrase(
        phrase(
            "learned.factor",
            value=f"{known.factor.value:.2f}",
            low=f"{low:.2f}",
            high=f"{high:.2f}",
            count=float(known.count),
        )
    )


def hand_words(hand: Hand, speech: Speech) -> str:
    """Where something learned is used: from how many stumps; empty where nothing is."""
    return speech.phrase(used_phrase(hand)) if hand.used else ""
