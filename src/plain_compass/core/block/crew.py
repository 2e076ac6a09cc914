"""Who is there, with what each says of their own limits."""

from __future__ import annotations

from dataclasses import field

from ..base.frozen import dataclass
from ..base.quantity import name
from ..judge.who import Stated


@dataclass(frozen=True, slots=True)
class Worker:
    """One of the crew."""

    name: str = name("", "name")
    limits: Stated = field(default_factory=Stated)
