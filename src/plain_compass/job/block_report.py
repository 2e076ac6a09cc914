"""A block in order as rows of words and as plain data: for the command line, sheets and the window alike."""

from __future__ import annotations

import json
import math
from datetime import timedelta
from typing import Any

import numpy as np

from ..core.advice.sectors import Takes
from ..core.base.quantity import Kind
from ..core.block.hours import clock_words
from ..core.block.trees import BlockTree
from ..core.site.site import Place
from ..core.site.ways_out import kept_away_on_m
from .block import Block, Ordered, place_reasons
from .block_days import day_of
from .csv_rows import harmless, table_text
from .document import Job, TreePlan
from .language import tr, tr_count
from .stamp import stamp
from .words import Speech

ROUND_DEG = 10.0
"""From corner to corner of a zone."""


def takes_words(block: Block, found: Ordered, tree: int, speech: Speech) -> str:
    """What a tree takes on the lay it is given."""
    lay = block.trees[tree].lays[found.plan.lays[tree]]
    if lay.takes == Takes.WEDGES:
        return tr_count("{count} wedge", "{count} wedges", lay.wedges)
    if lay.takes == Takes.ROPE:
        return tr("rope, {pull}", pull=speech.show(lay.pull_N, Kind.FORCE))
    if lay.takes == Takes.NOTHING:
        return tr("goes by itself")
    return tr("not as it is: {ruling}", ruling=speech.ruling(lay.why)) if lay.why else tr("not with this kit")


def block_to_plain(job: Job, block: Block, found: Ordered) -> dict[str, Any]:
    """The order as plain data."""
    begins, why = day_of(job.block.begins, "block.begins"), place_reasons(block, found, job.speech)
    rows = []
    for number, slot in enumerate(found.slots, 1):
        tree, lay = block.trees[slot.tree], block.trees[slot.tree].lays[found.plan.lays[slot.tree]]
        rows.append(
            {
                "number": number,
                "tree": tree.id,
                "lay_deg": lay.lay_deg,
                "planned_lay_deg": tree.lays[0].lay_deg,
                "takes": lay.takes,
                "wedges": lay.wedges,
                "pull_N": lay.pull_N,
                "margin": lay.margin,
                "day": (begins + timedelta(days=slot.day)).isoformat(),
                "begins_min": slot.begins_min,
                "begins": clock_words(job.block.hours.clock_min(slot.begins_min)),
                "minutes": slot.ends_min - slot.begins_min,
                "why": list(why[slot.tree]),
            }
        )
    return {
        "order": rows,
        "cost": found.plan.cost,
        "left": [block.trees[at].id for at in found.late],
        "not_judged": {tree_id: job.speech.tell(what) for tree_id, what in block.left_out},
        "against": sum(each.is_broken for each in found.against),
    }


def order_csv(job: Job, block: Block, found: Ordered) -> str:
    """The order as CSV."""
    rows = [["number", "tree", "lay_deg", "takes", "day", "begins_min", "minutes", "why"]]
    for row in block_to_plain(job, block, found)["order"]:
        head = [str(row["number"]), harmless(row["tree"]), str(row["lay_deg"]), row["takes"], row["day"]]
        rows.append([*head, f"{row['begins_min']:.0f}", f"{row['minutes']:.0f}", harmless("; ".join(row["why"]))])
    return table_text(rows)


