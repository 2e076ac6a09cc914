"""Unsaved work on disk while it is being done, and found again after a crash. Knows nothing of Qt."""

from __future__ import annotations

import contextlib
import json
import os
import time
import uuid
from pathlib import Path
from typing import IO, Any, Literal

from ...core.base.errors import PlainCompassError
from ...core.base.frozen import dataclass
from ...job.disk import JobFileError, hash_on_disk, locked, reason_of, write_atomically
from ...job.document import Job
from ...job.files import Opened, job_text, parse_job, read_job
from ...job.language import tr

TRIES, PAUSE_S = 5, 0.02
"""Another start that only looks through the kept work has it locked for a moment."""
Standing = Literal["newer", "nothing new", "both"]


@dataclass(frozen=True, slots=True)
class Recovered:
    """Unsaved work of an earlier run, or set aside by this one.

    Attributes:
        path: the job file it belongs to, None when it never had one.
        source: the recovery file it was read from.
        base: hash of the job file's content that the work began from; empty when not known.
        becoming: hash of what a save was about to write when the run ended; empty when none was under way.
        kept_at: when it was written, in seconds since the epoch.
    """

    opened: Opened
    path: Path | None
    source: Path
    base: str = ""
    becoming: str = ""
    kept_at: float = 0.0

    @property
    def name(self) -> str:
        """What to call it."""
        return self.path.name if self.path else self.opened.job.name

    def belongs_to(self, path: Path | None) -> bool:
        """Whether it is work on this file, however the file is reached."""
        if path is None or self.path is None:
            return path is self.path
        return os.path.realpath(path) == os.path.realpath(self.path)

    def standing(self) -> Standing:
        """How it stands to the job file as it is now; ``both`` when either holds something the other has not."""
        now = hash_on_disk(self.path) if self.path else ""
        if not now or now == self.base:
            return "newer"
        if now == self.becoming:
            return "nothing new"
        try:
            same = self.path is not None and read_job(self.path).job == self.opened.job
        except PlainCompassError:
            return "newer"
        return "nothing new" if same else "both"


class Recovery:
    """One run's place for unsaved work; a lock tells a living run from one that has died.

    Attributes:
        troubles: sentences about what was found broken and set aside, or why nothing can be kept.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.troubles: list[str] = []
        self.file = folder / f"{uuid.uuid4().hex}.json"
        self._lock: IO[bytes] | None = None
        try:
            self._make_folder()
            self._lock = self._locked(self.file)
        except OSError as error:
            self.troubles.append(
                tr(
                    "Unsaved work cannot be kept in {folder}: {reason}. Save often.",
                    folder=folder,
                    reason=reason_of(error),
                )
            )

    def _make_folder(self) -> None:
        """The folder, with a file of our own name that stands in its way set aside."""
        for place in (self.folder.parent, self.folder):
            if place.exists() and not place.is_dir():
                aside = place.with_name(f"{place.name}.set-aside-{uuid.uuid4().hex[:8]}")
                place.rename(aside)
                self.troubles.append(
                    tr("{place} was no folder and has been set aside as {name}.", place=place, name=aside.name)
                )
        self.folder.mkdir(parents=True, exist_ok=True)

    @staticmethod
    def _locked(file: Path) -> IO[bytes] | None:
        """The lock beside ``file``; None when a living run holds it."""
        return locked(file.with_suffix(".lock"))

    def keep(self, job: Job, raw: dict[str, Any], path: Path | None, base: str = "", becoming: str = "") -> None:
        """Write the unsaved document down; see ``Recovered``. Raises JobFileError when the disk will not take it."""
        if self._lock is None:
            raise JobFileError(" ".join(self.troubles) or tr("Nothing can be kept in {folder}.", folder=self.folder))
        text = job_text(job, raw, indent=None)
        content = {"path": str(path) if path else None, "base": base, "becoming": becoming, "job": text}
        write_atomically(self.file, json.dumps(content))

    def forget(self) -> None:
        """Nothing is unsaved any more."""
        _remove(self.file)

    def close(self, *, keep: bool) -> None:
        """End the run; ``keep`` leaves the unsaved work for the next one."""
        if not keep:
            self.forget()
            _remove(self.file.with_suffix(".lock"))
        if self._lock is not None:
            self._lock.close()
            self._lock = None

    def orphans(self) -> list[Recovered]:
        """Unsaved work that no living run answers for, newest first. What cannot be read is set aside, not deleted."""
        found = [kept for file in self._files() if (kept := self._orphan(file)) is not None]
        return sorted(found, key=lambda kept: kept.kept_at, reverse=True)

    def _files(self) -> list[Path]:
        try:
            return [file for file in self.folder.glob("*.json") if file != self.file]
        except OSError:
            return []

    def _orphan(self, file: Path) -> Recovered | None:
        try:
            lock = self._locked(file)
        except OSError:
            return None
        if lock is None:
            return None
        try:
            return self._read(file)
        except FileNotFoundError:
            return None
        except Exception:
            # Whatever is wrong with it, and there is no end to what can be: the program has to start.
            aside = file.with_suffix(".unreadable")
            self.troubles.append(tr("Kept work that could not be read was set aside as {aside}.", aside=aside))
            _rename(file, aside)
            return None
        finally:
            lock.close()

    @staticmethod
    def _read(file: Path) -> Recovered:
        kept_at = file.stat().st_mtime
        content = json.loads(file.read_bytes())
        path = Path(content["path"]) if content["path"] else None
        opened = parse_job(content["job"], path.name if path else tr("unsaved job"))
        base, becoming = (str(content.get(key) or "") for key in ("base", "becoming"))
        return Recovered(opened, path, file, base, becoming, kept_at)

    def adopt(self, recovered: Recovered) -> bool:
        """This run now answers for that work: the file is renamed, so that there is never none of it and never two.

        False when another run has taken it meanwhile. Raises JobFileError when the disk will not have it.
        """
        with _Claim(recovered.source) as held:
            if held:
                try:
                    os.replace(recovered.source, self.file)
                except OSError as error:
                    raise JobFileError(
                        tr("Kept work could not be taken over: {reason}.", reason=reason_of(error))
                    ) from None
        return held

    def discard(self, recovered: Recovered) -> None:
        """Remove kept work that holds nothing its file has not."""
        with _Claim(recovered.source) as held:
            if held:
                _remove(recovered.source)


class _Claim:
    """The lock on somebody's kept work, as long as the block lasts; False where it is gone or another run's."""

    def __init__(self, source: Path) -> None:
        self.source = source
        self.lock: IO[bytes] | None = None

    def __enter__(self) -> bool:
        for _ in range(TRIES):
            try:
                self.lock = locked(self.source.with_suffix(".lock"))
            except OSError:
                return False
            if self.lock is not None:
                return self.source.exists()
            time.sleep(PAUSE_S)
        return False

    def __exit__(self, *_: object) -> None:
        if self.lock is not None:
            if not self.source.exists():
                _remove(self.source.with_suffix(".lock"))
            self.lock.close()


def _remove(file: Path) -> None:
    with contextlib.suppress(OSError):
        file.unlink(missing_ok=True)


def _rename(file: Path, to: Path) -> None:
    with contextlib.suppress(OSError):
        os.replace(file, to)
