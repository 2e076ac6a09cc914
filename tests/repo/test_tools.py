"""The tools that try the program: that they would notice, and that their lists are those of today's code."""

from __future__ import annotations

import sys
from collections import Counter
from pathlib import Path
from random import Random

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[2] / "tools"))
import fuzz
import mutants

ROOT = Path(__file__).resolve().parents[2]


def test_every_slip_stands_once_in_the_code_of_today() -> None:
    assert len(mutants.SLIPS) >= 60
    for slip in mutants.SLIPS:
        text = (ROOT / "src/plain_compass" / slip.file).read_text()
        assert text.count(slip.was) == 1, slip
        assert slip.was != slip.slipped
        assert all((ROOT / each).exists() for each in slip.tests.split())


def test_the_slips_are_spread_over_the_code() -> None:
    assert len(Counter(slip.file for slip in mutants.SLIPS)) >= 25


@pytest.mark.parametrize("kind", fuzz.KINDS, ids=lambda kind: kind.__name__)
@pytest.mark.parametrize("seed", range(900, 906))
def test_nonsense_is_answered_or_refused_in_a_sentence(kind: object, seed: int) -> None:
    """The short form of ``make fuzz``."""
    assert fuzz.tried(kind, seed) == ""  # type: ignore[arg-type]


def test_the_fuzzer_sees_what_is_neither_answer_nor_sentence() -> None:
    def broken(chance: Random) -> None:
        raise KeyError(chance.random())

    assert "KeyError" in fuzz.tried(broken, 1)
