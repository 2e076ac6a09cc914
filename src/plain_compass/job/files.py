"""Job files: unknown fields kept, broken and newer files refused untouched, nothing read that could not be written."""

from __future__ import annotations

import json
import math
import re
from dataclasses import field, replace
from pathlib import Path
from typing import Any, NoReturn

from ..core.base.errors import InputError
from ..core.base.frozen import dataclass
from ..core.judge.unmeasured import EDGES, LEAN, STAND_INS
from .built import job_from_plain
from .disk import JobFileError, content_hash, decoded, read_bytes, write_atomically
from .document import FORMAT, VERSION, Job, check_plan
from .language import tr
from .migrate import migrated
from .plain import DocumentError, job_to_plain
from .reading_checks import check_readings

MOST_DIGITS = 400
"""A number of more digits is no measurement."""
DEEPEST = 60
"""Levels of nesting that are read: ours has eight, and what is kept of unknown fields has to be written again."""
OTHERS = (".csv", ".geojson", ".jsonl")
"""How files that are no jobs end: tree lists, sites, stump logs."""
_HALF = re.compile("[\\ud800-\\udfff]")


@dataclass(frozen=True)
class Opened:
    """A job as read.

    Attributes:
        raw: the file's own content, so that fields this version does not know are written back.
        unknown: paths of those fields.
        hash: of the file's content, to tell later whether somebody else has written it; empty where there is no file.
    """

    job: Job
    raw: dict[str, Any] = field(default_factory=dict)
    unknown: tuple[str, ...] = ()
    hash: str = ""


def is_job_file(path: Path) -> bool:
    """Whether a file is to be opened as a job, by its name."""
    return path.suffix.lower() not in OTHERS


def read_job(path: Path) -> Opened:
    """Read a job file. Raises JobFileError with a sentence; the file itself is never touched."""
    content = read_bytes(path)
    return replace(parse_job(decoded(content, path.name), path.name), hash=content_hash(content))


def parse_job(text: str, name: str) -> Opened:
    """Read a job from text; ``name`` is what the sentences call the file."""
    raw = _parsed(text, name)
    if raw.get("format") != FORMAT:
        raise JobFileError(
            tr("{name} is not a Plain Compass job: its field “format” should say {format}.", name=name, format=FORMAT)
        )
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise JobFileError(
            tr(
                "{name}: field “version” is {version!r}; accepted: 1 to {known}.",
                name=name,
                version=version,
                known=VERSION,
            )
        )
    if version > VERSION:
        raise JobFileError(
            tr(
                "{name} was written by a newer Plain Compass (file version {version}, this program "
                "reads up to {known}); it has been left as it is. Open it with the newer program.",
                name=name,
                version=version,
                known=VERSION,
            )
        )
    raw = migrated(raw)
    try:
        job = _unmeasured_where_missing(raw, job_from_plain(raw))
        _check_job(job)
    except DocumentError as error:
        raise JobFileError(f"{name}: {error}") from None
    return Opened(job, raw, tuple(_unknown(raw, job_to_plain(job))))


def _unmeasured_where_missing(raw: dict[str, Any], job: Job) -> Job:
    """The job with what no key of its file gives called not measured: a stand-in is put there, and nobody took it."""
    plans = []
    for plain, plan in zip(raw.get("trees", ()), job.trees, strict=False):
        tree = plain.get("tree", {}) if isinstance(plain, dict) else {}
        missing = tuple(path for path in STAND_INS if path not in plan.tree.stand_ins and not _is_given(tree, path))
        if plan.tree.lean.angle_deg == 0.0 and _is_given(tree, LEAN[0]):
            # What stands plumb leans nowhere.
            missing = tuple(path for path in missing if path != LEAN[1])
        edges = len(plan.tree.crown.readings)
        missing = tuple(path for path in missing if not path.startswith(EDGES) or int(path.split(".")[2]) < edges)
        stand_ins = (*plan.tree.stand_ins, *missing)
        plans.append(replace(plan, tree=replace(plan.tree, stand_ins=stand_ins)) if missing else plan)
    return replace(job, trees=tuple(plans)) if plans else job


def _is_given(tree: Any, path: str) -> bool:
    """Whether a file's own tree has a value at a path."""
    at = tree
    for name in path.split("."):
        if isinstance(at, list):
            at = at[int(name)] if int(name) < len(at) else None
        else:
            at = at.get(name) if isinstance(at, dict) else None
        if at is None:
            return False
    return True


def _check_job(job: Job) -> None:
    """Every tree must be assessable, so that the program never holds a document it cannot show."""
    if not job.trees:
        raise DocumentError(tr("trees is empty; accepted: at least one tree."))
    ids = [tree.id for tree in job.trees]
    if len(set(ids)) < len(ids):
        raise DocumentError(
            tr(
                "trees: the id {found!r} is used twice; accepted: one tree each.",
                found=next(i for i in ids if ids.count(i) > 1),
            )
        )
    for index, tree in enumerate(job.trees):
        try:
            check_readings(tree.readings)
            check_plan(job, tree)
        except InputError as error:
            where = "" if error.field.startswith(("job.", "site.", "kit.")) else f"trees[{index}]."
            raise DocumentError(f"{where}{error}") from None


