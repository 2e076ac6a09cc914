"""The table of what an edit works out again is what happens, and no edit works out more than it must."""

from __future__ import annotations

import re
import sys
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[2] / "bench"))
from edits import EDITS, OTHER, edited

ROOT = Path(__file__).resolve().parents[2]

PAGE = (ROOT / "docs" / "performance.md").read_text(encoding="utf-8").split("## What an edit works out again")[-1]
ROWS = {match[1]: match[2] for match in re.finditer(r"^\| (.+?) \| (.+?) \|$", PAGE, re.MULTILINE)}
ONCE = ("cut in its wood", "mass and centre", "lying stem", "ground under the lay")


@pytest.mark.parametrize(("words", "path", "by"), EDITS)
def test_the_page_says_what_is_counted(words: str, path: str, by: float) -> None:
    again = edited(path, by)
    assert ROWS[f"{words} (`{path}`)"] == (", ".join(again) or "nothing")
    # Nothing twice.
    assert all(again.get(what, 0) <= 1 for what in ONCE), again


@pytest.mark.parametrize("path", ["cut.hinge.left_m", "cut.face.depth_m", "cut.back.step_m"])
def test_a_drag_in_the_cut_asks_neither_tree_nor_ground_again(path: str) -> None:
    assert edited(path, 0.002) == {"cut in its wood": 1}


def test_a_crown_edge_leaves_section_cut_and_slope_alone() -> None:
    again = set(edited("tree.crown.readings.0.radius_m", 0.2))
    assert "mass and centre" in again
    assert again.isdisjoint({"section at the cut", "cut in its wood", "ground under the lay", "ways out"})


def test_what_another_tree_has_in_its_wood_is_nothing_to_this_one() -> None:
    assert edited("cut.hinge.left_m", 0.002, OTHER) == {}
