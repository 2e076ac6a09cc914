"""``plain-compass instruments``: run the simulated instruments on this machine until interrupted."""

from __future__ import annotations

import argparse
import threading
from functools import partial

from ..instruments.devices import Faults
from ..instruments.server import FIRST_PORT, LOOPBACK, Instruments
from ..job.language import tr
from .opening import whole


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add what may go wrong, and for how long to run."""
    parser.add_argument("--seed", type=int, default=1, help=tr("same seed, same lines"))
    parser.add_argument("--every", type=float, default=0.5, metavar="SECONDS", help=tr("time between lines"))
    parser.add_argument("--count", type=partial(whole, 1, 1_000_000), default=200, help=tr("lines of each instrument"))
    parser.add_argument("--noise", type=float, default=1.0, metavar="TIMES", help=tr("spread against the usual one"))
    for name in ("lost", "other-unit", "garbage"):
        parser.add_argument(f"--{name}", type=float, default=0.0, metavar="SHARE", help=tr("share of lines, 0 to 1"))
    port = partial(whole, 0, 65_500)
    parser.add_argument("--port", type=port, default=FIRST_PORT, help=tr("first port; 0 for any that are free"))
    parser.add_argument("--for", dest="seconds", type=float, default=None, metavar="SECONDS", help=tr("stop by itself"))


def run(arguments: argparse.Namespace) -> int:
    """Serve until the time is over or the person interrupts."""
    faults = Faults(arguments.noise, arguments.lost, arguments.other_unit, arguments.garbage)
    with Instruments(
        arguments.seed, faults, count=arguments.count, every_s=arguments.every, port=arguments.port
    ) as running:
        for name, port in running.ports.items():
            print(f"{name} {LOOPBACK}:{port}", flush=True)
        try:
            threading.Event().wait(arguments.seconds)
        except KeyboardInterrupt:
            print()
    return 0
