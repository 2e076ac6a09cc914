"""Two checkouts timed side by side: a process each, asked in turn for a burst of the same work.

The machine's slow minutes then fall on both alike; only the ratio says anything.
"""

from __future__ import annotations

import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

HERE = Path(__file__).resolve().parent
ROUNDS, LONG_ms = 7, 3_000.0
"""Rounds of both, and what takes so long that two must do."""


class Times(NamedTuple):
    """Milliseconds of one call: processor time and the clock's."""

    cpu_ms: float
    clock_ms: float


def burst(work: Callable[[int], object], first: int, calls: int) -> Times:
    """Medians over some calls, after one that is not counted."""
    work(first)
    found = []
    for number in range(first + 1, first + 1 + calls):
        began, clock = time.process_time(), time.perf_counter()
        work(number)
        found.append((time.process_time() - began, time.perf_counter() - clock))
    cpu, clock = zip(*found, strict=True)
    return Times(1e3 * statistics.median(cpu), 1e3 * statistics.median(clock))


def serve() -> None:
    """Be one of the two: answer lines of *name, calls* with medians."""
    from works import everything

    works, asked = everything(), dict[str, int]()
    print(*works, sep="|", flush=True)
    for line in sys.stdin:
        name, calls = line.rstrip("\n").split("|")
        first = asked.get(name, 0)
        asked[name] = first + int(calls) + 1
        print(*burst(works[name], first, int(calls)), flush=True)


class Side:
    """A checkout that answers."""

    def __init__(self, root: Path) -> None:
        code = f"import sys; sys.path[:0] = [{str(HERE)!r}, {str(root / 'src')!r}]; import side; side.serve()"
        self.process = subprocess.Popen(
            [sys.executable, "-c", code], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
        )
        self.names = self._line().split("|")

    def ask(self, name: str, calls: int) -> Times:
        """A burst of one work."""
        assert self.process.stdin is not None
        print(name, calls, sep="|", file=self.process.stdin, flush=True)
        return Times(*map(float, self._line().split()))

    def _line(self) -> str:
        assert self.process.stdout is not None
        return self.process.stdout.readline().rstrip("\n")

    def close(self) -> None:
        """End it."""
        self.process.kill()
        self.process.wait()


def side_by_side(root: Path, other: Path) -> list[tuple[str, Times, Times, float]]:
    """(work, this checkout's times, the other's, ratio of processor times) of each work: medians over the rounds."""
    from works import calls_of

    sides, found = (Side(root), Side(other)), []
    for name in sides[0].names:
        rounds = [[side.ask(name, calls_of(name)) for side in sides]]
        # What takes seconds is disturbed less, and would take minutes.
        more = ROUNDS if max(times.cpu_ms for times in rounds[0]) < LONG_ms else 2
        rounds += [[side.ask(name, calls_of(name)) for side in sides] for _ in range(more - 1)]
        mine, others = (Times(*map(statistics.median, zip(*each, strict=True))) for each in zip(*rounds, strict=True))
        ratio = statistics.median(one.cpu_ms / two.cpu_ms for one, two in rounds)
        found.append((name, mine, others, ratio))
        print(f"{name:48s} {mine.cpu_ms:9.2f} {others.cpu_ms:9.2f}  {ratio:.2f}", flush=True)
    for side in sides:
        side.close()
    return found
