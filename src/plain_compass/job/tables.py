"""Tables that ship with the program: species, indicative constants, practices."""

from __future__ import annotations

import json
import math
import statistics
import tomllib
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import fields, replace
from functools import cache
from pathlib import Path
from typing import Any

from platformdirs import user_config_path

from .. import APP
from ..core.base.errors import InputError, PlainCompassError
from ..core.design.practice import Practice
from ..core.tree.wood import Indicative, Wood
from .disk import JobFileError, read_text, reason_of, write_atomically
from .language import tr
from .own_constants import overlaid, read_own
from .own_species import read_own_species, read_rows, rows_text
from .practice_files import PracticeError, practice_from, practice_text

DEFAULT_PRACTICE = "fifth-and-tenth"
WEAKEST = ("rupture_Pa", "elasticity_Pa", "shear_Pa", "across_Pa")
"""Of what an unknown species has as little as the least of its kind."""
PROPERTIES = {
    "rupture": "rupture_Pa",
    "elasticity": "elasticity_Pa",
    "shear": "shear_Pa",
    "across": "across_Pa",
    "density": "density_kg_m3",
}
"""What a spread of the wood is called, and the property it is of."""
UNKNOWN = "unknown-"
"""How the keys of species begin that stand for whatever has not been named."""
DATA = Path(__file__).parents[1] / "data"


def species_table() -> dict[str, Wood]:
    """Every species, by key: those that ship in their order, then a person's own, then the unknown ones."""
    return _species()[0]


@cache
def _shipped_species() -> dict[str, Wood]:
    return read_rows((DATA / "species.csv").read_text(encoding="utf-8"), "species.csv")


@cache
def _species() -> tuple[dict[str, Wood], str]:
    shipped = _shipped_species()
    own, trouble = read_own_species(own_species())
    known = {key: wood for key, wood in shipped.items() if not key.startswith(UNKNOWN)}
    unknown = {key: _worst_of_kind(wood, known) for key, wood in shipped.items() if key.startswith(UNKNOWN)}
    return known | {key: wood for key, wood in own.items() if key not in shipped} | unknown, trouble


def _worst_of_kind(unknown: Wood, known: Mapping[str, Wood]) -> Wood:
    """An unknown species as the worst of its kind: weakest, heaviest; strongest where weak wood is the mild side.

    A hinge of the strongest row holds longest; a stem splits soonest by the row with the most rupture^2/(E G_c), told
    as the rupture with which this row's own stiffness and class give as much.
    """
    resists = indicative().fracture_energy_J_m2
    kind = _kind_of(unknown, known.values())
    soonest = max(wood.rupture_Pa**2 / (wood.elasticity_Pa * resists[wood.splitting]) for wood in kind)
    least = {name: min(getattr(wood, name) for wood in (unknown, *kind)) for name in WEAKEST}
    worst = replace(unknown, **least, density_kg_m3=max(wood.density_kg_m3 for wood in (unknown, *kind)))
    splits = math.sqrt(soonest * worst.elasticity_Pa * resists[worst.splitting])
    return replace(worst, holding_Pa=max(wood.rupture_Pa for wood in kind), splits_at_Pa=splits)


def _kind_of(unknown: Wood, known: Iterable[Wood]) -> list[Wood]:
    """The species that an unknown one may be."""
    return [wood for wood in known if (wood.group == "conifer") == (unknown.group == "conifer")]


def spread_between(species: str) -> dict[str, float]:
    """How far the species lie apart that an unknown one may be, as a share of each property; nothing of a known one."""
    if not species.startswith(UNKNOWN):
        return {}
    table = species_table()
    known = (wood for key, wood in table.items() if not key.startswith(UNKNOWN))
    kind = _kind_of(table[species], known)
    return {name: statistics.pstdev(math.log(getattr(wood, of)) for wood in kind) for name, of in PROPERTIES.items()}


def own_species() -> Path:
    """Where a person's own species are kept."""
    return Path(user_config_path(APP)) / "species.csv"


def take_species_in(path: Path) -> tuple[Wood, ...]:
    """Keep the species of a file for every job from now on; a row of one's own with the same key is replaced.

    Raises JobFileError or InputError with a sentence.
    """
    new, kept, shipped = read_rows(read_text(path), path.name), own_species(), _shipped_species()
    for key in new:
        if key in shipped:
            raise InputError("species", key, reason=tr("the key of a species that ships; give yours another"))
    before, trouble = read_own_species(kept)
    if trouble:
        raise JobFileError(trouble)
    try:
        kept.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        why = reason_of(error)
        raise JobFileError(
            tr("{parent} could not be made: {why}; no species can be kept there.", parent=kept.parent, why=why)
        ) from None
    write_atomically(kept, rows_text((before | new).values()))
    forget_tables()
    return tuple(new.values())


