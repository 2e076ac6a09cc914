"""A person's own indicative constants: laid over the shipped ones key by key, and never taken on trust."""

from __future__ import annotations

import tomllib
from pathlib import Path
from typing import Any

from ..core.base.errors import PlainCompassError
from .disk import read_text
from .language import tr

Table = dict[str, Any]


def read_own(path: Path) -> tuple[Table, list[str]]:
    """What the person's file says, and a sentence when it says nothing that can be read. No file is no trouble."""
    if not path.exists():
        return {}, []
    try:
        return tomllib.loads(read_text(path)), []
    except (PlainCompassError, ValueError, RecursionError) as error:
        told = str(error).rstrip(".")
        return {}, [tr("{path} is not used: {told}. The constants that ship are in force.", path=path, told=told)]


def overlaid(shipped: Table, own: Table, ranges: Table) -> tuple[Table, list[str]]:
    """The shipped tables with what can be taken of a person's own; and a sentence for every key that cannot be."""
    result = {table: dict(content) for table, content in shipped.items()}
    troubles = []
    for table, content in own.items():
        if table not in shipped or not isinstance(content, dict):
            troubles.append(
                tr(
                    "indicative.toml: {table} is no table of constants; accepted: {names}.",
                    table=table,
                    names=", ".join(shipped),
                )
            )
            continue
        for key, value in content.items():
            trouble = _trouble(table, key, value, shipped, ranges)
            if trouble:
                troubles.append(trouble)
            else:
                result[table][key] = float(value)
    return result, troubles


def _trouble(table: str, key: str, value: Any, shipped: Table, ranges: Table) -> str:
    name = tr("indicative.toml: {table}.{key}", table=table, key=key)
    if key not in shipped[table]:
        return tr(
            "{name} is no constant of this program; accepted: {names}.", name=name, names=", ".join(shipped[table])
        )
    low, high = ranges[table if table in ranges else key]
    number = isinstance(value, (int, float)) and not isinstance(value, bool)
    if number and low <= value <= high:
        return ""
    shown = repr(value) if len(repr(value)) <= 40 else repr(value)[:37] + "..."
    return tr(
        "{name} is {shown}; accepted: {low:g} to {high:g}; {shipped:g} is used.",
        name=name,
        shown=shown,
        low=low,
        high=high,
        shipped=shipped[table][key],
    )
