"""Files of this program that begin with what they are: a field for the format, one for its version, then the body."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, NamedTuple, TypeVar

from ..core.base.errors import PlainCompassError
from .built import built_from, without_head
from .disk import JobFileError, read_text
from .language import tr
from .plain import plain_of

T = TypeVar("T")


class Head(NamedTuple):
    """What a sort of file begins with.

    Attributes:
        format, version: of it; is_none: what is said of a file that is none of them.
    """

    format: str
    version: int
    is_none: str


def headed_text(head: Head, value: Any) -> str:
    """A frozen dataclass as such a file."""
    plain = {"format": head.format, "version": head.version, **plain_of(value)}
    return json.dumps(plain, indent=1, ensure_ascii=False) + "\n"


def read_headed(cls: type[T], path: Path, head: Head) -> T:
    """What a file holds, its ranges checked. Raises JobFileError with a sentence naming what is wrong."""
    text, file = read_text(path), path.name
    try:
        raw: Any = json.loads(text)
    except (ValueError, RecursionError):
        raise JobFileError(tr("{file} is broken: it is no JSON.", file=file)) from None
    if not isinstance(raw, dict) or raw.get("format") != head.format:
        raise JobFileError(
            tr(
                "{file} {is_none}: its field “format” should say {format}.",
                file=file,
                is_none=head.is_none,
                format=head.format,
            )
        )
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or not 1 <= version <= head.version:
        raise JobFileError(
            tr(
                "{file}: field “version” is {version!r}; this program reads up to {known}.",
                file=file,
                version=version,
                known=head.version,
            )
        )
    try:
        return built_from(cls, without_head(raw))
    except PlainCompassError as error:
        raise JobFileError(f"{file}: {error}") from None