def wood_of(species: str) -> Wood:
    """The wood of a species key; InputError when the table has no such species."""
    found = species_table().get(species)
    if found is None:
        raise InputError(
            "tree.species", species, reason=tr("not in the species table; use unknown-broadleaf or unknown-conifer")
        )
    return found


def indicative() -> Indicative:
    """The indicative constants: the shipped file, with what can be taken of a person's own file laid over it."""
    return _constants()[0]


@cache
def _constants() -> tuple[Indicative, tuple[str, ...]]:
    """The constants in force, and a sentence for everything of a person's own that could not be taken."""
    shipped, ranges = (_shipped(name) for name in ("indicative.toml", "indicative_ranges.toml"))
    own, unread = read_own(user_config_path(APP) / "indicative.toml")
    laid_over, refused = overlaid(shipped, own, ranges)
    flat: dict[str, Any] = {}
    names = {f.name for f in fields(Indicative)}
    for table, content in laid_over.items():
        flat.update({table: content} if table in names else content)
    return Indicative(**flat), (*unread, *refused)


def constants_in_force() -> Iterator[tuple[str, float, float]]:
    """(name, value now, value as it ships) of every indicative constant."""
    now = indicative()
    for table, content in _shipped("indicative.toml").items():
        for key, shipped in content.items():
            value = getattr(now, table)[key] if hasattr(now, table) else getattr(now, key)
            yield f"{table}.{key}", value, shipped


def constants_explained() -> dict[str, str]:
    """What each table of constants is, and whence its numbers: the words that stand above it in its file."""
    found, words = {}, list[str]()
    for line in (DATA / "indicative.toml").read_text(encoding="utf-8").splitlines():
        if line.startswith("#"):
            words.append(line.removeprefix("#").strip())
        elif line.startswith("["):
            found[line.strip("[]")], words = " ".join(words), []
        elif not line.strip():
            words = []
    return found


def _shipped(name: str) -> dict[str, Any]:
    return tomllib.loads((DATA / name).read_text(encoding="utf-8"))


def practices() -> dict[str, Practice]:
    """Every practice by key: those that ship, then a person's own; own files that cannot be read are passed over."""
    return _practices()[0]


@cache
def _practices() -> tuple[dict[str, Practice], tuple[str, ...]]:
    found, troubles = {}, []
    for item in sorted((DATA / "practices").iterdir(), key=lambda p: p.name):
        practice = practice_from(item.read_text(encoding="utf-8"), item.name)
        found[practice.key] = practice
    for path in sorted(own_practices().glob("*.json")):
        try:
            practice = practice_from(read_text(path), path.name)
        except PlainCompassError as error:
            troubles.append(tr("A practice of your own is not used: {error}", error=error))
            continue
        found.setdefault(practice.key, practice)
    ordered = sorted(found, key=lambda key: (key != DEFAULT_PRACTICE, key))
    return {key: found[key] for key in ordered}, tuple(troubles)


def table_troubles() -> tuple[str, ...]:
    """Sentences about a person's own constants, practices and species that could not be taken."""
    species = _species()[1]
    return (*_constants()[1], *_practices()[1], *([species] if species else []))


def forget_tables() -> None:
    """A person's own files are read anew when they are next asked for."""
    _constants.cache_clear()
    _practices.cache_clear()
    _species.cache_clear()


def take_practice_in(path: Path) -> Practice:
    """Keep a practice from a file for every job from now on. Raises PracticeError or JobFileError with a sentence."""
    practice, folder = practice_from(read_text(path), path.name), own_practices()
    kept = folder / f"{practice.key}.json"
    if practice.key in practices() and not kept.exists():
        raise PracticeError(tr("{key} is the key of a practice that ships; give yours another.", key=practice.key))
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise PracticeError(
            tr(
                "{folder} could not be made: {reason}; no practice can be kept there.",
                folder=folder,
                reason=reason_of(error),
            )
        ) from None
    write_atomically(kept, practice_text(practice))
    forget_tables()
    return practice


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
        raise InputError("job.practice", key, reason=tr("known practices: ") + ", ".join(practices()))
    return found
