"""The tools that try the program: that they would notice, and that their lists are those of today's code."""

from __future__ import annotations

import sys
from collections import Counter
from pathlib import Path
from random import Random

import pytest

from plain_compass import __version__

sys.path.insert(0, str(Path(__file__).resolve().parents[2] / "tools"))
import fuzz
import make_release
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


def test_a_release_wants_a_dated_changelog_versions_that_agree_and_its_packages(tmp_path: Path) -> None:
    (tmp_path / "dist").mkdir()
    (tmp_path / "CHANGELOG.md").write_text("# Changelog\n\n## 1.2.3 (unreleased)\n")
    (tmp_path / "CITATION.cff").write_text("title: x\nversion: 1.2.2\n")
    assert len(make_release.troubles(tmp_path, "1.2.3")) == 4
    (tmp_path / "CHANGELOG.md").write_text("# Changelog\n\n## 1.2.3 (2026-11-30)\n")
    (tmp_path / "CITATION.cff").write_text("title: x\nversion: 1.2.3\n")
    for part in ("plain_compass-1.2.3-py3-none-any.whl", "plain-compass_1.2.3_amd64.deb"):
        (tmp_path / "dist" / part).write_bytes(b"abc")
    assert not make_release.troubles(tmp_path, "1.2.3")
    told = make_release.checksums(tmp_path / "dist").splitlines()
    assert len(told) == 2
    assert told[0].startswith("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad  plain-compass_1.2.3")


def test_package_project_and_citation_say_the_same_version() -> None:
    assert f"\nversion: {__version__}\n" in (ROOT / "CITATION.cff").read_text()
    assert f'\nversion = "{__version__}"\n' in (ROOT / "pyproject.toml").read_text()