def _refuse_constant(text: str) -> NoReturn:
    raise ValueError(text)


def _finite(text: str) -> float:
    """A number as written; one too large to be held would be read as endless and could never be written again."""
    value = float(text)
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def _whole(text: str) -> int:
    if len(text) > MOST_DIGITS:
        raise ValueError(tr("{text}… ({count} digits)", text=text[:12], count=len(text)))
    return int(text)


def _check_plain(raw: Any, name: str) -> None:
    """Refuse what could be read but never be written again: text that is no Unicode, nesting without end."""
    waiting: list[tuple[Any, str, int]] = [(raw, "", 0)]
    while waiting:
        value, path, depth = waiting.pop()
        if depth > DEEPEST:
            raise JobFileError(tr("{name} is nested too deeply to be a job file.", name=name))
        if isinstance(value, str):
            _check_text(value, path, name)
        elif isinstance(value, dict):
            for key, each in value.items():
                _check_text(key, path, name)
                waiting.append((each, f"{path}.{key}" if path else key, depth + 1))
        elif isinstance(value, list):
            waiting += [(each, f"{path}[{i}]", depth + 1) for i, each in enumerate(value)]


def _check_text(text: str, path: str, name: str) -> None:
    if _HALF.search(text):
        shown = ascii(text if len(text) <= 40 else text[:40])
        raise JobFileError(
            tr(
                "{name}: {path} is {shown}, half a character; accepted: whole text.",
                name=name,
                path=path or tr("a field name"),
                shown=shown,
            )
        )


def _parsed(text: str, name: str) -> dict[str, Any]:
    if not text.strip():
        raise JobFileError(tr("{name} is empty.", name=name))
    try:
        raw = json.loads(text, parse_constant=_refuse_constant, parse_float=_finite, parse_int=_whole)
    except json.JSONDecodeError as error:
        where = tr("line {lineno}, column {colno}", lineno=error.lineno, colno=error.colno)
        raise JobFileError(
            tr(
                "{name} is broken at {where}: {msg}. It may have been cut short.",
                name=name,
                where=where,
                msg=error.msg.lower(),
            )
        ) from None
    except ValueError as error:
        raise JobFileError(
            tr("{name} holds the value {error}; accepted: finite numbers only.", name=name, error=error)
        ) from None
    except RecursionError:
        raise JobFileError(tr("{name} is nested too deeply to be a job file.", name=name)) from None
    if not isinstance(raw, dict):
        raise JobFileError(tr("{name} is not a Plain Compass job: it should hold one object.", name=name))
    _check_plain(raw, name)
    return raw


def _unknown(raw: Any, known: Any, path: str = "") -> list[str]:
    if isinstance(raw, dict) and isinstance(known, dict):
        found: list[str] = []
        for key, value in raw.items():
            where = f"{path}.{key}" if path else key
            found += [where] if key not in known else _unknown(value, known[key], where)
        return found
    if isinstance(raw, list) and isinstance(known, list):
        pairs = enumerate(zip(raw, known, strict=False))
        return [each for i, (r, k) in pairs for each in _unknown(r, k, f"{path}[{i}]")]
    return []


def merged(raw: Any, known: Any) -> Any:
    """What is known, with every field of ``raw`` that is not known kept in its place.

    Trees and log entries are matched by their ids, other lists by position.
    """
    if isinstance(raw, dict) and isinstance(known, dict):
        kept = {key: value for key, value in raw.items() if key not in known}
        return {key: merged(raw.get(key), value) for key, value in known.items()} | kept
    if isinstance(raw, list) and isinstance(known, list):
        by_id = {each["id"]: each for each in raw if isinstance(each, dict) and isinstance(each.get("id"), str)}
        return [merged(_match(each, i, raw, by_id), each) for i, each in enumerate(known)]
    return known


def _match(item: Any, index: int, raw: list[Any], by_id: dict[str, Any]) -> Any:
    if isinstance(item, dict) and "id" in item:
        return by_id.get(item["id"])
    return raw[index] if index < len(raw) else None


def job_text(job: Job, raw: dict[str, Any] | None = None, *, indent: int | None = 2) -> str:
    """The file's content; without indent it is many times quicker to write, and no easier to read for a person."""
    plain = merged(raw or {}, job_to_plain(job))
    return json.dumps(plain, indent=indent, ensure_ascii=False, allow_nan=False) + "\n"


def write_job(path: Path, job: Job, raw: dict[str, Any] | None = None, *, over_read_only: bool = False) -> str:
    """Write a job file whole or not at all; returns the hash of what the file holds now.

    Raises JobFileError with a sentence; an older file then stays as it was.
    """
    content = job_bytes(job, raw)
    write_atomically(path, content, over_read_only=over_read_only)
    return content_hash(content)


def job_bytes(job: Job, raw: dict[str, Any] | None = None) -> bytes:
    """The file's content as it goes to disk. Raises JobFileError when the document cannot be written at all."""
    try:
        return job_text(job, raw).encode("utf-8")
    except (ValueError, TypeError, RecursionError) as error:
        raise JobFileError(tr("The job could not be written: {error}. Its file is unchanged.", error=error)) from None
