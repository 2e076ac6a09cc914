"""Tables of text in and out: any of the usual separators, with a sentence when it is none, and no cell that is run."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Iterable, Mapping

from ..core.base.errors import PlainCompassError
from .language import tr

_NUMBER = re.compile(r"[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?", re.ASCII)
_HEADING = re.compile(r"\s*([a-z]+)\s*(?:[\[(_ ]\s*([^\])]*?)\s*[\])]?)?\s*")
_RUN = re.compile(r"'*[=+\-@\t\r]")
"""How a cell begins that a spreadsheet would take for a formula, with marks already put before it."""


class TableError(PlainCompassError, ValueError):
    """A file that is no table, or a row that cannot be taken; the text names file, row and column."""


def csv_rows(text: str, name: str, most: int) -> list[list[str]]:
    """The rows of a table, its headings first. Raises TableError when it is empty, too long or no table."""
    clean = text.removeprefix("\ufeff").replace("\r\n", "\n").replace("\r", "\n")
    if "\0" in clean:
        line = clean[: clean.index("\0")].count("\n") + 1
        raise TableError(
            tr("{name} has a NUL character in line {line}, which no table of text has.", name=name, line=line)
        )
    clean = clean.lstrip("\n")
    separator = max(";\t,", key=clean.split("\n", 1)[0].count)
    try:
        # Read as one stream and not line by line: a note in quotes may go over several lines.
        rows = [row for row in csv.reader(io.StringIO(clean), delimiter=separator, strict=True) if any(row)]
    except csv.Error as error:
        raise TableError(tr("{name} is not a table: {error}.", name=name, error=error)) from None
    if not rows:
        raise TableError(tr("{name} is empty.", name=name))
    if len(rows) > most:
        raise TableError(tr("{name} has {count} rows; accepted: up to {most}.", name=name, count=len(rows), most=most))
    return rows


def heading_of(heading: str, aliases: Mapping[str, str]) -> tuple[str, str]:
    """(title, unit) of a heading such as ``height [m]``, in small letters; empty where there is none."""
    match = _HEADING.fullmatch(heading.lower())
    return (aliases.get(match[1], match[1]), match[2] or "") if match else ("", "")


def unknown_unit(name: str, heading: str, unit: str, accepted: str) -> TableError:
    """What is said of a heading whose unit is none of those that are read there."""
    return TableError(
        tr(
            "{name}, heading “{heading}”: unit {unit!r} is not known; accepted: {accepted}.",
            name=name,
            heading=heading,
            unit=unit,
            accepted=accepted,
        )
    )


def number_in(cell: str) -> float:
    """A cell as a number, with a point or a comma. Raises ValueError for anything else, endless numbers too."""
    clean = cell.strip()
    if len(clean) > 40 or not _NUMBER.fullmatch(clean) or not math.isfinite(value := float(clean.replace(",", "."))):
        raise ValueError(tr("“{given}” is no number", given=clean[:40]))
    return value


def harmless(cell: str) -> str:
    """Words of a person's for a table: marked as text where a spreadsheet would run them as a formula."""
    return f"'{cell}" if _RUN.match(cell) else cell


def as_written(cell: str) -> str:
    """The words again, without the mark."""
    return cell[1:] if cell.startswith("'") and _RUN.match(cell) else cell


def table_text(rows: Iterable[list[str]]) -> str:
    """Rows as CSV."""
    stream = io.StringIO()
    csv.writer(stream, lineterminator="\n").writerows(rows)
    return stream.getvalue()
