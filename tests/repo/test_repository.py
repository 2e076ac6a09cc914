"""The repository itself: locks without hosts, fonts in the package, originality of place, and Qt's own trap."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from importlib import metadata
from pathlib import Path

import pytest
from packaging.requirements import Requirement
from packaging.utils import canonicalize_name
from PySide6.QtGui import QFontDatabase
from pytestqt.qtbot import QtBot

from plain_compass.app.drawing.palette import CONDENSED, FAMILY, LIGHT, font, load_fonts
from plain_compass.app.frame.style import style_sheet
from plain_compass.app.main import application
from plain_compass.core.judge.limits import LIMITS

ROOT = Path(__file__).resolve().parents[2]

SET_TEXT = """
from PySide6.QtWidgets import QApplication, QLabel
app = QApplication([])
label = QLabel()
for number in range(20000):
    label.setText(str(number % 7))
print("done")
"""


def test_twenty_thousand_void_calls_do_not_abort_the_process() -> None:
    """A later Qt binding loses a reference to None on every void call and aborts after some 5,700 of them."""
    environment = os.environ | {"QT_QPA_PLATFORM": "offscreen"}
    told = subprocess.run(
        [sys.executable, "-c", SET_TEXT], env=environment, capture_output=True, text=True, check=False
    )
    assert (told.returncode, told.stdout.strip()) == (0, "done")


@pytest.mark.parametrize("name", ["runtime", "dev"])
def test_locks_pin_every_version_by_hash_and_name_no_host(name: str) -> None:
    text = (ROOT / "requirements" / f"{name}.lock").read_text()
    assert "http" not in text and "index" not in text
    pinned = re.findall(r"^([a-z0-9-]+)==", text, re.MULTILINE)
    assert {"pyside6-essentials", "shiboken6", "numpy", "pydantic"} <= set(pinned)
    assert text.count("--hash=sha256:") >= len(pinned)
    assert "pyside6-essentials==6.11.3" in text and "shiboken6==6.11.3" in text


def test_the_programs_own_type_is_used(qtbot: QtBot) -> None:
    application()
    assert FAMILY in load_fonts()
    families = QFontDatabase.families()
    assert FAMILY in families and CONDENSED in families
    assert font(0.2).pixelSize() == 1
    assert (ROOT / "src/plain_compass/data/fonts/OFL.txt").exists()


def test_the_style_has_no_gradients_or_shadows() -> None:
    sheet = style_sheet(LIGHT)
    assert "gradient" not in sheet and "shadow" not in sheet


def test_the_readme_has_its_two_commands_and_its_pictures_exist() -> None:
    text = (ROOT / "README.md").read_text()
    assert "make demo" in text and "make test" in text
    pictures = re.findall(r"\((docs/screenshots/[^)]+)\)", text)
    assert pictures
    for picture in pictures:
        assert (ROOT / picture).is_file(), picture
    assert len(list((ROOT / "docs/screenshots").glob("*"))) < 20


def test_missing_system_libraries_are_named_before_qt_is_imported() -> None:
    told = subprocess.run(
        [sys.executable, str(ROOT / "tools/system_libraries.py"), "--tests"],
        capture_output=True,
        text=True,
        check=False,
    )
    assert told.returncode == 0, told.stdout
    source = (ROOT / "tools/system_libraries.py").read_text()
    assert "import PySide6" not in source


def test_continuous_integration_runs_the_readmes_test_command_as_on_a_machine_of_nobodys() -> None:
    lines = [line for line in (ROOT / ".ci/run").read_text().splitlines() if line and not line.startswith("#")]
    assert lines[-1] == "make test"
    assert "unset PYTHONUNBUFFERED PYTHONDONTWRITEBYTECODE" in lines and "rm -rf .venv" in lines
    assert len(lines) == 5


def _pinned(name: str) -> set[str]:
    text = (ROOT / "requirements" / f"{name}.lock").read_text()
    return set(re.findall(r"^([a-z0-9-]+)==", text, re.MULTILINE))


def _asked_for(name: str) -> list[Requirement]:
    lines = (ROOT / "requirements" / f"{name}.in").read_text().splitlines()
    return [Requirement(line) for line in lines if line and not line.startswith("-")]


def _closure(wanted: list[Requirement]) -> set[str]:
    """Names of everything the requirements ask for, and of what that asks for, extras included."""
    seen: set[tuple[str, str]] = set()
    while wanted:
        asked = wanted.pop()
        name = canonicalize_name(asked.name)
        for extra in {"", *asked.extras}:
            if (name, extra) in seen:
                continue
            seen.add((name, extra))
            for line in metadata.requires(name) or ():
                needed = Requirement(line)
                if needed.marker is None or needed.marker.evaluate({"extra": extra}):
                    wanted.append(needed)
    return {name for name, _ in seen}


@pytest.mark.parametrize("name", ["runtime", "dev"])
def test_locks_are_complete_so_that_nothing_needs_to_be_resolved(name: str) -> None:
    """The lock is installed without its dependencies being followed; what it leaves out would be missing."""
    wanted = _asked_for(name) + (_asked_for("runtime") if name == "dev" else [])
    assert _closure(wanted) <= _pinned(name)
    assert "--no-deps --require-hashes" in (ROOT / "Makefile").read_text()


def test_what_is_installed_agrees_with_itself() -> None:
    told = subprocess.run([sys.executable, "-m", "pip", "check"], capture_output=True, text=True, check=False)
    assert told.returncode == 0, told.stdout


def _without_qt(code: str) -> str:
    tool = f"import sys; sys.path.insert(0, {str(ROOT / 'tools')!r}); import system_libraries as tool; "
    told = subprocess.run([sys.executable, "-c", tool + code], capture_output=True, text=True, check=True)
    return told.stdout.strip()


def test_what_the_machine_lacks_is_known_before_qt_is_installed() -> None:
    """On a bare machine the loader is asked for each library, so nothing has to be fetched first."""
    nothing = "tool.qt_folder = lambda: tool.Path('/nowhere'); tool._loads = lambda name: 'cursor' not in name; "
    assert _without_qt(nothing + "print(tool.missing_libraries(tool.DISPLAY))") == "['libxcb-cursor.so.0']"
    assert _without_qt(nothing + "print(tool.missing_libraries(tool.OFFSCREEN))") == "[]"


def test_the_machine_is_looked_at_before_anything_is_fetched() -> None:
    recipe = (ROOT / "Makefile").read_text().split("\ntest:", 1)[1]
    assert recipe.index("system_libraries.py --tests") < recipe.index("lint")


def test_the_decisions_give_every_dependency_its_reason() -> None:
    decisions = (ROOT / "docs/decisions.md").read_text().lower()
    for line in (ROOT / "requirements/dev.in").read_text().splitlines() + (
        ROOT / "requirements/runtime.in"
    ).read_text().splitlines():
        if line and not line.startswith("-r"):
            assert line.split("==")[0].lower() in decisions, line


RICH = {"top_bar.py", "ground/page.py", "stages/page.py", "fall/page.py", "stump/why_view.py", "stump/days.py"}
"""Where a label is markup of the program's own, every word of a person's in it escaped."""


def test_labels_are_plain_text_but_for_a_few_that_escape_what_a_person_has_typed() -> None:
    """A tree called ``<img src=x>`` is a name: Qt's label guesses, ours do not."""
    files = (ROOT / "src/plain_compass/app").rglob("*.py")
    guessing = [str(path) for path in files if re.search(r"= QLabel\(", path.read_text())]
    assert [path for path in guessing if not path.endswith(tuple(RICH))] == []


