"""Tables that ship with the program: species, indicative constants, practices."""

from __future__ import annotations

import csv
import json
import tomllib
from dataclasses import fields
from functools import cache
from importlib.resources import files
from importlib.resources.abc import Traversable
from pathlib import Path
from typing import Any

from platformdirs import user_config_path

from ..core.errors import InputError
from ..core.practice import Practice
from ..core.wood import Indicative, Wood
from .practice_files import PracticeError, practice_from

DEFAULT_PRACTICE = "fifth-and-tenth"
DATA: Traversable = files("plain_compass") / "data"
APP = "plain-compass"


@cache
def species_table() -> dict[str, Wood]:
    """Every species, by key, in the order in which they are listed."""
    rows = csv.DictReader((DATA / "species.csv").read_text(encoding="utf-8").splitlines())
    return {row["key"]: _wood(row) for row in rows}


def _wood(row: dict[str, str]) -> Wood:
    return Wood(
        key=row["key"],
        name=row["name"],
        group=row["group"],
        rupture_Pa=float(row["rupture_MPa"]) * 1e6,
        elasticity_Pa=float(row["elasticity_GPa"]) * 1e9,
        shear_Pa=float(row["shear_MPa"]) * 1e6,
        across_Pa=float(row["across_MPa"]) * 1e6,
        density_kg_m3=float(row["density_kg_m3"]),
        splitting=row["splitting"],
        suppleness=row["suppleness"],
        source=row["source"],
        estimated=tuple(row["estimated"].split()),
    )


def wood_of(species: str) -> Wood:
    """The wood of a species key; InputError when the table has no such species."""
    found = species_table().get(species)
    if found is None:
        raise InputError(
            "tree.species", species, reason="not in the species table; use unknown-broadleaf or unknown-conifer"
        )
    return found


@cache
def indicative() -> Indicative:
    """The indicative constants: the shipped file, with a person's own file laid over it."""
    shipped = tomllib.loads((DATA / "indicative.toml").read_text(encoding="utf-8"))
    own_file = user_config_path(APP) / "indicative.toml"
    if own_file.is_file():
        shipped = _overlaid(shipped, tomllib.loads(own_file.read_text(encoding="utf-8")))
    flat: dict[str, Any] = {}
    names = {f.name for f in fields(Indicative)}
    for table, content in shipped.items():
        flat.update({table: content} if table in names else content)
    return Indicative(**flat)


def _overlaid(base: dict[str, Any], own: dict[str, Any]) -> dict[str, Any]:
    """``own`` over ``base``, table by table; keys the program does not know are left out."""
    return {
        table: {key: own.get(table, {}).get(key, value) for key, value in content.items()}
        for table, content in base.items()
    }


@cache
def practices() -> dict[str, Practice]:
    """Every practice by key: those that ship, then a person's own; own files that cannot be read are passed over."""
    found = {}
    for item in sorted((DATA / "practices").iterdir(), key=lambda p: p.name):
        practice = practice_from(item.read_text(encoding="utf-8"), item.name)
        found[practice.key] = practice
    for path in sorted(own_practices().glob("*.json")):
        try:
            practice = practice_from(path.read_text(encoding="utf-8"), path.name)
        except (PracticeError, OSError, UnicodeDecodeError):
            continue
        found.setdefault(practice.key, practice)
    return {key: found[key] for key in sorted(found, key=lambda key: (key != DEFAULT_PRACTICE, key))}


def own_practices() -> Path:
    """Where a person's own practices are kept, a file each."""
    return Path(user_config_path(APP)) / "practices"


@cache
def disagreements() -> tuple[dict[str, Any], ...]:
    """Where practitioners disagree: question, schools, this program's choice and its reason."""
    return tuple(json.loads((DATA / "disagreements.json").read_text(encoding="utf-8")))


def practice_of(key: str) -> Practice:
    """A practice by key; InputError when there is no such practice."""
    found = practices().get(key)
    if found is None:
        raise InputError("job.practice", key, reason="known practices: " + ", ".join(practices()))
    return found
