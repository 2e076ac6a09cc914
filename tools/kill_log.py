"""Kill a program that writes to the stump log over and over, and see that nothing is lost: ``make kill`` runs it too.

A child takes one stump after another into a log and says so when it has been told that each is kept. It is killed
without warning somewhere in between; then the log must be whole and hold every stump that was said to be kept.

``python tools/kill_log.py [--rounds 300] [--seed 1]``; exit status 1 when something was lost.
"""

from __future__ import annotations

import argparse
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path

LIFE_S = (0.0, 0.25)
"""How long a child goes on writing before it is killed, once it has begun."""


def child(path: Path, number: int) -> int:
    """Write until killed."""
    from plain_compass.log.places import demo_entries
    from plain_compass.log.store import StumpLog

    log, entry = StumpLog(path), demo_entries()[0]
    while True:
        number += 1
        log.add([replace(entry, id=f"kill-{number:06d}")])
        print(number, flush=True)


def one_round(path: Path, kept: int, life_s: float) -> int:
    """Let a child write for a while and kill it; returns the newest stump that it was told is kept."""
    command = [sys.executable, __file__, "--child", str(path), "--from", str(kept)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        first = process.stdout.readline()
        time.sleep(life_s)
        os.kill(process.pid, signal.SIGKILL)
        lines = [first, *process.stdout]
    # A line that was cut short was not told.
    told = [int(line) for line in lines if line.endswith("\n")]
    return max(told, default=kept)


def lost_in(path: Path, kept: int) -> list[str]:
    """Sentences on what is missing or torn."""
    from plain_compass.log.store import StumpLog

    log = StumpLog(path)
    found = [*log.troubles, *log.check()]
    there = {row[1] for row in log.listed()}
    lost = [number for number in range(1, kept + 1) if f"kill-{number:06d}" not in there]
    found += [f"stump {number} was told as kept and is not there" for number in lost[:5]]
    torn = [id for id in there if log.entry(id) is None]
    log.close()
    return found + [f"{id} cannot be read" for id in torn[:5]]


def rounds(folder: Path, count: int, seed: int) -> tuple[int, list[str]]:
    """(stumps told as kept, what was lost) after so many kills."""
    chance, kept, path = random.Random(seed), 0, folder / "stumps.sqlite"
    for number in range(count):
        kept = one_round(path, kept, chance.uniform(*LIFE_S))
        lost = lost_in(path, kept)
        if lost:
            return kept, [f"after kill {number + 1}: {each}" for each in lost]
    return kept, []


def main() -> int:
    """Kill, look, tell."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--rounds", type=int, default=300)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--child", type=Path)
    parser.add_argument("--from", type=int, default=0, dest="begin")
    arguments = parser.parse_args()
    if arguments.child is not None:
        return child(arguments.child, arguments.begin)
    with tempfile.TemporaryDirectory() as folder:
        kept, lost = rounds(Path(folder), arguments.rounds, arguments.seed)
    print("\n".join(lost) if lost else f"{arguments.rounds} kills, {kept} stumps told as kept: none lost, none torn.")
    return 1 if lost else 0


if __name__ == "__main__":
    sys.exit(main())