def test_the_table_of_relations_names_files_and_tests_that_exist() -> None:
    rows = [line for line in (ROOT / "docs/model.md").read_text().splitlines() if line.startswith("| ")][2:]
    assert len(rows) > 25
    for row in rows:
        *_, files, tests = (cell.strip() for cell in row.strip("|").split("|"))
        for name in re.findall(r"`([^`]+)`", files):
            assert list((ROOT / "src/plain_compass/core").glob(name)), name
        for name in re.findall(r"`([^`]+)`", tests):
            assert list((ROOT / "tests").glob(name)), name


def test_what_contributing_names_exists() -> None:
    text = (ROOT / "CONTRIBUTING.md").read_text()
    targets = set(re.findall(r"^([a-z]+):", (ROOT / "Makefile").read_text(), re.MULTILINE))
    assert set(re.findall(r"^make ([a-z]+)", text, re.MULTILINE)) <= targets
    for name in re.findall(r"`(tests/[^`]+|docs/[^`]+|core/[^`]+|job/[^`]+)`", text):
        assert (ROOT / name).exists() or (ROOT / "src/plain_compass" / name).exists(), name


def test_every_limit_names_a_relation_of_the_models_page_and_stands_once_in_the_table() -> None:
    rows = re.findall(r"^\| ([^|]+?) \|", (ROOT / "docs/model.md").read_text(), re.MULTILINE)
    assert {re.sub(r"[\[\]]", "", limit.relation) for limit in LIMITS.values()} <= set(rows)
    assert len(rows) == len(set(rows))
