"""What of one's own stumps a plan is made by, told as a fact of it."""

from __future__ import annotations

from ..base.levels import Group, Level
from ..base.phrase import Phrase, phrase
from ..judge.findings import Finding, as_fact
from .hand import Hand


def named(key: str) -> Phrase:
    """What a quantity is called, with its class or way of measuring."""
    head, _, which = key.partition(":")
    return phrase(f"learned.{head}", which=which)


def used_phrase(hand: Hand) -> Phrase:
    """From how many stumps, and what of them."""
    return phrase("learned.used", names=tuple(named(each.key) for each in hand.used), count=float(hand.count))


def hand_facts(hand: Hand) -> tuple[Finding, ...]:
    """One fact where anything learned is used; none else."""
    if not hand.used:
        return ()
    told, change = used_phrase(hand), Phrase("learned.change")
    found = Finding("learned.used", Group.LANDING, Level.CLEAR, None, None, "", None, told, change, "practice")
    return (as_fact(found),)
