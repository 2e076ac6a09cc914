"""Raw readings as CSV, one row a reading, for a spreadsheet or another program.

Columns: tree · what (``height``, ``lean``, ``crown edge``, ... or the dotted path of a dimension) · way · value ·
unit (m, deg or m/s) · spread (one standard deviation, same unit) · bearing [deg] (of a lean, crown edge or probe hole;
else empty) · used (yes, no) · left out (yes where it stands off the others) · time · note (as typed, or the line the
instrument sent).
"""

from __future__ import annotations

from .csv_rows import harmless, table_text
from .document import Job
from .fields import quantity_at
from .readings import EDGE, LEAN, SHELL, WIND, Taken, groups_of

HEADINGS = ("tree", "what", "way", "value", "unit", "spread", "bearing [deg]", "used", "left out", "time", "note")
UNITS = {LEAN: "deg", EDGE: "m", SHELL: "m", WIND: "m/s"}


def readings_csv(job: Job) -> str:
    """Every reading of every tree of a job."""
    rows = [list(HEADINGS)]
    for plan in job.trees:
        left_out = {position for group in groups_of(plan.readings) for position in group.outliers}
        for position, taken in enumerate(plan.readings):
            rows.append(_row(plan.id, taken, left_out=position in left_out))
    return table_text(rows)


def _row(tree_id: str, taken: Taken, *, left_out: bool) -> list[str]:
    value, spread, bearing = taken.values[0], taken.spreads[0], ""
    if taken.what == LEAN:
        bearing = f"{taken.values[1]:.6g}"
    elif taken.what in (EDGE, SHELL):
        value, spread, bearing = taken.values[1], taken.spreads[1], f"{taken.values[0]:.6g}"
    unit = UNITS.get(taken.what) or quantity_at(taken.what).unit
    flags = ["yes" if flag else "no" for flag in (taken.used, left_out)]
    name = taken.what.split(".")[-1].removesuffix("_m").replace("_", " ") if "." in taken.what else taken.what
    note = harmless(taken.note)
    return [harmless(tree_id), name, taken.by, f"{value:.10g}", unit, f"{spread:.6g}", bearing, *flags, taken.at, note]
