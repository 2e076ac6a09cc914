"""A program killed while it writes to the log loses nothing it was told of as kept: a few rounds of ``make kill``."""

from __future__ import annotations

import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[2] / "tools"))

from kill_log import rounds


def test_what_was_told_as_kept_survives_a_kill(tmp_path: Path) -> None:
    kept, lost = rounds(tmp_path, 5, seed=3)
    assert lost == [] and kept >= 5
