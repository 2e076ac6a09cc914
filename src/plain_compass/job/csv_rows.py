"""Reading a table of text: any of the usual separators, with a sentence when it is none."""

from __future__ import annotations

import csv

from ..core.errors import PlainCompassError


class TableError(PlainCompassError, ValueError):
    """A file that is no table, or a row that cannot be taken; the text names file, row and column."""


def csv_rows(text: str, name: str, most: int) -> list[list[str]]:
    """The rows of a table, its headings first. Raises TableError when it is empty, too long or no table."""
    clean = text.removeprefix("\ufeff").replace("\r\n", "\n").replace("\r", "\n").replace("\0", "")
    lines = [line for line in clean.split("\n") if line.strip()]
    if not lines:
        raise TableError(f"{name} is empty.")
    if len(lines) > most:
        raise TableError(f"{name} has {len(lines)} rows; accepted: up to {most}.")
    separator = max(";\t,", key=lines[0].count)
    try:
        return list(csv.reader(lines, delimiter=separator, strict=True))
    except csv.Error as error:
        raise TableError(f"{name} is not a table: {error}.") from None
