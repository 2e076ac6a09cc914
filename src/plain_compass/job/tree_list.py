"""Tree lists as CSV: one row a tree, units in the headings, forgiving about order, separators and commas.

Columns (only ``id`` and one diameter are wanted; what is left out keeps its default):

| heading | what |
|---|---|
| id | name of the tree |
| species | key or name from the species table |
| diameter [cm] | over bark, where it was taped; ``girth [cm]`` instead is divided by pi |
| taped at [m] | height of the tape |
| butt diameter [cm] | over bark near the cut; may be empty |
| bark [cm], height [m], crown base [m] | |
| crown north [m], crown east [m], crown 135 [m], ... | crown edge from the stem, any bearings by name or in degrees |
| lean [deg], lean bearing [deg], lean method | |
| lay [deg] | |
| notes | |

Units in brackets may be others of the same kind: mm, cm, m, in, ft. Buttresses, second stems, limbs, rot and raw
readings are not part of a list; the job file keeps them.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import replace
from typing import Any

from ..core.base.errors import InputError
from ..core.base.frames import full_turn_deg
from ..core.base.frozen import dataclass
from ..core.base.paths import value_at, with_value
from ..core.base.quantity import check_name
from ..core.design.first import first_design
from ..core.judge.unmeasured import EDGES, LEAN, STAND_INS
from ..core.tree.tree import LEAN_METHODS, CrownReading, Tree
from .csv_rows import TableError, as_written, csv_rows, harmless, number_in, table_text, unknown_unit
from .document import Job, TreePlan, check_plan
from .fields import quantity_at
from .language import tr
from .spreads import COMPASS_NAMES
from .tables import indicative, practice_of, species_table, wood_of
from .units import METRES, NAMED

MOST_ROWS = 20_000
"""A longer list is no block for one saw."""
NUMBERS: dict[str, tuple[str, str]] = {
    "diameter": ("tree.trunk.diameter_m", "cm"),
    "taped at": ("tree.trunk.at_m", "m"),
    "butt diameter": ("tree.trunk.butt_diameter_m", "cm"),
    "bark": ("tree.trunk.bark_m", "cm"),
    "height": ("tree.height_m", "m"),
    "crown base": ("tree.crown.base_m", "m"),
    "lean": ("tree.lean.angle_deg", "deg"),
    "lean bearing": ("tree.lean.bearing_deg", "deg"),
    "lay": ("cut.lay_deg", "deg"),
}
"""Heading -> (where it goes, unit it is written in)."""
CROWN = re.compile(r"crown (\w+(?:\.\d+)?)")
CROWN_SIDES = {name: bearing for bearing, name in COMPASS_NAMES.items()}
TEXTS = {"lean method": "tree.lean.method", "notes": "notes"}


@dataclass(frozen=True, slots=True)
class Column:
    """One heading understood: its name, the factor from its unit to SI, and a crown edge's bearing."""

    name: str
    factor: float
    bearing_deg: float | None = None


def export_csv(job: Job) -> str:
    """The job's trees as CSV."""
    bearings = sorted({reading.bearing_deg for plan in job.trees for reading in plan.tree.crown.readings})
    edges = [f"crown {COMPASS_NAMES.get(bearing, f'{bearing:g}')} [m]" for bearing in bearings]
    rows = [["id", "species", *(f"{name} [{unit}]" for name, (_, unit) in NUMBERS.items()), *edges, *TEXTS]]
    for plan in job.trees:
        numbers = [_written(plan, path, unit) for path, unit in NUMBERS.values()]
        paced = {reading.bearing_deg: f"{reading.radius_m:.10g}" for reading in plan.tree.crown.readings}
        crown = [paced.get(bearing, "") for bearing in bearings]
        told = [plan.tree.lean.method, harmless(plan.notes)]
        rows.append([harmless(plan.id), plan.tree.species, *numbers, *crown, *told])
    return table_text(rows)


def _written(plan: TreePlan, path: str, unit: str) -> str:
    value = value_at(plan, path)
    return "" if value is None else f"{value / METRES.get(unit, 1.0):.10g}"


