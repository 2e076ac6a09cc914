"""Errors that name the field, the value that was given and what would be accepted."""

from __future__ import annotations

UNMARKED = str.maketrans("", "", "[]")
"""Takes the marks of the vocabulary's words out, where nobody has chosen one."""


class PlainCompassError(Exception):
    """Base of every error this program raises on purpose; its text is one plain sentence."""


class ReckoningError(PlainCompassError, ArithmeticError):
    """Numbers that run away: what was given cannot belong to one tree, and nothing is told of it."""

    def __init__(self, what: str) -> None:
        self.what = what
        super().__init__(
            f"{what} cannot be reckoned: its numbers run away. Look at a mass or centre that was measured and at sizes "
            "far from any tree's."
        )


class InputError(PlainCompassError, ValueError):
    """A value that cannot be worked with.

    Attributes:
        field: path of the field, such as ``cut.face.depth_m``.
        given: the value that was given.
        kind: what the value measures (see ``core.quantity.KINDS``), for showing it in a person's own units.
        low, high: what would be accepted, in the field's own SI unit; None where there is no such bound.
        reason: why, when bounds alone do not say it; a clause without full stop.
    """

    def __init__(
        self,
        field: str,
        given: object,
        *,
        kind: str = "number",
        low: float | None = None,
        high: float | None = None,
        reason: str = "",
    ) -> None:
        self.field = field
        self.given = given
        self.kind = kind
        self.low = low
        self.high = high
        self.reason = reason
        super().__init__(self.sentence())

    def sentence(self) -> str:
        """The error as one sentence in SI units, as the command line shows it."""
        because = f": {self.reason.translate(UNMARKED)}" if self.reason else ""
        return f"{self.field} is {_shown(self.given)}{because}; accepted: {self._accepted()}."

    def _accepted(self) -> str:
        if self.kind == "name":
            return "a name of one line"
        if self.low is not None and self.high is not None:
            return f"{_shown(self.low)} to {_shown(self.high)}"
        if self.high is not None:
            return f"up to {_shown(self.high)}"
        if self.low is not None:
            return f"{_shown(self.low)} or more"
        return "a finite number"


def _shown(value: object) -> str:
    if isinstance(value, float):
        return f"{value:.4g}"
    return repr(value) if isinstance(value, str) else str(value)
