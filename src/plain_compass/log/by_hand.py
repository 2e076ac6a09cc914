"""A row of a table that somebody kept by hand, as an entry: what it does not say of the plan is a stand-in."""

from __future__ import annotations

from dataclasses import fields, replace
from typing import Any
from uuid import uuid4

from ..core.base.errors import InputError
from ..core.base.paths import with_value
from ..core.base.quantity import check_ranges
from ..core.design.first import first_design
from ..core.judge.unmeasured import STAND_INS
from ..core.stump.as_cut import AsCut
from ..core.tree.tree import Tree
from ..job.csv_rows import TableError, number_in
from ..job.document import LogEntry, TreePlan
from ..job.fields import choice_at, is_choice, is_number, quantity_at
from ..job.language import tr
from ..job.tables import DEFAULT_PRACTICE, indicative, practice_of, wood_of

READ = tuple(f"as_cut.{each.name}" for each in fields(AsCut))
"""Columns of what was read, as its fields are called."""
PLANNED_AT = {
    "planned_face_depth_m": "face.depth_m",
    "planned_hinge_left_m": "hinge.left_m",
    "planned_hinge_right_m": "hinge.right_m",
    "planned_step_m": "back.step_m",
}
"""Columns of what was planned, and where it stands in a cut."""
WANTED = ("tree", "species", "diameter_m", "height_m", "planned_lay_deg")
"""What such a row must say."""
MEASURED = ("trunk.diameter_m", "height_m")
"""What of its tree is then known."""


def written_by_hand(cells: dict[str, str], where: str) -> LogEntry:
    """A row that says what was planned and read, but not the whole plan: what it does not say is a stand-in."""
    lacking = [column for column in WANTED if not cells.get(column)]
    if lacking:
        raise TableError(
            tr(
                "{where} says nothing of {lacking}; wanted are {wanted}, or entry.",
                where=where,
                lacking=", ".join(lacking),
                wanted=", ".join(WANTED),
            )
        )
    try:
        as_cut = AsCut(
            **{path.removeprefix("as_cut."): _read(path, cells[path], where) for path in READ if cells.get(path)}
        )
        plan = _plan(cells, where)
    except InputError as error:
        raise TableError(f"{where}: {error}") from None
    return LogEntry(
        tree_id=plan.id,
        id=cells.get("id") or uuid4().hex,
        made=cells.get("made", ""),
        place=cells.get("place", ""),
        practice=cells.get("practice") or DEFAULT_PRACTICE,
        plan=replace(plan, as_cut=as_cut),
    )


def _plan(cells: dict[str, str], where: str) -> TreePlan:
    told = ("diameter_m", "height_m", "planned_lay_deg")
    diameter, height, lay = (_number(cells[name], f"{where}, {name}") for name in told)
    bare = Tree()
    tree = replace(
        bare,
        species=wood_of(cells["species"]).key,
        trunk=replace(bare.trunk, diameter_m=diameter),
        height_m=height,
        crown=replace(bare.crown, base_m=min(bare.crown.base_m, 0.5 * height)),
        stand_ins=tuple(path for path in STAND_INS if path not in MEASURED),
    )
    practice = practice_of(cells.get("practice") or DEFAULT_PRACTICE)
    cut = first_design(tree, wood_of(tree.species), lay, practice, indicative())
    for column, path in PLANNED_AT.items():
        if cells.get(column):
            cut = with_value(cut, path, _number(cells[column], f"{where}, {column}"))
    check_ranges(cut, "cut")
    return TreePlan(cells["tree"], tree, cut, state="down")


def _number(cell: str, where: str) -> float:
    try:
        return number_in(cell)
    except ValueError as error:
        raise TableError(f"{where}: {error}.") from None


def _read(path: str, cell: str, where: str) -> Any:
    """A cell as what stands in its field."""
    if is_choice(path):
        options = choice_at(path)[1]
        if cell not in options:
            raise TableError(
                tr(
                    "{where}, {path} is “{cell}”; accepted: {accepted}.",
                    where=where,
                    path=path,
                    cell=cell,
                    accepted=", ".join(options),
                )
            )
        return cell
    if not is_number(path):
        return cell
    value = _number(cell, f"{where}, {path}")
    quantity_at(path).check(path, value)
    return int(value) if quantity_at(path).kind == "count" else value
