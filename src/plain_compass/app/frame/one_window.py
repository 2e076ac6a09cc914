"""One running window takes over files that are opened later: the second start hands them over and ends."""

from __future__ import annotations

import hashlib
import json
import os
from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QObject
from PySide6.QtNetwork import QLocalServer, QLocalSocket

WAIT_MS = 1500
"""As long as a window may take to answer; one that does not is passed over."""
MOST_BYTES = 65536
"""Longer is no list of files."""
TAKEN = b"taken"
"""What a window answers."""


def server_name(settings: Path) -> str:
    """Of the window of this person with these settings: another world of settings has a window of its own."""
    world = hashlib.sha256(str(settings.absolute()).encode()).hexdigest()[:12]
    return f"plain-compass-{os.getuid()}-{world}"


def _reached(name: str) -> QLocalSocket | None:
    """A line to the window of a name; None where nobody listens."""
    socket = QLocalSocket()
    socket.connectToServer(name)
    return socket if socket.waitForConnected(WAIT_MS) else None


def hand_over(name: str, paths: Sequence[Path]) -> bool:
    """Give files to the window that runs; False where none does, or it does not answer."""
    socket = _reached(name)
    if socket is None:
        return False
    files = [str(path.absolute()) for path in paths]
    socket.write(json.dumps({"files": files}).encode() + b"\n")
    socket.flush()
    answer = b""
    while TAKEN not in answer and socket.waitForReadyRead(WAIT_MS):
        answer += bytes(socket.readAll().data())
    socket.disconnectFromServer()
    return TAKEN in answer


class OneWindow(QObject):
    """Listens for files.

    Args:
        take: is given the files, and brings the window to the front.
    """

    def __init__(self, name: str, take: Callable[[list[Path]], None], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._take = take
        self.server = QLocalServer(self)
        self.server.setSocketOptions(QLocalServer.SocketOption.UserAccessOption)
        # One that runs goes on taking files itself; what a killed one left behind is taken away.
        if _reached(name) is None:
            QLocalServer.removeServer(name)
            self.server.listen(name)
        self.server.newConnection.connect(self._connected)

    def _connected(self) -> None:
        socket = self.server.nextPendingConnection()
        if socket is None:
            return
        socket.readyRead.connect(lambda: self._read(socket))
        socket.disconnected.connect(socket.deleteLater)

    def _read(self, socket: QLocalSocket) -> None:
        if not socket.canReadLine():
            if socket.bytesAvailable() > MOST_BYTES:
                socket.abort()
            return
        line = bytes(socket.readLine().data())
        try:
            files = [Path(each) for each in json.loads(line)["files"]]
        except (ValueError, KeyError, TypeError):
            socket.abort()
            return
        socket.write(TAKEN)
        socket.flush()
        self._take(files)

    def close(self) -> None:
        """Listen no more."""
        self.server.close()
