"""Rows of species: those that ship, and a person's own, which are read with the same checks."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from pathlib import Path

from ..core.base.errors import InputError, PlainCompassError
from ..core.tree.wood import GROUPS, SPLITTING_CLASSES, SUPPLENESS_CLASSES, Wood
from .disk import JobFileError, read_text
from .language import tr

Row = dict[str, str]
NUMBERS = {
    "rupture_MPa": (10.0, 150.0),
    "elasticity_GPa": (1.0, 25.0),
    "shear_MPa": (1.0, 25.0),
    "across_MPa": (0.3, 15.0),
    "density_kg_m3": (300.0, 1400.0),
    "basic_density_kg_m3": (150.0, 1100.0),
}
"""What a row gives in numbers, and between what they may be: from the lightest to the hardest woods there are."""
CHOICES = {"group": GROUPS, "splitting": SPLITTING_CLASSES, "suppleness": SUPPLENESS_CLASSES}
COLUMNS = ("key", "name", "group", *NUMBERS, "splitting", "suppleness", "source", "estimated")
MOST_ROWS = 500
"""More are no list of one's own species."""


def read_rows(text: str, name: str) -> dict[str, Wood]:
    """Species by key from the text of a CSV file. Raises JobFileError or InputError with a sentence."""
    reader = csv.DictReader(io.StringIO(text))
    missing = [column for column in COLUMNS if column not in (reader.fieldnames or ())]
    if missing:
        raise JobFileError(
            tr(
                "{name} has no column {missing}; accepted: {accepted}.",
                name=name,
                missing=", ".join(missing),
                accepted=", ".join(COLUMNS),
            )
        )
    try:
        rows = list(reader)
    except csv.Error as error:
        raise JobFileError(tr("{name} cannot be read as CSV: {error}.", name=name, error=error)) from None
    if not 0 < len(rows) <= MOST_ROWS:
        raise JobFileError(
            tr(
                "{name} has {count} species; accepted: 1 to {most_rows}.",
                name=name,
                count=len(rows),
                most_rows=MOST_ROWS,
            )
        )
    found: dict[str, Wood] = {}
    for line, row in enumerate(rows, start=2):
        wood = wood_from(row, tr("{name} line {line}", name=name, line=line))
        if wood.key in found:
            raise JobFileError(
                tr("{name} line {line} has the key {key} a second time.", name=name, line=line, key=wood.key)
            )
        found[wood.key] = wood
    return found


def wood_from(row: Row, where: str) -> Wood:
    """One row. Raises InputError naming the column."""
    key, source = (row.get("key") or "").strip(), (row.get("source") or "").strip()
    if not key or not all(part.isalnum() for part in key.split("-")):
        raise InputError(tr("{where}: key", where=where), key, reason=tr("letters, figures and hyphens name a species"))
    if not source:
        raise InputError(
            tr("{where}: source", where=where), source, reason=tr("each row says where its values come from")
        )
    for column, allowed in CHOICES.items():
        if row[column] not in allowed:
            raise InputError(f"{where}: {column}", row[column], reason=tr("one of {names}", names=", ".join(allowed)))
    numbers = {column: _number(row, column, where) for column in NUMBERS}
    if numbers["basic_density_kg_m3"] >= numbers["density_kg_m3"]:
        dry, green = numbers["basic_density_kg_m3"], numbers["density_kg_m3"]
        raise InputError(
            tr("{where}: basic_density_kg_m3", where=where), dry, high=green, reason=tr("green wood is wet")
        )
    return Wood(
        key=key,
        name=row["name"].strip() or key,
        group=row["group"],
        rupture_Pa=numbers["rupture_MPa"] * 1e6,
        elasticity_Pa=numbers["elasticity_GPa"] * 1e9,
        shear_Pa=numbers["shear_MPa"] * 1e6,
        across_Pa=numbers["across_MPa"] * 1e6,
        density_kg_m3=numbers["density_kg_m3"],
        basic_density_kg_m3=numbers["basic_density_kg_m3"],
        splitting=row["splitting"],
        suppleness=row["suppleness"],
        source=source,
        estimated=tuple((row.get("estimated") or "").split()),
    )


def _number(row: Row, column: str, where: str) -> float:
    low, high = NUMBERS[column]
    try:
        value = float(row[column])
    except (TypeError, ValueError):
        raise InputError(f"{where}: {column}", row[column], low=low, high=high, reason=tr("not a number")) from None
    if not low <= value <= high:
        raise InputError(f"{where}: {column}", value, low=low, high=high)
    return value


def row_of(wood: Wood) -> Row:
    """A species as it stands in a file."""
    return {
        "key": wood.key,
        "name": wood.name,
        "group": wood.group,
        "rupture_MPa": f"{wood.rupture_Pa / 1e6:g}",
        "elasticity_GPa": f"{wood.elasticity_Pa / 1e9:g}",
        "shear_MPa": f"{wood.shear_Pa / 1e6:g}",
        "across_MPa": f"{wood.across_Pa / 1e6:g}",
        "density_kg_m3": f"{wood.density_kg_m3:g}",
        "basic_density_kg_m3": f"{wood.basic_density_kg_m3:g}",
        "splitting": wood.splitting,
        "suppleness": wood.suppleness,
        "source": wood.source,
        "estimated": " ".join(wood.estimated),
    }


def rows_text(woods: Iterable[Wood]) -> str:
    """Species as the text of a CSV file."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    writer.writerows(row_of(wood) for wood in woods)
    return out.getvalue()


def read_own_species(path: Path) -> tuple[dict[str, Wood], str]:
    """A person's own species, and a sentence when their file cannot be taken. No file is no trouble."""
    if not path.exists():
        return {}, ""
    try:
        return read_rows(read_text(path), path.name), ""
    except PlainCompassError as error:
        return {}, tr("Species of your own are not used: {error}", error=error)
