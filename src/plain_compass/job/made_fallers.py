"""The two made-up fallers of the demo, and what is true of each: what is learned of them can be held against it."""

from __future__ import annotations

from ..core.stump.made import Habits

FALLERS: dict[str, Habits] = {
    # Aims left, leaves the near end thick, takes trees for taller than they are.
    "Wren": Habits(aim_deg=(1.8, 1.2), left_m=(0.009, 0.10), right_m=(0.0, 0.08), height_share=(0.08, 0.05)),
    # Hits harder, and cuts through.
    "Tarn": Habits(aim_deg=(0.0, 1.5), left_m=(-0.006, 0.10), right_m=(-0.010, 0.12), blows=1.4),
}
"""Name -> habits."""
