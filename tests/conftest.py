"""Fixtures shared by the tests of the window."""

from __future__ import annotations

import os
from collections.abc import Iterator
from pathlib import Path

import pytest

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
# A worker has a screen and folders of its own: two windows on one screen would fight for the focus.
WORKER = int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"))
if screens := os.environ.get("PLAIN_COMPASS_TEST_SCREENS", "").split():
    os.environ["DISPLAY"] = screens[WORKER % len(screens)]
if folder := os.environ.get("PLAIN_COMPASS_TEST_FOLDER"):
    for name in ("CONFIG", "STATE", "DATA"):
        os.environ[f"XDG_{name}_HOME"] = f"{folder}/{WORKER}/{name.lower()}"

from hypothesis import settings
from PySide6.QtGui import QGuiApplication
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.frame.store import Store
from plain_compass.app.frame.window import Window
from plain_compass.app.main import application, make_window
from plain_compass.core.base.errors import ReckoningError
from plain_compass.job.demo import demo_job
from plain_compass.job.files import Opened

# A busy machine is not a failure: examples are limited in number, not in time.
settings.register_profile("unhurried", deadline=None)
settings.load_profile("unhurried")


@pytest.fixture
def store() -> Store:
    """The demo job in a store, without a window."""
    return Store(Opened(demo_job()))


@pytest.fixture
def failing_falls(monkeypatch: pytest.MonkeyPatch) -> None:
    """Every fall that is begun from now on runs out of numbers."""

    def fails(*_: object) -> Iterator[None]:
        raise ReckoningError("The fall")
        yield

    monkeypatch.setattr("plain_compass.app.frame.fall_watch.fall_in_steps", fails)


@pytest.fixture
def window(qtbot: QtBot, tmp_path: Path) -> Iterator[Window]:
    """The window on the demo job, shown and active, with its files in a scratch folder."""
    application()
    made = make_window(Opened(demo_job()), None, Settings(tmp_path / "settings.ini"), Recovery(tmp_path / "recovery"))
    made.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
    made.resize(1280, 800)
    made.show()
    with qtbot.waitActive(made):
        made.activateWindow()
    yield made
    made.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
    made.close()
    # The offscreen platform does not survive its own exit with something on the clipboard.
    QGuiApplication.clipboard().clear()
    made.deleteLater()
    qtbot.wait(1)
