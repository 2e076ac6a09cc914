"""What a field is called by itself: its label, and which of several it is; for screen readers, undo and refusals."""

from __future__ import annotations

import re

from ...job.language import tr
from .store import Snapshot

EDGE = re.compile(r"(tree\.crown\.readings\.\d+)\.radius_m")
PLACE = re.compile(r"\.(\d+)(?:\.|$)")


def own_name(label: str, path: str, snapshot: Snapshot) -> str:
    """The label of a field, with the bearing of a crown's edge, or its number where it is one of several."""
    edge = EDGE.fullmatch(path)
    if edge is not None:
        return tr(
            "{label} at {value}",
            label=label,
            value=snapshot.speech.show(snapshot.value(f"{edge[1]}.bearing_deg"), "bearing"),
        )
    numbers = PLACE.findall(path)
    return f"{label} {int(numbers[-1]) + 1}" if numbers else label
