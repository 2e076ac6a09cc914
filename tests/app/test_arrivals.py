"""Files that come to a window: dropped several at once, handed over by a second start, each to its reader."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtNetwork import QLocalSocket
from pytestqt.qtbot import QtBot

from plain_compass.app.frame.arrivals import MOST, Arrivals
from plain_compass.app.frame.one_window import OneWindow, hand_over, server_name
from plain_compass.app.frame.window import Window
from plain_compass.job.demo import demo_coupe, demo_job
from plain_compass.job.files import write_job
from plain_compass.job.geojson import site_geojson
from plain_compass.job.tree_list import export_csv


def drop(window: Window, *paths: Path) -> None:
    mime = QMimeData()
    mime.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    action = Qt.DropAction.CopyAction
    buttons, keys = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    window.dropEvent(QDropEvent(QPointF(10, 10), action, mime, buttons, keys))


def test_several_files_at_once_go_to_their_readers_and_a_second_job_to_a_window_of_its_own(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    jobs = [tmp_path / "one.pcjob.json", tmp_path / "two.pcjob.json"]
    for path in jobs:
        write_job(path, demo_coupe())
    trees, site = tmp_path / "trees.csv", tmp_path / "site.geojson"
    trees.write_text(export_csv(demo_job()))
    site.write_text(site_geojson(demo_job()))
    beside = list[Path]()
    monkeypatch.setattr(Arrivals, "open_beside", lambda _, path: beside.append(path))
    drop(window, trees, jobs[0], site, jobs[1])
    job = window.store.snapshot.job
    assert window.store.path == jobs[0] and beside == [jobs[1]]
    assert len(job.trees) == len(demo_coupe().trees) + len(demo_job().trees)
    assert {each.name for each in demo_job().site.obstacles} <= {each.name for each in job.site.obstacles}


def test_a_whole_folder_dropped_by_mistake_is_refused(window: Window, tmp_path: Path) -> None:
    before = window.store.snapshot.job
    drop(window, *(tmp_path / f"{n}.json" for n in range(MOST + 1)))
    assert f"accepted: up to {MOST}" in window.message.text() and window.store.snapshot.job is before


def second_start(name: str, folder: Path, *files: str) -> subprocess.Popen[bytes]:
    """Another process that hands files over; it ends with 3 where nobody takes them."""
    code = (
        "import sys; from pathlib import Path; from plain_compass.app.frame.one_window import hand_over;"
        "from PySide6.QtCore import QCoreApplication; app = QCoreApplication([])\n"
        "sys.exit(0 if hand_over(sys.argv[1], [Path(each) for each in sys.argv[2:]]) else 3)"
    )
    return subprocess.Popen([sys.executable, "-c", code, name, *files], cwd=folder)


def test_a_second_start_hands_its_files_to_the_window_that_runs(qtbot: QtBot, tmp_path: Path) -> None:
    name, taken = server_name(tmp_path / "settings.ini"), list[list[Path]]()
    assert not hand_over(name, [tmp_path / "a.pcjob.json"]), "nobody is there yet"
    listening = OneWindow(name, taken.append)
    second = second_start(name, tmp_path, "a.pcjob.json", "b.csv")
    qtbot.waitUntil(lambda: bool(taken), timeout=20000)
    qtbot.waitUntil(lambda: second.poll() is not None, timeout=20000)
    assert second.returncode == 0 and taken == [[tmp_path / "a.pcjob.json", tmp_path / "b.csv"]]
    listening.close()


def test_nonsense_from_elsewhere_is_not_taken(qtbot: QtBot, tmp_path: Path) -> None:
    name, taken = server_name(tmp_path / "other.ini"), list[list[Path]]()
    listening = OneWindow(name, taken.append)
    socket = QLocalSocket()
    socket.connectToServer(name)
    assert socket.waitForConnected(2000)
    socket.write(b"not json\n")
    socket.flush()
    qtbot.waitUntil(lambda: socket.state() == QLocalSocket.LocalSocketState.UnconnectedState, timeout=5000)
    assert taken == []
    listening.close()


def test_what_a_killed_window_left_behind_is_no_hindrance(tmp_path: Path) -> None:
    name = server_name(tmp_path / "third.ini")
    code = (
        "import sys; from PySide6.QtCore import QCoreApplication; from PySide6.QtNetwork import QLocalServer\n"
        "app = QCoreApplication([]); left = QLocalServer(); left.listen(sys.argv[1])\n"
        "print('there', flush=True); app.exec()"
    )
    left = subprocess.Popen([sys.executable, "-c", code, name], stdout=subprocess.PIPE, text=True)
    assert left.stdout is not None and left.stdout.readline() == "there\n"
    left.kill()
    left.wait()
    taken = list[list[Path]]()
    listening = OneWindow(name, taken.append)
    assert listening.server.isListening()
    listening.close()


def test_a_window_that_runs_goes_on_taking_files_when_another_was_opened_beside_it(
    qtbot: QtBot, tmp_path: Path
) -> None:
    name, taken = server_name(tmp_path / "fourth.ini"), list[list[Path]]()
    first = OneWindow(name, taken.append)
    beside = OneWindow(name, lambda _: None)
    assert first.server.isListening() and not beside.server.isListening()
    beside.close()
    second = second_start(name, tmp_path, "a.pcjob.json")
    qtbot.waitUntil(lambda: second.poll() is not None, timeout=20000)
    assert second.returncode == 0 and taken == [[tmp_path / "a.pcjob.json"]]
    first.close()


def test_windows_with_settings_of_their_own_do_not_meet(tmp_path: Path) -> None:
    assert server_name(tmp_path / "a.ini") != server_name(tmp_path / "b.ini")
    assert server_name(tmp_path / "a.ini") == server_name(tmp_path / "a.ini")
