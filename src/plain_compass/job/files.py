"""Job files on disk: atomic writing, unknown fields kept, broken and newer files refused untouched."""

from __future__ import annotations

import json
import os
import tempfile
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, NoReturn

from ..core.errors import InputError, PlainCompassError
from .document import FORMAT, VERSION, Job, assess_tree
from .migrate import migrated
from .reading_checks import check_readings
from .schema import DocumentError, job_from_plain, job_to_plain

LARGEST_BYTES = 50_000_000


class JobFileError(PlainCompassError):
    """A job file that cannot be read or written; the text is one sentence that names the file."""


@dataclass(frozen=True)
class Opened:
    """A job as read.

    Attributes:
        raw: the file's own content, so that fields this version does not know are written back.
        unknown: paths of those fields.
    """

    job: Job
    raw: dict[str, Any] = field(default_factory=dict)
    unknown: tuple[str, ...] = ()


def read_job(path: Path) -> Opened:
    """Read a job file. Raises JobFileError with a sentence; the file itself is never touched."""
    return parse_job(read_text(path), path.name)


def parse_job(text: str, name: str) -> Opened:
    """Read a job from text; ``name`` is what the sentences call the file."""
    raw = _parsed(text, name)
    if raw.get("format") != FORMAT:
        raise JobFileError(f"{name} is not a Plain Compass job: its field “format” should say {FORMAT}.")
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise JobFileError(f"{name}: field “version” is {version!r}; accepted: 1 to {VERSION}.")
    if version > VERSION:
        raise JobFileError(
            f"{name} was written by a newer Plain Compass (file version {version}, "
            f"this program reads up to {VERSION}); it has been left as it is. Open it with the newer program."
        )
    raw = migrated(raw)
    try:
        job = job_from_plain(raw)
        _check_job(job)
    except DocumentError as error:
        raise JobFileError(f"{name}: {error}") from None
    return Opened(job, raw, tuple(_unknown(raw, job_to_plain(job))))


def _check_job(job: Job) -> None:
    """Every tree must be assessable, so that the program never holds a document it cannot show."""
    if not job.trees:
        raise DocumentError("trees is empty; accepted: at least one tree.")
    ids = [tree.id for tree in job.trees]
    if len(set(ids)) < len(ids):
        raise DocumentError(
            f"trees: the id {next(i for i in ids if ids.count(i) > 1)!r} is used twice; accepted: one tree each."
        )
    for index, tree in enumerate(job.trees):
        try:
            check_readings(tree.readings)
            assess_tree(job, tree.id)
        except InputError as error:
            where = "" if error.field.startswith(("job.", "site.", "kit.")) else f"trees[{index}]."
            raise DocumentError(f"{where}{error}") from None


def read_text(path: Path) -> str:
    """The content of a text file. Raises JobFileError with a sentence when it cannot be read."""
    try:
        if path.is_dir():
            raise JobFileError(f"{path.name} is a folder, not a file.")
        if path.stat().st_size > LARGEST_BYTES:
            raise JobFileError(f"{path.name} is over 50 MB, which no file of ours is.")
        return path.read_text(encoding="utf-8")
    except FileNotFoundError:
        raise JobFileError(f"{path.name} is not there: nothing was found at {path}.") from None
    except UnicodeDecodeError as error:
        raise JobFileError(f"{path.name} is not a text file (byte {error.start} is not UTF-8).") from None
    except OSError as error:
        raise JobFileError(f"{path.name} could not be read: {_reason(error)}.") from None


def _reason(error: OSError) -> str:
    return (error.strerror or str(error)).lower()


def _refuse_constant(text: str) -> NoReturn:
    raise ValueError(text)


def _parsed(text: str, name: str) -> dict[str, Any]:
    if not text.strip():
        raise JobFileError(f"{name} is empty.")
    try:
        raw = json.loads(text, parse_constant=_refuse_constant)
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        raise JobFileError(f"{name} is broken at {where}: {error.msg.lower()}. It may have been cut short.") from None
    except ValueError as error:
        raise JobFileError(f"{name} holds the value {error}; accepted: finite numbers only.") from None
    except RecursionError:
        raise JobFileError(f"{name} is nested too deeply to be a job file.") from None
    if not isinstance(raw, dict):
        raise JobFileError(f"{name} is not a Plain Compass job: it should hold one object.")
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


def job_text(job: Job, raw: dict[str, Any] | None = None) -> str:
    """The file's content."""
    return json.dumps(merged(raw or {}, job_to_plain(job)), indent=2, ensure_ascii=False, allow_nan=False) + "\n"


def write_job(path: Path, job: Job, raw: dict[str, Any] | None = None) -> None:
    """Write a job file whole or not at all. Raises JobFileError with a sentence; an older file then stays as it was."""
    write_atomically(path, job_text(job, raw))


def write_atomically(path: Path, content: str | bytes) -> None:
    """Write beside the target, flush to disk, then put it in place in one step.

    Raises JobFileError with a sentence; what was there before then stays as it was.
    """
    if path.is_dir():
        raise JobFileError(f"{path.name} is a folder; a file name is wanted.")
    temporary: Path | None = None
    try:
        handle, temporary_name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
        temporary = Path(temporary_name)
        with os.fdopen(handle, "wb") as stream:
            stream.write(content.encode("utf-8") if isinstance(content, str) else content)
            stream.flush()
            os.fsync(stream.fileno())
        if path.exists():
            os.chmod(temporary, path.stat().st_mode & 0o777)
        else:
            os.chmod(temporary, 0o644)
        os.replace(temporary, path)
    except OSError as error:
        if temporary is not None:
            temporary.unlink(missing_ok=True)
        raise JobFileError(
            f"{path.name} could not be written: {_reason(error)}. What was there before is unchanged."
        ) from None
