"""Unsaved work on disk while it is being done, and found again after a crash. Knows nothing of Qt."""

from __future__ import annotations

import fcntl
import json
import os
import uuid
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any

from ...core.errors import PlainCompassError
from ...job.document import Job
from ...job.files import Opened, job_text, parse_job, write_atomically


@dataclass(frozen=True, slots=True)
class Recovered:
    """Unsaved work of an earlier run.

    Attributes:
        path: the job file it belongs to, None when it never had one.
        source: the recovery file it was read from.
    """

    opened: Opened
    path: Path | None
    source: Path


class Recovery:
    """One run's place for unsaved work; a lock tells a living run from one that has died."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        folder.mkdir(parents=True, exist_ok=True)
        self.file = folder / f"{uuid.uuid4().hex}.json"
        self._lock = self._locked(self.file)

    def _locked(self, file: Path) -> IO[str] | None:
        """An open, locked file beside ``file``; None when a living run holds it. The kernel frees it at death."""
        stream = file.with_suffix(".lock").open("w")
        try:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            stream.close()
            return None
        return stream

    def keep(self, job: Job, raw: dict[str, Any], path: Path | None) -> None:
        """Write the unsaved document down. Raises JobFileError when the disk will not take it."""
        content = {"path": str(path) if path else None, "job": job_text(job, raw)}
        write_atomically(self.file, json.dumps(content))

    def forget(self) -> None:
        """Nothing is unsaved any more."""
        self.file.unlink(missing_ok=True)

    def close(self, *, keep: bool) -> None:
        """End the run; ``keep`` leaves the unsaved work for the next one."""
        if not keep:
            self.forget()
        if self._lock is not None:
            self._lock.close()
        if not keep:
            self.file.with_suffix(".lock").unlink(missing_ok=True)

    def orphans(self) -> list[Recovered]:
        """Unsaved work of runs that have died, newest first. What cannot be read is set aside, not deleted."""
        found = []
        for file in sorted(self.folder.glob("*.json"), key=os.path.getmtime, reverse=True):
            if file == self.file:
                continue
            lock = self._locked(file)
            if lock is None:
                continue
            lock.close()
            try:
                found.append(self._read(file))
            except (PlainCompassError, OSError, ValueError, KeyError, TypeError):
                os.replace(file, file.with_suffix(".unreadable"))
        return found

    @staticmethod
    def _read(file: Path) -> Recovered:
        content = json.loads(file.read_text(encoding="utf-8"))
        path = Path(content["path"]) if content["path"] else None
        return Recovered(parse_job(content["job"], path.name if path else "unsaved job"), path, file)

    def adopt(self, recovered: Recovered) -> None:
        """This run now answers for that work; it keeps a copy of its own before the old one goes."""
        self.keep(recovered.opened.job, recovered.opened.raw, recovered.path)
        recovered.source.unlink(missing_ok=True)
        recovered.source.with_suffix(".lock").unlink(missing_ok=True)
