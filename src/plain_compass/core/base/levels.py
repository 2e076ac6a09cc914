"""How bad a finding is and which limit state it belongs to."""

from __future__ import annotations

from enum import StrEnum


class Level(StrEnum):
    """From best to worst. Unknown outranks watch: what is not known may be a stop."""

    CLEAR = "clear"
    WATCH = "watch"
    UNKNOWN = "unknown"
    STOP = "stop"


class Group(StrEnum):
    """The limit states, in the order of the margin band."""

    BALANCE = "balance"
    FACE = "face"
    HINGE = "hinge"
    SPLIT = "split"
    WEDGE = "wedge"
    BAR = "bar"
    DECAY = "decay"
    AROUND = "around"
    WAY_OUT = "way_out"
    LANDING = "landing"


LEVELS = tuple(Level)
GROUPS = tuple(Group)
