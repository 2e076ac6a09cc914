"""Time what must be quick and write docs/performance.md: ``make bench``.

Times are medians of one run on one machine; the ratios beside them are what can be compared between machines.
"""

from __future__ import annotations

import argparse
import os
import statistics
import subprocess
import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path

from edits import edits_page
from falls import bench_falls
from growth import growth_page
from logs import log_works
from side import Times, burst, side_by_side
from works import Work, assessments, calls_of, everything

ROOT = Path(__file__).resolve().parent.parent
BASE = "assess, hinge dragged"
ROUNDS = 5
"""Enough for a median that one slow moment of the machine does not move."""
PAGE = ROOT / "docs" / "performance.md"
STARTED = """
import sys, time
from pathlib import Path
began = time.perf_counter()
from plain_compass.app.frame.recovery import Recovery
from plain_compass.app.frame.settings import Settings
from plain_compass.app.main import application, make_window
from plain_compass.job.demo import demo_job
from plain_compass.job.files import Opened
folder = Path(sys.argv[1])
app = application()
window = make_window(Opened(demo_job()), None, Settings(folder / "s.ini"), Recovery(folder / "r"))
window.resize(1280, 800)
window.show()
app.processEvents()
window.grab()
peak = next(int(line.split()[1]) for line in open("/proc/self/status") if line.startswith("VmRSS"))
print(time.perf_counter() - began, peak / 1024)
"""


DRAGS = (
    ("cut", "WH-07", "plan", "Cut: hinge", "cut.hinge.left_m"),
    ("cut", "WH-07", "plan", "Cut: lay", "cut.lay_deg"),
    ("ground", "WH-07", "plan", "Ground: lay", "cut.lay_deg"),
    ("look", "WH-07", "along", "Look: height", "tree.height_m"),
    ("look", "WH-12", "along", "Look: lean, eight crown edges", "tree.lean.angle_deg"),
    ("look", "WH-12", "crown", "Look: one of eight crown edges", "tree.crown.readings.3.radius_m"),
    ("look", "WH-15", "butt", "Look: probe hole", "tree.decay.shell.0.sound_m"),
    ("look", "WH-21", "butt", "Look: buttress", "tree.lobes.1.projection_m"),
)
"""Step, tree, view, name and grip of every drag that is timed."""


def fan_works() -> dict[str, Work]:
    """The first look after a drag, the whole fan, and the plan's own fall."""
    from plain_compass.core.assess import assess
    from plain_compass.core.fall.nominal import nominal_fall
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import assess_tree
    from plain_compass.job.fall import QUICK, fan_for

    plan = demo_job().plan("WH-12")
    result = assess_tree(demo_job(), "WH-12")
    cut = result.case.cut

    def first(number: int) -> object:
        hinge = replace(cut.hinge, left_m=0.05 + number * 1e-5)
        anew = assess(replace(result.case, cut=replace(cut, hinge=hinge)))
        nominal_fall(anew)
        return fan_for(plan, anew, QUICK)

    return {
        "fall, first fan after a drag, assess included": first,
        "fall, the whole fan of 2,048": lambda _: fan_for(plan, result),
        "fall, the plan's own": lambda _: nominal_fall(result),
    }


def judging_works() -> dict[str, Work]:
    """Chances as they are asked when a drag ends, and the search for ways out, of one trouble and of all."""
    from plain_compass.core.advice.mend import mends_for, to_mend
    from plain_compass.core.judge.chances import chances_of
    from plain_compass.job.demo import demo_job
    from plain_compass.job.spreads import judged_tree, spreads_of

    plans, judged = {}, {}
    for tree_id in ("WH-07", "WH-15"):
        plans[tree_id], judged[tree_id] = demo_job().plan(tree_id), judged_tree(demo_job(), tree_id)

    def chances(number: int) -> object:
        case = judged["WH-07"][0].case
        hinge = replace(case.cut.hinge, left_m=0.05 + number * 1e-5)
        return chances_of(replace(case, cut=replace(case.cut, hinge=hinge)), spreads_of(plans["WH-07"]))

    def mends(tree_id: str, most: int) -> Work:
        result, known = judged[tree_id]
        ids = [finding.id for finding in to_mend(result)][:most]
        return lambda _: mends_for(result, spreads_of(plans[tree_id]), known, ids)

    return {
        "chances of every limit, as a drag ends": chances,
        "ways out of one trouble": mends("WH-07", 1),
        "ways out of all of them": mends("WH-15", 99),
    }


