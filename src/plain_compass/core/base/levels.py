"""How bad a finding is and which limit state it belongs to."""

from __future__ import annotations

from enum import StrEnum


class Level(StrEnum):
    """From best to worst. Unknown outranks watch: what is not known may be a stop."""

    CLEAR = "clear"
    WATCH = "watch"
    UNKNOWN = "unknown"
    STOP = "stop"


class FindingKind(StrEnum):
    """What sort of thing a finding is.

    A limit state holds with a chance of failing; something not looked at is unknown; a duty is done on the site before
    the saw starts; a fact is how the plan is made.
    """

    LIMIT = "limit"
    UNKNOWN = "unknown"
    DUTY = "duty"
    FACT = "fact"


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
