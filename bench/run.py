"""Time what must be quick and write docs/performance.md: ``make bench``.

Times are medians of one run on one machine; the ratios beside them are what can be compared between machines.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
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
    ("look", "WH-07", "along", "Look: height", "tree.height_m"),
    ("look", "WH-12", "along", "Look: lean, eight crown edges", "tree.lean.angle_deg"),
    ("look", "WH-12", "crown", "Look: one of eight crown edges", "tree.crown.readings.3.radius_m"),
    ("look", "WH-15", "butt", "Look: probe hole", "tree.decay.shell.0.sound_m"),
    ("look", "WH-21", "butt", "Look: buttress", "tree.lobes.1.projection_m"),
)
"""Step, tree, view, name and grip of every drag that is timed."""


def median_ms(work: Callable[[int], object], rounds: int = 3, calls: int = 120) -> float:
    """Median time of ``work(number)`` in milliseconds: of several rounds the one least disturbed by other programs."""
    medians = []
    for _ in range(rounds):
        times = []
        for number in range(calls + 10):
            began = time.perf_counter()
            work(number)
            times.append(time.perf_counter() - began)
        medians.append(1e3 * statistics.median(times[10:]))
    return min(medians)


def bench_assess() -> dict[str, float]:
    """``assess`` while one thing after another is dragged: each call is a question not asked before."""
    from plain_compass.core.plan import assess
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import case_of

    case = case_of(demo_job(), "WH-07")
    cut = case.cut

    def hinge(number: int) -> object:
        return assess(replace(case, cut=replace(cut, hinge=replace(cut.hinge, left_m=0.05 + number * 1e-5))))

    def lay(number: int) -> object:
        return assess(replace(case, cut=replace(cut, lay_deg=200.0 + number * 0.1)))

    def height(number: int) -> object:
        return assess(replace(case, tree=replace(case.tree, height_m=17.0 + number * 0.01)))

    return {
        "assess, hinge dragged": median_ms(hinge),
        "assess, lay turned": median_ms(lay),
        "assess, tree measured anew": median_ms(height),
    }


def bench_drag(folder: Path) -> dict[str, float]:
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
    found = {}
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

        found[f"drag to redrawn frame, {name}"] = median_ms(move)
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


def page(rows: list[tuple[str, str, str, str]]) -> str:
    """The page as Markdown."""
    lines = [
        "# Performance",
        "",
        "Written by `make bench` on one machine, without a screen: medians, of three rounds the least disturbed one.",
        "Times depend on the machine and on what else it is doing;",
        "compare the ratios, which are to the median `assess` while the hinge is dragged in the same run.",
        "",
        "| what | median | ratio | aim |",
        "|---|---|---|---|",
        *(f"| {' | '.join(row)} |" for row in rows),
        "",
        "Start-up counts the whole process, from launching Python to the painted window on the demo job, warm disk.",
        "Memory is what that process then holds.",
        "",
    ]
    return "\n".join(lines)


def main() -> int:
    """Run everything, print it and write the page."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    with tempfile.TemporaryDirectory(prefix="plain-compass-bench-") as scratch:
        times = bench_assess() | bench_drag(Path(scratch))
        start_ms, memory = bench_start(Path(scratch))
    base = times["assess, hinge dragged"]
    rows = [
        (name, f"{ms:.2f} ms", f"{ms / base:.1f}", "3 ms" if "assess" in name else "16 ms")
        for name, ms in times.items()
    ]
    rows.append(("start to usable window", f"{start_ms:.0f} ms", f"{start_ms / base:.0f}", "1,000 ms"))
    rows.append(("resident memory", f"{memory:.0f} MiB", "–", "250 MB"))
    for row in rows:
        print("  ".join(cell.ljust(width) for cell, width in zip(row, (34, 12, 6, 10), strict=True)))
    PAGE.write_text(page(rows), encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