def import_csv(text: str, name: str, practice: str) -> tuple[TreePlan, ...]:
    """Trees from CSV, each with a first design by the practice.

    Raises TableError at the first row that cannot be taken, naming row and column.
    """
    *_, found = import_in_steps(text, name, practice)
    return found.plans


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a list has been read: rows done of all, and at the end its trees."""

    done: int
    of: int
    plans: tuple[TreePlan, ...] = ()


def import_in_steps(text: str, name: str, practice: str) -> Iterator[Progress]:
    """``import_csv`` a row at a time; the last one has the trees."""
    rows = csv_rows(text, name, MOST_ROWS)
    columns = [_column(heading, name) for heading in rows[0]]
    _check_headings(columns, name)
    plans: list[TreePlan] = []
    for number, row in enumerate(rows[1:], start=2):
        if any(cell.strip() for cell in row):
            plans.append(_plan(row, columns, tr("{name}, row {number}", name=name, number=number), practice))
            yield Progress(number - 1, len(rows) - 1)
    ids = [plan.id for plan in plans]
    if not plans:
        raise TableError(tr("{name} has headings but no trees.", name=name))
    if len(set(ids)) < len(ids):
        raise TableError(
            tr(
                "{name}: the id {found!r} is used twice; accepted: one row a tree.",
                name=name,
                found=next(i for i in ids if ids.count(i) > 1),
            )
        )
    yield Progress(len(rows) - 1, len(rows) - 1, tuple(plans))


def _column(heading: str, name: str) -> Column | None:
    """A heading understood; None for one this program does not know, which is passed over."""
    match = re.fullmatch(r"\s*([^\[(]*?)\s*(?:[\[(]\s*([^\])]*?)\s*[\])])?\s*", heading.replace("_", " "))
    if match is None:
        return None
    title, unit = match[1].lower(), (match[2] or "").lower()
    if title in ("id", "species", *TEXTS):
        return Column(title, 1.0)
    if (edge := CROWN.fullmatch(title)) and title not in NUMBERS:
        return _crown_column(edge[1], unit, name, heading)
    known = "diameter" if title == "girth" else "butt diameter" if title == "butt girth" else title
    if known not in NUMBERS:
        return None
    usual = NUMBERS[known][1]
    if usual == "deg":
        if unit not in ("", "deg", "°", "degrees"):
            raise unknown_unit(name, heading, unit, "deg")
        return Column(known, 1.0)
    _check_length_unit(name, heading, unit)
    return Column(known, METRES[NAMED[unit or usual]] / (math.pi if "girth" in title else 1.0))


def _check_length_unit(name: str, heading: str, unit: str) -> None:
    if unit and unit not in NAMED:
        raise unknown_unit(name, heading, unit, "mm, cm, m, in, ft")


def _crown_column(side: str, unit: str, name: str, heading: str) -> Column:
    """A crown edge by the name of its side or its bearing in degrees."""
    try:
        bearing = CROWN_SIDES[side] if side in CROWN_SIDES else full_turn_deg(number_in(side))
    except ValueError:
        raise TableError(
            tr(
                "{name}, heading “{heading}”: {side!r} is no bearing; accepted: north, east, south, west, or degrees.",
                name=name,
                heading=heading,
                side=side,
            )
        ) from None
    _check_length_unit(name, heading, unit)
    return Column(f"crown {bearing:g}", METRES[NAMED[unit or "m"]], bearing)


def _check_headings(columns: list[Column | None], name: str) -> None:
    known = [column.name for column in columns if column]
    for wanted in ("id", "diameter"):
        if wanted not in known:
            raise TableError(
                tr(
                    "{name} has no column “{wanted}”; wanted are at least id and diameter [cm] or girth [cm].",
                    name=name,
                    wanted=wanted,
                )
            )
    if len(set(known)) < len(known):
        twice = next(k for k in known if known.count(k) > 1)
        raise TableError(tr("{name} has two columns for “{twice}”; accepted: one.", name=name, twice=twice))


def _plan(row: list[str], columns: list[Column | None], where: str, practice: str) -> TreePlan:
    if len(row) > len(columns):
        raise TableError(
            tr(
                "{where} has {count} cells for {headings} headings; accepted: one cell a heading.",
                where=where,
                count=len(row),
                headings=len(columns),
            )
        )
    plan = TreePlan(id="", tree=replace(Tree(), crown=replace(Tree().crown, readings=_crown())))
    lay_deg = 0.0
    edges: list[CrownReading] = []
    for column, cell in zip(columns, row, strict=False):
        if column is None or not cell.strip():
            continue
        value = _value(column, cell.strip(), tr("{where}, column {name}", where=where, name=column.name))
        if column.name == "lay":
            lay_deg = value
        elif column.bearing_deg is not None:
            edges.append(CrownReading(column.bearing_deg, value))
        else:
            plan = with_value(plan, _path(column.name), value)
    if edges:
        plan = with_value(plan, "tree.crown.readings", tuple(edges))
    plan = with_value(plan, "tree.stand_ins", _stand_ins(row, columns))
    if not plan.id:
        raise TableError(tr("{where}, column id is empty; accepted: a name.", where=where))
    return _designed(plan, lay_deg, where, practice)


def _stand_ins(row: list[str], columns: list[Column | None]) -> tuple[str, ...]:
    """What the row leaves out: it is not measured, and the tree is only drawn with it."""
    filled = [column for column, cell in zip(columns, row, strict=False) if column and cell.strip()]
    names = {column.name for column in filled}
    given = {NUMBERS[name][0].removeprefix("tree.") for name in names & NUMBERS.keys()}
    if names & {"lean", "lean bearing", "lean method"}:
        given |= {*LEAN}
    if any(column.bearing_deg is not None for column in filled):
        given |= {path for path in STAND_INS if path.startswith(EDGES)}
    return tuple(path for path in STAND_INS if path not in given)


def _crown() -> tuple[CrownReading, ...]:
    return tuple(CrownReading(bearing, 3.0) for bearing in (0.0, 90.0, 180.0, 270.0))


def _path(name: str) -> str:
    return {"id": "id", "species": "tree.species", **TEXTS}.get(name) or NUMBERS[name][0]


def _value(column: Column, cell: str, where: str) -> Any:
    readers: dict[str, Callable[[str, str], str]] = {"species": _species, "lean method": _lean_method}
    if column.name == "notes":
        return as_written(cell)
    if column.name == "id":
        return _id(as_written(cell), where)
    if column.name in readers:
        return readers[column.name](cell, where)
    try:
        value = number_in(cell) * column.factor
    except ValueError:
        raise TableError(tr("{where} is “{cell}”; accepted: a number.", where=where, cell=cell)) from None
    try:
        is_edge = column.bearing_deg is not None
        quantity_at("tree.crown.readings.0.radius_m" if is_edge else NUMBERS[column.name][0]).check(where, value)
    except InputError as error:
        raise TableError(str(error)) from None
    return value


def _id(cell: str, where: str) -> str:
    try:
        check_name(where, cell)
    except InputError as error:
        raise TableError(str(error)) from None
    return cell


def _species(cell: str, where: str) -> str:
    table = species_table()
    by_name = {name.lower(): key for key, wood in table.items() for name in (wood.name, tr(wood.name))}
    found = cell.lower() if cell.lower() in table else by_name.get(cell.lower())
    if found is None:
        raise TableError(
            tr(
                "{where} is “{cell}”, which is not in the species table; accepted: its keys or names.",
                where=where,
                cell=cell,
            )
        )
    return found


def _lean_method(cell: str, where: str) -> str:
    by_words = {words: key for key, words in LEAN_METHODS.items()} | {key: key for key in LEAN_METHODS}
    found = by_words.get(cell.lower())
    if found is None:
        raise TableError(
            tr("{where} is “{cell}”; accepted: {names}.", where=where, cell=cell, names=", ".join(LEAN_METHODS))
        )
    return found


def _designed(plan: TreePlan, lay_deg: float, where: str, practice: str) -> TreePlan:
    """The tree with a first cut; a tree that cannot be assessed is refused by its row."""
    try:
        wood = wood_of(plan.tree.species)
        cut = first_design(plan.tree, wood, lay_deg, practice_of(practice), indicative())
        made = replace(plan, cut=cut)
        check_plan(Job(practice=practice, trees=(made,)), made)
    except InputError as error:
        raise TableError(f"{where}: {error}") from None
    return made
