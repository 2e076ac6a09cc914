"""The person who plans: how they pace, and what they say of their own limits."""

from __future__ import annotations

from dataclasses import field

from ..core.base.frozen import dataclass
from ..core.base.quantity import name, quantity
from ..core.judge.who import Stated
from .language import tr
from .units import PACE_M


@dataclass(frozen=True, slots=True)
class Person:
    """What a person's own measuring goes by, and what is theirs to fell."""

    pace_m: float = quantity(
        PACE_M,
        kind="length",
        low=0.3,
        high=1.5,
        label=tr("own pace"),
        step=0.01,
        help=tr("Length of your pace: walk 20 along a tape and divide."),
    )
    pace_spread_ratio: float = quantity(
        0.05,
        kind="ratio",
        low=0.005,
        high=0.3,
        label=tr("pace repeats to"),
        step=0.01,
        help=tr("How far your paced distances lie apart, as a share of the distance."),
    )
    limits: Stated = field(default_factory=Stated)
    name: str = name("", tr("your name"))
