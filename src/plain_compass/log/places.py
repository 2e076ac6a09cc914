"""Where the log lies: one's own in the data folder, the demo's made anew in memory from what ships."""

from __future__ import annotations

import json
from pathlib import Path

from platformdirs import user_data_path

from .. import APP
from ..job.document import LogEntry
from ..job.log_entries import entry_from
from ..job.tables import DATA
from .store import StumpLog

DEMO = "demo"
"""What the demo's log is called where a file is asked for."""


def own_log_file() -> Path:
    """The file of one's own log."""
    return user_data_path(APP) / "stumps.sqlite"


def demo_entries() -> list[LogEntry]:
    """The made-up stumps of Withy Holm, by two made-up fallers."""
    text = (DATA / "demo" / "withy-holm-stumps.jsonl").read_text(encoding="utf-8")
    return [entry_from(json.loads(line)) for line in text.splitlines()]


def demo_log() -> StumpLog:
    """The demo's log: nothing of it is kept."""
    log = StumpLog(None)
    log.add(demo_entries())
    return log
