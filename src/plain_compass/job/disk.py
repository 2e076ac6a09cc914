"""Files on disk: read whole with a sentence for what is wrong, written whole or not at all.

A save goes through a temporary file beside its target, locked while its writer lives, so that what a killed writer left
behind can be told from what a living one is about to put in place, and cleared up.
"""

from __future__ import annotations

import fcntl
import os
import re
import stat
import tempfile
from pathlib import Path
from typing import IO

from ..core.base.errors import PlainCompassError
from .language import tr

LARGEST_BYTES = 50_000_000
"""No job is that large; a file of that size is something else."""
LONGEST_NAME = 100
"""Characters of a suggested file name; file systems take 255 bytes, and people add to names."""
_LEFT_BEHIND = re.compile(r"\..+\.(?:[a-z0-9_]{8}\.part|json\.[a-z0-9_]{8})")
"""Temporary files of killed saves: as they are named now, and as they were before."""
_NOT_IN_A_NAME = re.compile(r'[\x00-\x1f\x7f-\x9f/\\:*?"<>|\ud800-\udfff]+')


class JobFileError(PlainCompassError):
    """A file that cannot be read or written; the text is one sentence that names the file."""


class ReadOnlyFileError(JobFileError):
    """The file says of itself that it is not to be written over."""


def read_bytes(path: Path) -> bytes:
    """The content of a plain file. Raises JobFileError with a sentence; never waits for a pipe or a device."""
    try:
        found = path.stat()
        if stat.S_ISDIR(found.st_mode):
            raise JobFileError(tr("{name} is a folder, not a file.", name=path.name))
        if not stat.S_ISREG(found.st_mode):
            raise JobFileError(tr("{name} is a pipe or a device; a plain file is wanted.", name=path.name))
        if found.st_size > LARGEST_BYTES:
            raise JobFileError(tr("{name} is over 50 MB, which no file of ours is.", name=path.name))
        return path.read_bytes()
    except FileNotFoundError:
        raise JobFileError(tr("{name} is not there: nothing was found at {path}.", name=path.name, path=path)) from None
    except ValueError:
        raise JobFileError(
            tr("{path!r} is no file name: it holds a character that none may hold.", path=str(path))
        ) from None
    except OSError as error:
        raise JobFileError(tr("{name} could not be read: {reason}.", name=path.name, reason=reason_of(error))) from None


def read_text(path: Path) -> str:
    """The content of a text file. Raises JobFileError with a sentence when it cannot be read."""
    return decoded(read_bytes(path), path.name)


def decoded(content: bytes, name: str) -> str:
    """Bytes as text, line ends as they are in memory. Raises JobFileError when they are no UTF-8."""
    try:
        text = content.decode("utf-8")
    except UnicodeDecodeError as error:
        raise JobFileError(
            tr("{name} is not a text file (byte {start} is not UTF-8).", name=name, start=error.start)
        ) from None
    return text.replace("\r\n", "\n").replace("\r", "\n")


def reason_of(error: OSError) -> str:
    """The system's reason, in lower case, to stand inside a sentence."""
    return (error.strerror or str(error)).lower()


def content_hash(content: bytes) -> str:
    """What tells one content of a file from another."""
    from hashlib import sha256  # a cipher library, that only those who write wait for

    return sha256(content).hexdigest()


def hash_on_disk(path: Path) -> str:
    """Hash of what the file holds now; empty where there is none that can be read."""
    try:
        return content_hash(read_bytes(path))
    except JobFileError:
        return ""


def locked(path: Path) -> IO[bytes] | None:
    """The file opened and locked; None when a living process has it locked. The kernel lets go when one dies."""
    stream = path.open("ab")
    try:
        fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        stream.close()
        return None
    return stream


def write_atomically(path: Path, content: str | bytes, *, over_read_only: bool = False) -> None:
    """Write beside the target, flush to disk, then put it in place in one step. A symbolic link stays one.

    Args:
        over_read_only: whether a file that is read-only may be replaced; ask the person first.

    Raises JobFileError with a sentence; what was there before then stays as it was.
    """
    try:
        target = _target(path, over_read_only=over_read_only)
        encoded = content.encode("utf-8") if isinstance(content, str) else content
        clear_left_behind(target.parent)
        _replace(target, encoded)
    except OSError as error:
        raise JobFileError(
            tr(
                "{name} could not be written: {reason}. What was there before is unchanged.",
                name=path.name,
                reason=reason_of(error),
            )
        ) from None
    except ValueError as error:
        raise JobFileError(
            tr(
                "{name!r} could not be written: {error}. What was there before is unchanged.",
                name=path.name,
                error=error,
            )
        ) from None


def _target(path: Path, *, over_read_only: bool) -> Path:
    if path.is_dir():
        raise JobFileError(tr("{name} is a folder; a file name is wanted.", name=path.name))
    target = path.resolve() if path.is_symlink() else path
    if target.exists():
        if not target.is_file():
            raise JobFileError(tr("{name} is a pipe or a device; a plain file is wanted.", name=path.name))
        # The mode itself is looked at: for root everything is writable, and yet the mark was set for a reason.
        if not over_read_only and not target.stat().st_mode & 0o222:
            raise ReadOnlyFileError(
                tr("{name} is read-only and has been left as it is; write under another name.", name=path.name)
            )
    return target


def _replace(target: Path, content: bytes) -> None:
    mode = target.stat().st_mode & 0o777 if target.exists() else 0o644
    handle, name = tempfile.mkstemp(prefix=f".{target.name[:40]}.", suffix=".part", dir=target.parent)
    try:
        with os.fdopen(handle, "wb") as stream:
            fcntl.flock(stream, fcntl.LOCK_EX)
            stream.write(content)
            stream.flush()
            os.fsync(stream.fileno())
            os.chmod(name, mode)
            os.replace(name, target)
    except BaseException:
        Path(name).unlink(missing_ok=True)
        raise


def clear_left_behind(folder: Path) -> None:
    """Remove the temporary files of writers that were killed; those of living ones are locked and stay."""
    for item in folder.iterdir():
        if not _LEFT_BEHIND.fullmatch(item.name) or not item.is_file() or item.is_symlink():
            continue
        try:
            stream = locked(item)
        except OSError:
            continue
        if stream is not None:
            item.unlink(missing_ok=True)
            stream.close()


def file_name(words: str, otherwise: str = "job") -> str:
    """Words of a person's as part of a file name: without what one may not hold, and no hidden or endless ones."""
    kept = _NOT_IN_A_NAME.sub("-", words).strip(" .-")
    return kept[:LONGEST_NAME].rstrip(" .-") or otherwise


def beside(path: Path) -> Path:
    """A name in the same folder that is not taken: ``south bank (2).pcjob.json``."""
    stem, dot, ending = path.name.partition(".")
    number = 2
    while (free := path.with_name(f"{stem} ({number}){dot}{ending}")).exists():
        number += 1
    return free
