"""Ten thousand falls against a general-purpose integrator on the same cases: how much quicker, and how near."""

from __future__ import annotations

import statistics
import sys
import time
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).resolve().parent.parent / "tests"))

FALLS, LOOPED, CHECKED = 10_000, 120, 600


def likely_falls() -> list[tuple[object, object]]:
    """(rods, ends) of the demo's six trees, ten thousand likely falls of each."""
    from plain_compass.core.fall.ends import ends_for
    from plain_compass.core.fall.spread import samples_of, slopes_in_steps
    from plain_compass.job.demo import demo_job
    from plain_compass.job.document import assess_tree
    from plain_compass.job.spreads import cutting_spreads, fall_spreads

    job, found = demo_job(), []
    for plan in job.trees:
        result = assess_tree(job, plan.id)
        slopes = {k: v for each in slopes_in_steps(result, fall_spreads(plan), whole=True) for k, v in each.items()}
        samples = samples_of(result, slopes, cutting_spreads(), FALLS, 1)
        found.append((samples.rods, ends_for(result.case)))
    return found


def bench_falls(checked: int = CHECKED, looped: int = LOOPED) -> dict[str, float]:
    """Times in ms, the ratio, errors of bearing in degrees and of time in ms, and how many are close calls."""
    from fall_truth import by_solver
    from plain_compass.core.fall.falls import fall_all
    from plain_compass.core.fall.rods import turned

    sets = likely_falls()
    quick, found = [], []
    for _ in range(5):
        began = time.perf_counter()
        found = [fall_all(rods, ends) for rods, ends in sets]
        quick.append(time.perf_counter() - began)
    slow, off, late = [], [], []
    for (rods, ends), falls in zip(sets, found, strict=True):
        plane = turned(rods, falls.turned_rad)
        rows = np.nonzero(falls.fell)[0]
        began = time.perf_counter()
        some = rows[: looped // len(sets)].tolist()
        for row in some:
            by_solver(plane, row, ends, float(falls.start_rad[row]), 1e-6)
        slow.append((time.perf_counter() - began) / len(some))
        bearing = np.degrees(np.arctan2(np.sin(falls.side_rad), np.sin(falls.tilt_rad) * np.cos(falls.side_rad)))
        for row in rows[: checked // len(sets)].tolist():
            took, true, _ = by_solver(plane, row, ends, float(falls.start_rad[row]), 1e-9)
            off.append(abs((bearing[row] - true + 180) % 360 - 180))
            late.append(1e3 * abs(falls.time_s[row] - took))
    count = sum(len(falls) for falls in found)
    per_fall, per_loop = statistics.median(quick) / count, statistics.mean(slow)
    return {
        "one_ms": 1e3 * per_fall,
        "loop_ms": 1e3 * per_loop,
        "ratio": per_loop / per_fall,
        "checked": float(len(off)),
        "off_most_deg": max(off),
        "off_p99_deg": float(np.quantile(off, 0.99)),
        "near_share": float(np.mean(np.array(off) <= 0.01)),
        "late_p99_ms": float(np.quantile(late, 0.99)),
        "stepped": float(sum(int(falls.stepped.sum()) for falls in found)) / len(sets),
    }


if __name__ == "__main__":
    for name, value in bench_falls(int(sys.argv[1]) if len(sys.argv) > 1 else CHECKED).items():
        print(f"{name}: {value:.5g}")
