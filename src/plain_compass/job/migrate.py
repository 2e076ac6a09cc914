"""Older job files brought up to today's format, one version at a time."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from .document import VERSION

Raw = dict[str, Any]


def _from_1(raw: Raw) -> Raw:
    """Version 2 added buttresses, second stems, limbs, soundings, the walk round and readings.

    Nothing moved: what a version 1 file does not say begins unanswered. The number went up because a program that
    knows only version 1 would leave out a second stem's weight without a word.
    """
    return raw


def _from_2(raw: Raw) -> Raw:
    """Version 3 says which values of a tree are stand-ins; a file that does not say has none.

    The number went up because a program that knows only version 2 would take a stand-in for a measurement.
    """
    return raw


STEPS: dict[int, Callable[[Raw], Raw]] = {1: _from_1, 2: _from_2}


def migrated(raw: Raw) -> Raw:
    """The document as today's version; ``raw`` itself is not changed."""
    found = dict(raw)
    for version in range(int(raw["version"]), VERSION):
        found = {**STEPS[version](found), "version": version + 1}
    return found