def order_geojson(job: Job, block: Block, found: Ordered) -> str:
    """Lays and lying stems, and where nobody else may be as each is felled, as GeoJSON in metres of the site."""
    features: list[dict[str, Any]] = []
    for number, slot in enumerate(found.slots, 1):
        tree = block.trees[slot.tree]
        lay = tree.lays[found.plan.lays[slot.tree]]
        turn = math.radians(lay.lay_deg)
        east, north = tree.length_m * math.sin(turn), tree.length_m * math.cos(turn)
        line = [[tree.east_m, tree.north_m], [tree.east_m + east, tree.north_m + north]]
        about = {"tree": tree.id, "number": number, "lay_deg": lay.lay_deg, "takes": lay.takes}
        features.append(_feature("LineString", line, {"kind": "lay", **about}))
        features.append(_feature("Polygon", [_zone(job, tree)], {"kind": tr("kept away"), "tree": tree.id}))
    for plan in job.trees:
        if plan.state == "down" and plan.id not in {tree.id for tree in block.trees}:
            features.append(_feature("LineString", _lying(plan), {"kind": "lies", "tree": plan.id}))
    about = {
        "type": "FeatureCollection",
        "name": tr("{name}: order", name=job.name),
        "plain_compass": stamp(job.practice),
    }
    whole = {**about, "features": features}
    return json.dumps(whole, indent=2, ensure_ascii=False) + "\n"


def _feature(kind: str, coordinates: Any, about: dict[str, Any]) -> dict[str, Any]:
    return {"type": "Feature", "geometry": {"type": kind, "coordinates": coordinates}, "properties": about}


def _zone(job: Job, tree: BlockTree) -> list[list[float]]:
    """Within it nobody else may be, as a closed ring, counterclockwise as RFC 7946 wants it."""
    bearings = np.arange(360.0, -1.0, -ROUND_DEG)
    far_m = kept_away_on_m(job.site, Place(tree.east_m, tree.north_m), tree.height_m, bearings)
    turn = np.radians(bearings)
    east, north = tree.east_m + far_m * np.sin(turn), tree.north_m + far_m * np.cos(turn)
    ring: list[list[float]] = np.stack([east, north], axis=1).round(2).tolist()
    return [*ring[:-1], ring[0]]


def _lying(plan: TreePlan) -> list[list[float]]:
    """A stem that lies, along where its top was seen to lie, or its planned lay where nobody looked."""
    seen = plan.as_cut.top_deg
    turn = math.radians(plan.cut.lay_deg if seen is None else seen)
    long = plan.tree.height_m - plan.cut.height_m
    foot = [plan.at.east_m, plan.at.north_m]
    return [foot, [foot[0] + long * math.sin(turn), foot[1] + long * math.cos(turn)]]


def order_calendar(job: Job, block: Block, found: Ordered) -> str:
    """The days as iCalendar: an all-day entry each, with its trees (RFC 5545)."""
    begins = day_of(job.block.begins, "block.begins")
    days: dict[int, list[str]] = {}
    for slot in found.slots:
        days.setdefault(slot.day, []).append(block.trees[slot.tree].id)
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Plain Compass//block//EN"]
    for day, trees in sorted(days.items()):
        first, after = (begins + timedelta(days=day + more) for more in (0, 1))
        lines += [
            "BEGIN:VEVENT",
            f"UID:{first:%Y%m%d}-{'-'.join(trees)}@plain-compass",
            f"DTSTAMP:{begins:%Y%m%d}T000000Z",
            f"DTSTART;VALUE=DATE:{first:%Y%m%d}",
            f"DTEND;VALUE=DATE:{after:%Y%m%d}",
            _folded(tr("SUMMARY:{escaped}: {count} trees", escaped=_escaped(job.name), count=len(trees))),
            _folded(f"DESCRIPTION:{_escaped(', '.join(trees))}"),
            "END:VEVENT",
        ]
    return "\r\n".join([*lines, "END:VCALENDAR", ""])


def _escaped(text: str) -> str:
    return text.replace("\\", "\\\\").replace(";", "\\;").replace(",", "\\,").replace("\n", "\\n")


def _folded(line: str) -> str:
    """Lines longer than 75 octets go on with a space in the next."""
    pieces, rest = [line[:70]], line[70:]
    while rest:
        pieces.append(f" {rest[:69]}")
        rest = rest[69:]
    return "\r\n".join(pieces)


WRITERS = {".csv": order_csv, ".geojson": order_geojson, ".ics": order_calendar}
"""How a file's name ends -> what is written to it."""