def timed(works: dict[str, Work]) -> dict[str, tuple[Times, float]]:
    """(times, ratio to a dragged hinge's ``assess`` timed before and after it) of each, medians over the rounds."""
    base, found = assessments()[BASE], {}
    for name, work in works.items():
        rounds, ratios = [], []
        for number in range(ROUNDS):
            before = burst(base, 40 * number, 15).cpu_ms
            times = burst(work, 25 * number, calls_of(name))
            after = burst(base, 40 * number + 20, 15).cpu_ms
            rounds.append(times)
            ratios.append(2 * times.cpu_ms / (before + after))
        found[name] = Times(*map(statistics.median, zip(*rounds, strict=True))), statistics.median(ratios)
        print(f"{name:48s} {found[name][0].cpu_ms:9.2f} ms CPU {found[name][1]:8.2f}", flush=True)
    return found


def bench_drag(folder: Path) -> dict[str, tuple[Times, float]]:
    """From a mouse move to the painted frame, in the whole window at 1280x800, without a screen."""
    from PySide6.QtCore import QPoint, Qt
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QWidget

    from plain_compass.app.frame.recovery import Recovery
    from plain_compass.app.frame.settings import Settings
    from plain_compass.app.main import application, make_window
    from plain_compass.job.demo import demo_job
    from plain_compass.job.files import Opened

    app = application()
    window = make_window(Opened(demo_job()), None, Settings(folder / "s.ini"), Recovery(folder / "r"))
    window.resize(1280, 800)
    window.show()
    app.processEvents()
    found: dict[str, tuple[Times, float]] = {}
    for step, tree_id, view, name, path in DRAGS:
        window.show_step(step)
        window.store.look_at(tree_id)
        app.processEvents()
        drawing = getattr(window.pages[step], view)
        start = drawing.grip(path).at.toPoint()
        QTest.mousePress(drawing, Qt.MouseButton.LeftButton, pos=start)

        def move(number: int, start: QPoint = start, drawing: QWidget = drawing) -> None:
            # Back and forth over thirty pixels, a pixel a move, as a hand does.
            QTest.mouseMove(drawing, start + QPoint(number % 2, abs(number % 60 - 30)))
            app.processEvents()

        found |= timed({f"drag to redrawn frame, {name}": move})
        QTest.mouseRelease(drawing, Qt.MouseButton.LeftButton, pos=start)
    window.jobs.ask_unsaved = lambda: "keep"  # type: ignore[method-assign]
    window.close()
    return found


def bench_start(folder: Path) -> tuple[float, float]:
    """(ms, MiB): a fresh process from its first import to the painted window, warm disk; and what it then holds."""
    runs = []
    for _ in range(7):
        began = time.perf_counter()
        told = subprocess.run([sys.executable, "-c", STARTED, str(folder)], capture_output=True, text=True, check=True)
        runs.append((time.perf_counter() - began, *map(float, told.stdout.split())))
    return 1e3 * statistics.median(run[0] for run in runs), statistics.median(run[2] for run in runs)


def page(rows: list[tuple[str, ...]]) -> str:
    """The page's first table as Markdown."""
    lines = [
        "# Performance",
        "",
        "Written by `make bench` on one machine, without a screen: medians of several rounds, processor time and the",
        "clock. Times depend on the machine and on what else it is doing; compare the ratios, which are of processor",
        "time, to an `assess` while the hinge is dragged that was timed just before and just after.",
        "",
        "| what | processor | clock | ratio | aim |",
        "|---|---|---|---|---|",
        *(f"| {' | '.join(row)} |" for row in rows),
        "",
        "Start-up counts the whole process, from launching Python to the painted window on the demo job, warm disk.",
        "Memory is what that process then holds.",
        "",
    ]
    return "\n".join(lines)


