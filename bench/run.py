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

from falls import bench_falls, bench_fan

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
    ("ground", "WH-07", "plan", "Ground: lay", "cut.lay_deg"),
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
        warm = min(10, calls)
        for number in range(calls + warm):
            began = time.perf_counter()
            work(number)
            times.append(time.perf_counter() - began)
        medians.append(1e3 * statistics.median(times[warm:]))
    return min(medians)


def bench_assess() -> dict[str, float]:
    """``assess`` while one thing after another is dragged: each call is a question not asked before."""
    from plain_compass.core.assess import assess
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


def bench_stages() -> dict[str, float]:
    """The sweep through 200 depths, and the whole table searched, on the lobed and on the rotten demo tree."""
    from plain_compass.core.advice.suggest import suggest
    from plain_compass.core.assess import assess
    from plain_compass.core.base.paths import with_value
    from plain_compass.core.cuts.stages import sweep_of
    from plain_compass.core.tree.tree import Decay
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import assess_tree, case_of

    plain = assess_tree(demo_job(), "WH-12")
    rotten = Decay(kind="cavity", radius_m=0.08, offset_m=0.05)
    lobed = assess(with_value(case_of(demo_job(), "WH-21"), "tree.decay", rotten))
    return {
        "stages, sweep of 200 depths, round section": median_ms(lambda _: sweep_of(plain), calls=30),
        "stages, sweep of 200 depths, lobed and rotten": median_ms(lambda _: sweep_of(lobed), calls=30),
        "suggest, the whole table, lobed and rotten": median_ms(lambda _: suggest(lobed), rounds=1, calls=3),
    }


def bench_rose() -> dict[str, float]:
    """The lay rose of 360 bearings with 30 obstacles and 20 neighbours: whole, its targets alone, and one slice."""
    import numpy as np

    from plain_compass.core.advice.rose import spoke_at, targets_by_bearing, whole_rose
    from plain_compass.core.assess import assess
    from plain_compass.core.site.site import Obstacle, Place
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import case_of

    case = case_of(demo_job(), "WH-07")
    walls = [
        Obstacle("wall", "", "matters", "line", (Place(i - 15, 12 + i % 9), Place(i - 10, 16 + i % 7)))
        for i in range(30)
    ]
    trees = [
        Obstacle("tree", "", "none", "spot", (Place(9 * (i % 5) - 20, 8 * (i // 5) - 30),), 2.5, 15.0)
        for i in range(20)
    ]
    case = replace(case, site=replace(case.site, obstacles=(*walls, *trees)))
    bearings = np.arange(360.0)

    def whole(number: int) -> object:
        return whole_rose(replace(case, tree=replace(case.tree, height_m=17.0 + number * 0.01)), bearings)

    def targets(number: int) -> object:
        return targets_by_bearing(replace(case, tree=replace(case.tree, height_m=17.0 + number * 0.01)), bearings)

    def apart(number: int) -> object:
        turned = replace(case, tree=replace(case.tree, height_m=16.0 + number * 0.01))
        return [assess(replace(turned, cut=replace(turned.cut, lay_deg=float(b)))) for b in bearings]

    def one(number: int) -> object:
        return spoke_at(case, number * 0.7, ())

    return {
        "lay rose, 360 bearings, in slices of 8 ms": median_ms(whole, rounds=1, calls=3),
        "360 separate assessments": median_ms(apart, rounds=1, calls=3),
        "lay rose, targets of 360 bearings": median_ms(targets, calls=40),
        "lay rose, one spoke": median_ms(one),
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


def _aim(name: str) -> str:
    if "360" in name and "targets" not in name:
        return "never waited for" if "rose" in name else "–"
    if "suggest" in name:
        return "1,000 ms"
    if "sweep" in name:
        return "15 ms"
    if name.startswith("fall"):
        return "50 ms" if "first" in name else "–"
    return "3 ms" if "assess" in name else "16 ms"


def main() -> int:
    """Run everything, print it and write the page."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    with tempfile.TemporaryDirectory(prefix="plain-compass-bench-") as scratch:
        times = bench_assess() | bench_rose() | bench_stages() | bench_fan(median_ms) | bench_drag(Path(scratch))
        falls = bench_falls()
        start_ms, memory = bench_start(Path(scratch))
    base = times["assess, hinge dragged"]
    rows = [(name, f"{ms:.2f} ms", f"{ms / base:.1f}", _aim(name)) for name, ms in times.items()]
    rows.append(("start to usable window", f"{start_ms:.0f} ms", f"{start_ms / base:.0f}", "1,000 ms"))
    rows.append(("resident memory", f"{memory:.0f} MiB", "–", "250 MB"))
    for row in rows:
        print("  ".join(cell.ljust(width) for cell, width in zip(row, (34, 12, 6, 10), strict=True)))
    PAGE.write_text(page(rows) + falls_page(falls), encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
