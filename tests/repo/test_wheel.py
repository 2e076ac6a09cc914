"""The wheel: everything that ships is in it, and the program answers from it alone, without the source tree."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
SHIPS = ROOT / "src" / "plain_compass"
LEFT = ("__pycache__",)


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Built from a copy, so that nothing is left in the tree; with what is installed, so that nothing is fetched."""
    folder = tmp_path_factory.mktemp("wheel")
    copy = folder / "tree"
    copy.mkdir()
    for name in ("pyproject.toml", "README.md", "LICENSE"):
        shutil.copy(ROOT / name, copy / name)
    shutil.copytree(ROOT / "src", copy / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    pip = [sys.executable, "-m", "pip", "--disable-pip-version-check", "wheel", "-q"]
    options = ["--no-deps", "--no-build-isolation", "--no-index", "-w", str(folder)]
    subprocess.run([*pip, *options, str(copy)], check=True, capture_output=True)
    return next(folder.glob("*.whl"))


def test_every_file_that_ships_is_in_the_wheel(wheel: Path) -> None:
    inside = set(zipfile.ZipFile(wheel).namelist())
    ours = {path for path in SHIPS.rglob("*") if path.is_file() and not set(path.parts) & set(LEFT)}
    assert not {str(path.relative_to(SHIPS.parent)) for path in ours} - inside


def test_the_program_answers_from_the_wheel_alone(wheel: Path, tmp_path: Path) -> None:
    zipfile.ZipFile(wheel).extractall(tmp_path / "installed")
    run = f"import sys; sys.path.insert(0, {str(tmp_path / 'installed')!r}); from plain_compass.cli import main; "
    asks = "import plain_compass; print(plain_compass.__file__); sys.exit(main(['assess', 'demo']))"
    # -S leaves out what links the source tree; the libraries are put back by hand.
    libraries = os.pathsep.join(path for path in sys.path if path.endswith("site-packages"))
    told = subprocess.run(
        [sys.executable, "-S", "-c", run + asks],
        capture_output=True,
        text=True,
        cwd=tmp_path,
        env={**os.environ, "PYTHONPATH": libraries},
        check=True,
    )
    assert told.stdout.startswith(str(tmp_path)) and "WH-07" in told.stdout


def test_the_wheel_has_the_command_and_says_it_is_typed(wheel: Path) -> None:
    inside = zipfile.ZipFile(wheel)
    entry = next(name for name in inside.namelist() if name.endswith("entry_points.txt"))
    assert "plain-compass = plain_compass.cli:main" in inside.read(entry).decode()
    assert "plain_compass/py.typed" in inside.namelist()
