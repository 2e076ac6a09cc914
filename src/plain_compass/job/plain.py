"""Documents as plain data and back, read by plain checks alone; ``built`` asks pydantic where those do not vouch.

The checks are the declarations' own, in the order of the fields, and accept nothing that pydantic does not; what
they do not accept is given to pydantic, which says in a sentence what is wrong, or takes it after all. A tenth of a
second of its import, and as much again to build its models, are thus left to files that are broken.
"""

from __future__ import annotations

import math
import re
import types
from collections.abc import Callable, Iterable
from dataclasses import MISSING, fields, is_dataclass
from dataclasses import Field as DataField
from functools import cache
from typing import Any, TypeVar, Union, get_args, get_origin, get_type_hints

from ..core.base.errors import PlainCompassError
from ..core.base.quantity import NAME_LENGTH, NAME_PATTERN, Quantity
from .document import FORMAT, VERSION, Job, LogEntry

T = TypeVar("T")
Read = Callable[[Any], Any]
_NAME = re.compile(NAME_PATTERN)


class DocumentError(PlainCompassError, ValueError):
    """A job document that does not say what it should; the text names field, value and what is accepted."""


class DoubtError(Exception):
    """Plain checks do not vouch for a value."""


def plainly_built(cls: type[T], raw: Any) -> T:
    """One of a class from plain data; raises DoubtError where plain checks do not vouch for it."""
    # A class can always be hashed; the type checker wants to be told.
    found: T = _reader(cls)(raw)  # type: ignore[arg-type]
    return found


def plain_of(value: Any) -> dict[str, Any]:
    """Any frozen dataclass tree as plain data."""
    found: dict[str, Any] = dumped(value)
    return found


def job_to_plain(job: Job) -> dict[str, Any]:
    """The job as plain data, ready for JSON."""
    return {"format": FORMAT, "version": VERSION, **dumped(job)}


def entry_to_plain(entry: LogEntry) -> dict[str, Any]:
    """An entry of the stump log as plain data."""
    return plain_of(entry)


def dumped(value: Any) -> Any:
    """A frozen dataclass tree as plain dicts and lists."""
    if names := names_of(value.__class__):
        return {name: dumped(getattr(value, name)) for name in names}
    return [dumped(each) for each in value] if isinstance(value, tuple) else value


@cache
def names_of(cls: type) -> tuple[str, ...]:
    """Names of a dataclass's fields; none of any other class."""
    return tuple(f.name for f in fields(cls)) if is_dataclass(cls) else ()


# Reading -----------------------------------------------------------------------------------------------


@cache
def _reader(cls: type) -> Read:
    """What reads a dataclass from a mapping; what a mapping does not have is as it is by default."""
    hints = get_type_hints(cls)
    reads = [(item.name, _field_reader(item, hints[item.name]), _default(item)) for item in fields(cls)]

    def read(raw: Any) -> Any:
        if raw.__class__ is not dict:
            raise DoubtError
        found = {}
        for name, of, default in reads:
            if name in raw:
                found[name] = of(raw[name])
            elif default is MISSING:
                raise DoubtError
            else:
                found[name] = default()
        return cls(**found)

    return read


def _default(item: DataField[Any]) -> Any:
    """What makes the field where nothing is said of it; MISSING where something has to be."""
    if item.default_factory is not MISSING:
        return item.default_factory
    return MISSING if item.default is MISSING else lambda: item.default


def _field_reader(item: DataField[Any], hint: Any) -> Read:
    options = item.metadata.get("choice")
    if options is not None:
        return _one_of(options)
    quantity: Quantity | None = item.metadata.get("quantity")
    of = _hint_reader(hint)
    if quantity is not None:
        return _within(of, quantity)
    return _name if item.metadata.get("name") else of


def _hint_reader(hint: Any) -> Read:
    if is_dataclass(hint):
        return _reader(hint)  # type: ignore[arg-type]
    if get_origin(hint) is tuple:
        return _list_of(_hint_reader(get_args(hint)[0]))
    if get_origin(hint) in (Union, types.UnionType):
        return _or_nothing(hint)
    readers: dict[Any, Read] = {float: _float, int: _int, str: _text, bool: _bool}
    return readers.get(hint, _doubted)


def _or_nothing(hint: Any) -> Read:
    kinds = [kind for kind in get_args(hint) if kind is not types.NoneType]
    if len(kinds) != 1 or len(kinds) == len(get_args(hint)):
        return _doubted
    of = _hint_reader(kinds[0])
    return lambda value: None if value is None else of(value)


def _list_of(each: Read) -> Read:
    def read(value: Any) -> Any:
        if value.__class__ is not list:
            raise DoubtError
        return tuple(map(each, value))

    return read


def _one_of(options: Iterable[Any]) -> Read:
    # The declaration's own key is taken, which may be a member of an enumeration.
    keys = {str(key): key for key in options}

    def read(value: Any) -> Any:
        if value.__class__ is not str or value not in keys:
            raise DoubtError
        return keys[value]

    return read


def _within(of: Read, quantity: Quantity) -> Read:
    low, high = quantity.low, quantity.high

    def read(value: Any) -> Any:
        found = of(value)
        if found is not None and not low <= found <= high:
            raise DoubtError
        return found

    return read


def _float(value: Any) -> float:
    if value.__class__ is float:
        found: float = value
    elif value.__class__ is int and abs(value) < 2**53:
        found = float(value)
    else:
        raise DoubtError
    if not math.isfinite(found):
        raise DoubtError
    return found


def _int(value: Any) -> int:
    if value.__class__ is not int:
        raise DoubtError
    return int(value)


def _bool(value: Any) -> bool:
    if value.__class__ is not bool:
        raise DoubtError
    return bool(value)


def _text(value: Any) -> str:
    if value.__class__ is not str:
        raise DoubtError
    if not value.isascii():
        try:
            value.encode()
        except UnicodeEncodeError:
            raise DoubtError from None
    return str(value)


def _name(value: Any) -> str:
    found = _text(value)
    if len(found) > NAME_LENGTH or not _NAME.fullmatch(found):
        raise DoubtError
    return found


def _doubted(_: Any) -> Any:
    raise DoubtError