def side_page(other: Path) -> str:
    """This checkout beside another one, as Markdown."""
    rows = [
        f"| {name} | {one.cpu_ms:.2f} ms | {two.cpu_ms:.2f} ms | {ratio:.2f} |"
        for name, one, two, ratio in side_by_side(ROOT, other)
    ]
    return "\n".join(
        [
            "",
            "## Beside the version before",
            "",
            "Both versions in one run, a process each, asked in turn for a burst of the same work: medians of",
            "processor time, and of the ratio of each round (`make bench AGAINST=folder`).",
            "",
            "| what | this | before | this : before |",
            "|---|---|---|---|",
            *rows,
            "",
        ]
    )


def falls_page(falls: dict[str, float]) -> str:
    """What the fall is worth against a general integrator, as Markdown."""
    return "\n".join(
        [
            "",
            "## Ten thousand falls",
            "",
            "Ten thousand likely falls of each of the demo's six trees, one thread, against a loop of",
            "`scipy.integrate.solve_ivp` (RK45, rtol 1e-6, events, scalar right-hand side; a sample of the same rows).",
            "Errors are against the same at rtol 1e-9.",
            "",
            "| what | measured | aim |",
            "|---|---|---|",
            f"| one fall of ten thousand | {1e3 * falls['one_ms']:.2f} µs | – |",
            f"| one fall in the loop | {falls['loop_ms']:.2f} ms | – |",
            f"| how many times quicker | {falls['ratio']:.0f} | 1,000; 5,000 hoped for |",
            f"| bearing error, most of {falls['checked']:.0f} | {falls['off_most_deg']:.4f}° | 0.1° |",
            f"| bearing error, 99 in a hundred within | {falls['off_p99_deg']:.5f}° | 0.01° |",
            f"| time error, 99 in a hundred within | {falls['late_p99_ms']:.2f} ms | 5 ms |",
            f"| rows stepped through time, of ten thousand | {falls['stepped']:.0f} | told, not hidden |",
            "",
        ]
    )


AIMS = {
    "lay rose, 360 bearings, lobed": "130 ms",
    "lay rose": "100 ms",
    "survey": "25 ms",
    "suggest": "120 ms",
    "stages": "10 ms",
    "assess": "3 ms",
    "drag": "16 ms",
    "open 600": "2,000 ms",
    "log of 100,000, listed": "500 ms",
    "log of 100,000, learned": "500 ms",
    "log of 100,000, filtered": "500 ms",
    "fall, first": "50 ms",
    "chances": "50 ms",
    "ways out of one": "500 ms",
    "ways out of all": "1,500 ms",
}
"""What is wanted of quiet minutes."""


def _aim(name: str) -> str:
    return next((aim for start, aim in AIMS.items() if name.startswith(start)), "–")


def kept_part(heading: str) -> str:
    """A part of the page as it is, for what is not timed anew."""
    text = PAGE.read_text(encoding="utf-8") if PAGE.exists() else ""
    start = text.find(f"\n## {heading}")
    if start < 0:
        return ""
    end = text.find("\n## ", start + 1)
    return text[start : end if end > 0 else len(text)].rstrip("\n") + "\n"


def main() -> int:
    """Run everything, print it and write the page."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    parser = argparse.ArgumentParser()
    parser.add_argument("--against", type=Path, help="another checkout to be timed beside this one")
    against = parser.parse_args().against
    with tempfile.TemporaryDirectory(prefix="plain-compass-bench-") as scratch:
        times = timed(everything() | judging_works() | fan_works() | log_works()) | bench_drag(Path(scratch))
        start_ms, memory = bench_start(Path(scratch))
    falls = bench_falls()
    rows = [
        (name, f"{each.cpu_ms:.2f} ms", f"{each.clock_ms:.2f} ms", f"{ratio:.1f}", _aim(name))
        for name, (each, ratio) in times.items()
    ]
    rows.append(("start to usable window", "–", f"{start_ms:.0f} ms", "–", "1,000 ms"))
    rows.append(("resident memory", f"{memory:.0f} MiB", "–", "–", "250 MB"))
    beside = side_page(against) if against else kept_part("Beside the version before")
    missed = (
        kept_part("A long log")
        + kept_part("Many trees")
        + kept_part("What was missed, and why")
        + kept_part("A small step, and what moves far")
        + kept_part("What is said of trees")
    )
    told = page(rows) + beside + growth_page() + falls_page(falls) + edits_page() + missed
    PAGE.write_text(told, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
