"""Serves the simulated instruments on loopback, a port each."""

from __future__ import annotations

import socketserver
import threading
import time

from ..core.base.errors import PlainCompassError
from ..job.language import tr
from .devices import DEVICES, Device, Faults, Truth, lines

LOOPBACK = "127.0.0.1"
FIRST_PORT = 47310
"""Where the window looks for instruments unless it is told otherwise; the next ones follow."""
MADE_UP = Truth()
AHEAD = 100_000
"""Most lines of a device in one run; nobody takes as many readings of one tree."""


class PortError(PlainCompassError):
    """The ports asked for cannot be had."""


class _Server(socketserver.ThreadingTCPServer):
    daemon_threads = True
    allow_reuse_address = True

    def __init__(self, device: Device, content: list[bytes], every_s: float, port: int) -> None:
        self.device, self.content, self.every_s = device, content, every_s
        super().__init__((LOOPBACK, port), _Handler)


class _Handler(socketserver.BaseRequestHandler):
    server: _Server

    def handle(self) -> None:
        """Send line after line until the other side has had enough."""
        try:
            for line in self.server.content:
                self.request.sendall(line)
                time.sleep(self.server.every_s)
        except OSError:
            return


class Instruments:
    """All simulated instruments, running. Use as a context; ``ports`` says where each listens.

    ``port`` is the first of as many in a row as there are instruments; 0 takes any that are free.
    """

    def __init__(
        self,
        seed: int,
        faults: Faults,
        *,
        truth: Truth = MADE_UP,
        count: int = 200,
        every_s: float = 0.5,
        port: int = 0,
    ) -> None:
        made = [(device, lines(device, min(count, AHEAD), seed, truth, faults)) for device in DEVICES]
        self._servers: list[_Server] = []
        try:
            for number, (device, content) in enumerate(made):
                self._servers.append(_Server(device, content, every_s, port + number if port else 0))
        except OSError as error:
            for server in self._servers:
                server.server_close()
            raise PortError(
                tr(
                    "Port {port} or the next ones are taken ({strerror}); choose others.",
                    port=port,
                    strerror=error.strerror,
                )
            ) from None
        self.ports = {server.device.name: int(server.server_address[1]) for server in self._servers}

    def __enter__(self) -> Instruments:
        for server in self._servers:
            threading.Thread(target=server.serve_forever, name=server.device.name, daemon=True).start()
        return self

    def __exit__(self, *_: object) -> None:
        for server in self._servers:
            server.shutdown()
            server.server_close()
