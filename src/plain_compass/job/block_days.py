"""Days as people write them."""

from __future__ import annotations

from datetime import date

from ..core.base.errors import InputError
from .language import tr


def day_of(text: str, field: str) -> date:
    """A day as it is written; today where nothing is. Raises InputError."""
    if not text:
        return date.today()
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise InputError(field, text, reason=tr("a day is written as 2026-09-01")) from None
