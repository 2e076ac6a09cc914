"""Documents built from plain data: by plain checks, and by pydantic only where those find something to say."""

from __future__ import annotations

from typing import Any, TypeVar

from .document import Job, LogEntry
from .plain import DoubtError, plainly_built

T = TypeVar("T")


def built_from(cls: type[T], raw: dict[str, Any]) -> T:
    """One of a class from plain data, its ranges checked; DocumentError names the first field that is wrong."""
    try:
        return plainly_built(cls, raw)
    except DoubtError:
        from .schema import built_by_pydantic  # imported for files that are broken, not for all

        return built_by_pydantic(cls, raw)


def job_from_plain(raw: dict[str, Any]) -> Job:
    """A job from plain data; DocumentError names the first field that is wrong. Unknown fields are passed over."""
    return built_from(Job, without_head(raw))


def entry_from_plain(raw: dict[str, Any]) -> LogEntry:
    """An entry from plain data; DocumentError names the first field that is wrong. Unknown fields are passed over."""
    return built_from(LogEntry, raw)


# Writing -----------------------------------------------------------------------------------------------


def without_head(raw: dict[str, Any]) -> dict[str, Any]:
    """The body of a file without its format and version."""
    return {key: value for key, value in raw.items() if key not in ("format", "version")}
