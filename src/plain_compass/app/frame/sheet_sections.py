"""What stands on the tree sheet, in which order, and when each row is shown."""

from __future__ import annotations

from ...core.tree.around import ABOVE, LEAVE, LIFE
from ...job.language import tr
from .store import Snapshot

WALK_ROUND = tr("Above and around")
SECTIONS: tuple[tuple[str, tuple[str, ...]], ...] = (
    (
        tr("Tree"),
        (
            "tree.species",
            "girth:tree.trunk.diameter_m",
            "tree.trunk.diameter_m",
            "tree.trunk.at_m",
            "tree.trunk.cross_diameter_m",
            "tree.trunk.diameter_bearing_deg",
            "tree.trunk.butt_diameter_m",
            "tree.trunk.butt_at_m",
            "tree.trunk.bark_m",
            "tree.height_m",
            "tree.condition",
            "state",
        ),
    ),
    (WALK_ROUND, tuple(f"tree.around.{name}" for name in (*ABOVE[:4], "tangled_deg", *ABOVE[4:], *LIFE, *LEAVE))),
    (
        tr("Crown, paced from the stem"),
        ("tree.crown.base_m", "tree.crown.leaf", "tree.crown.load", "tree.crown.added_kg", "*tree.crown.readings"),
    ),
    (
        tr("Lean"),
        (
            "tree.lean.angle_deg",
            "tree.lean.bearing_deg",
            "tree.lean.method",
            "tree.lean.sweep_m",
            "tree.lean.sweep_bearing_deg",
        ),
    ),
    (
        tr("Second stem, heavy limbs"),
        (
            "tree.fork.kind",
            "tree.fork.union",
            "tree.fork.height_m",
            "tree.fork.diameter_m",
            "tree.fork.top_m",
            "tree.fork.lean_deg",
            "tree.fork.bearing_deg",
            "*tree.limbs",
        ),
    ),
    (tr("Buttresses"), ("*tree.lobes",)),
    (
        tr("Rot at the cut"),
        (
            "tree.decay.kind",
            "tree.decay.offset_m",
            "tree.decay.bearing_deg",
            "tree.decay.radius_m",
            "*tree.decay.shell",
            "tree.decay.at_m",
            "tree.decay.top_m",
            "*tree.decay.soundings",
        ),
    ),
    (tr("Seen on the stem"), ("tree.crack", "*tree.defects")),
    (tr("As it was cut"), ("cut.face.overcut_m", "cut.face.apart_m", "cut.aloft")),
    (
        tr("Saw, wedges and jack"),
        (
            "kit.bar_m",
            "kit.bar_width_m",
            "kit.kerf_m",
            "kit.wedge_length_m",
            "kit.wedge_thickness_m",
            "kit.wedge_width_m",
            "kit.wedge_seat_m",
            "kit.wedge_count",
            "kit.stackable",
            "kit.maul_kg",
            "kit.swing",
            "kit.maul_J",
            "kit.jack_rise_m",
            "kit.jack_N",
            "kit.lever",
            "kit.pull_N",
            "cut.goes_on",
        ),
    ),
    (
        tr("Rope"),
        tuple(
            f"rope.{name}"
            for name in (
                "use",
                "attached_m",
                "system",
                "sheave",
                "haul_N",
                "redirect",
                "end",
                "limit_N",
                "gear_limit_N",
                "length_m",
            )
        ),
    ),
    (
        tr("You"),
        (
            "person.limits.company",
            "person.limits.trained",
            "person.limits.biggest_m",
            "person.pace_m",
            "person.pace_spread_ratio",
        ),
    ),
    (
        tr("Job"),
        (
            "practice",
            "site.looked",
            "site.kept_away_lengths",
            "site.gust_ratio",
            "site.origin_east_deg",
            "site.origin_north_deg",
            "units",
            "words",
        ),
    ),
)
"""Title and rows; ``girth:`` shows a diameter as a girth, ``*`` stands for a list with its items."""


def is_shown(path: str, snapshot: Snapshot) -> bool:
    """Rows only where they mean something: rot's by its kind, a fork's where there is one."""
    tree = snapshot.plan.tree
    if path in ("tree.decay.offset_m", "tree.decay.bearing_deg", "tree.decay.radius_m"):
        return tree.decay.kind == "cavity"
    if path in ("tree.decay.at_m", "tree.decay.top_m"):
        return tree.decay.kind in ("cavity", "shell")
    if path == "*tree.decay.shell":
        return tree.decay.kind == "shell"
    if path == "tree.trunk.diameter_bearing_deg":
        return tree.trunk.cross_diameter_m is not None
    if path == "tree.trunk.butt_at_m":
        return tree.trunk.butt_diameter_m is not None
    if path.startswith("tree.fork.") and path != "tree.fork.kind":
        return tree.fork.kind == "second"
    if path == "kit.jack_N":
        return snapshot.job.kit.jack_rise_m > 0
    if path == "kit.swing":
        return snapshot.job.kit.maul_kg is not None
    if path == "kit.maul_J":
        return snapshot.job.kit.maul_kg is None
    if path.startswith("rope.") and path != "rope.use":
        return snapshot.plan.rope.use == "set"
    if path == "tree.around.tangled_deg":
        return tree.around.tangled == "yes"
    return True


def expanded(paths: tuple[str, ...], snapshot: Snapshot) -> list[str]:
    """The rows there are now: a list becomes ``item:`` rows, one an item, and a ``more:`` row."""
    found: list[str] = []
    for path in paths:
        if not is_shown(path.removeprefix("girth:"), snapshot):
            continue
        if path.startswith("*"):
            base = path[1:]
            found += [f"item:{base}.{index}" for index in range(len(snapshot.value(base)))]
            found.append(f"more:{base}")
        else:
            found.append(path)
    return found
