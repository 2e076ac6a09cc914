"""The window's end of the instruments: sockets on loopback, bytes to samples, and trying again."""

from __future__ import annotations

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtNetwork import QAbstractSocket, QTcpSocket

from ....instruments.protocol import Decoder, Rejected, Sample
from ....instruments.server import LOOPBACK
from ....job.language import tr

AGAIN_MS = 1500
"""An instrument that went out of reach is looked for so often."""


class Link(QObject):
    """One instrument. A lost connection is tried again until it is closed; what has come in stays.

    Signals:
        arrived: an accepted Sample.
        refused: a sentence about a line that was not taken.
        changed: the state has changed; see ``state``.
    """

    arrived = Signal(object)
    refused = Signal(str)
    changed = Signal()

    def __init__(self, name: str, port: int, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.name, self.port = name, port
        self.accepted, self.rejected, self.missed = 0, 0, 0
        self._decoder = Decoder()
        self._wanted = True
        self._socket = QTcpSocket(self)
        self._socket.readyRead.connect(self._read)
        self._socket.connected.connect(self.changed)
        self._socket.disconnected.connect(self._lost)
        self._socket.errorOccurred.connect(lambda _: self._lost())
        self._again = QTimer(self)
        self._again.setSingleShot(True)
        self._again.setInterval(AGAIN_MS)
        self._again.timeout.connect(self._try)
        self._try()

    @property
    def state(self) -> str:
        """In words: connected, waiting, or closed."""
        if self._socket.state() == QAbstractSocket.SocketState.ConnectedState:
            return tr("connected")
        return tr("not there, trying again") if self._wanted else tr("closed")

    def close(self) -> None:
        """Want no more from it."""
        self._wanted = False
        self._again.stop()
        self._socket.abort()
        self.changed.emit()

    def _try(self) -> None:
        if self._wanted and self._socket.state() == QAbstractSocket.SocketState.UnconnectedState:
            self._socket.connectToHost(LOOPBACK, self.port)

    def _lost(self) -> None:
        # The half line of a broken connection belongs to nothing that comes after it.
        self._decoder.restart()
        if self._wanted:
            self._again.start()
        self.changed.emit()

    def _read(self) -> None:
        for found in self._decoder.feed(bytes(self._socket.readAll().data())):
            if isinstance(found, Rejected):
                self.rejected += 1
                self.refused.emit(f"{self.name}: {found.why}")
            elif isinstance(found, Sample):
                self.accepted += 1
                self.missed += found.missed
                self.arrived.emit(found)
        self.changed.emit()
