"""Kill the program over and over while it is being worked in, and see that nothing is lost: ``make kill``.

A child process has the whole window on a job file and makes a numbered edit every 30 to 500 ms, saving now and then; it
writes down each edit and each save it was told of. It is killed without warning, started again, and must then show
every edit that was two seconds old, every save, and no older state than the newest save. Age is counted in beats of a
thread of the child: a machine that stands still for a while ages nothing.

``python tools/kill_rounds.py [--rounds 200] [--seed 1]``; exit status 1 when something was lost.
"""

from __future__ import annotations

import argparse
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from itertools import accumulate
from pathlib import Path
from typing import Any

LOST_AT_MOST_S = 2.0
"""Autosave promises to be at most one second behind; a busy machine is given another."""
BEAT_S = 0.1
"""How often the window says that it lives."""
GAP_MS = (30, 500)
"""Pauses between two edits: from a held key to a person who thinks."""
LIFE_S = (0.2, 3.5)
"""How long a window works before it is killed."""


def child(folder: Path, seed: int) -> int:
    """The program being worked in, until it is killed."""
    from PySide6.QtCore import QTimer

    from plain_compass.app.frame.recovery import Recovery
    from plain_compass.app.frame.settings import Settings
    from plain_compass.app.main import application, start

    app = application()
    job, log = folder / "job.pcjob.json", folder / "log"
    window = start(job, Settings(folder / "settings.ini"), Recovery(folder / "recovery"))
    chance, number = random.Random(seed), int(window.store.snapshot.plan.notes)

    def tell(what: str) -> None:
        with log.open("a") as stream:
            stream.write(f"{what} {number} {time.time()}\n")

    window.jobs.ask_changed = lambda _: tell("asked") or "stay"  # type: ignore[method-assign, func-returns-value]
    app.processEvents()  # nobody works in a window that has not been painted yet
    tell("shown")

    def beat() -> None:
        while True:
            time.sleep(BEAT_S)
            tell("alive")

    threading.Thread(target=beat, daemon=True).start()

    def work() -> None:
        nonlocal number
        if chance.random() < 0.15 and window.jobs.save():
            tell("saved")
        else:
            number += 1
            window.store.set("notes", str(number), "notes", joins=True)
            tell("edit")
        QTimer.singleShot(chance.randint(*GAP_MS), work)

    work()
    return app.exec()


def prepare(folder: Path) -> None:
    """A job file with edit number 0."""
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import with_plan
    from plain_compass.job.files import write_job

    job = demo_job()
    write_job(folder / "job.pcjob.json", with_plan(job, job.trees[0].id, "notes", "0"))


def lines(folder: Path) -> list[tuple[str, int, float]]:
    """What the children wrote down."""
    log = folder / "log"
    told = [line.split() for line in (log.read_text().splitlines() if log.exists() else [])]
    return [(what, int(number), float(at)) for what, number, at in (each for each in told if len(each) == 3)]


def one_round(folder: Path, seed: int, life_s: float) -> float:
    """Start a child, let it work and kill it; returns when that was."""
    environment = os.environ | {"QT_QPA_PLATFORM": os.environ.get("QT_QPA_PLATFORM", "offscreen")}
    command = [sys.executable, __file__, "--child", str(folder), "--seed", str(seed)]
    began = len(lines(folder))
    process = subprocess.Popen(command, env=environment)
    try:
        while not any(what == "shown" for what, *_ in lines(folder)[began:]) and process.poll() is None:
            time.sleep(0.02)
        time.sleep(life_s)
    finally:
        process.send_signal(signal.SIGKILL)
        process.wait()
    return time.time()


def losses(told: list[tuple[str, int, float]], killed: list[float]) -> list[str]:
    """A sentence for everything that was lost, out of what was written down and when the program was killed."""
    found = []
    for at in killed:
        before = [line for line in told if line[2] <= at]
        beats = list(accumulate(what == "alive" for what, *_ in before))
        shown = next((number for what, number, when in told if what == "shown" and when > at), None)
        if shown is None:
            continue
        late = LOST_AT_MOST_S / BEAT_S
        aged = zip(before, beats, strict=True)
        old = max((n for (what, n, _), done in aged if what == "edit" and beats[-1] - done > late), default=0)
        saved = max((n for what, n, _ in before if what == "saved"), default=0)
        if shown < max(old, saved):
            found.append(f"edit {max(old, saved)} was lost: {shown} came back after the kill at {at:.1f}.")
    return found + [f"a save was held for somebody else's at {when:.1f}." for what, _, when in told if what == "asked"]


def rounds(folder: Path, number: int, seed: int) -> tuple[list[str], list[tuple[str, int, float]]]:
    """So many rounds, and one more start to see what came back; what was lost, and the log."""
    prepare(folder)
    chance = random.Random(seed)
    killed: list[float] = []
    for each in range(number + 1):
        killed.append(one_round(folder, seed * 1000 + each, chance.uniform(*LIFE_S) if each < number else 0.1))
    return losses(lines(folder), killed), lines(folder)


def main(arguments: list[str] | None = None) -> int:
    """Run the rounds and say what was lost."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--rounds", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--child", type=Path)
    chosen: Any = parser.parse_args(arguments)
    if chosen.child:
        return child(chosen.child, chosen.seed)
    with tempfile.TemporaryDirectory(prefix="plain-compass-kill-") as scratch:
        lost, told = rounds(Path(scratch), chosen.rounds, chosen.seed)
    for sentence in lost:
        print(sentence)
    edits, saves = (sum(what == each for what, *_ in told) for each in ("edit", "saved"))
    print(f"{chosen.rounds} kills, {edits} edits, {saves} saves: {len(lost) or 'nothing'} lost.")
    return 1 if lost else 0


if __name__ == "__main__":
    sys.exit(main())
