"""The kit of a block: sets as people write them, what a day needs of them, and what a missing piece changes."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from ..core.base.errors import InputError, PlainCompassError
from ..core.base.paths import with_value
from ..core.base.quantity import Kind, check_name, declared
from ..core.block.kit import Needing, Piece, pieces_of
from ..core.block.kit_sets import KitSet, packed_of
from ..core.site.ways_out import people_inside
from .block import Block, Ordered
from .document import Job
from .language import in_english, tr, tr_count, tr_mark
from .typed import parse
from .words import Speech

COUNTED = {
    "wedge": "wedges",
    "maul": "mauls",
    "lever": "levers",
    "sheave": "sheaves",
    "sling": "slings",
    "sign": "signs",
}
"""Word of one -> field of how many there are."""
MEASURED = {"bar": ("bar_m", Kind.LENGTH), "rope": ("rope_m", Kind.SPAN), "pull": ("pull_N", Kind.FORCE)}
"""Word -> (field, kind) of what has a size."""
ACCEPTED = tr(
    "name (whose): bar 45 cm, 3 wedges 25 mm, maul, lever, rope 60 m, pull 12 kN, 2 sheaves, 4 slings, 2 signs"
)
"""How a set is written."""
WORDS = tuple(map(tr_mark, ("wedges", "wedge", "mauls", "maul", "levers", "lever", "sheaves", "sheave")))
WORDS += tuple(map(tr_mark, ("slings", "sling", "signs", "sign", "bar", "rope", "pull")))
"""What is in a set, many before one, so that the longer word is met first."""
MOST = 40
"""Sets of one job."""


def kit_set_of(text: str, units: str) -> KitSet:
    """A set of kit as a person types it. Raises InputError."""
    head, colon, items = text.strip().partition(":")
    match = re.fullmatch(r"([^()]*?)\s*(?:\(([^()]*)\))?", head.strip())
    if not colon or match is None or not match[1]:
        raise InputError(
            "kit", text, reason=tr("a name and a colon come first; accepted: {accepted}", accepted=ACCEPTED)
        )
    found = KitSet(whose=(match[2] or "").strip(), name=match[1].strip())
    for part in (found.name, found.whose):
        check_name("kit", part)
    for item in filter(None, (each.strip() for each in re.split(r"[;,]\s+|;", in_english(items, WORDS)))):
        found = _with_item(found, item, units)
    return found


def _with_item(found: KitSet, item: str, units: str) -> KitSet:
    match = re.fullmatch(r"(?:(\d+)\s+)?([a-z]+?)s?(?:\s+(.+))?", item.lower())
    word = match[2] if match else ""
    if match and word in COUNTED:
        count = int(match[1] or 1)
        found = _checked(found, COUNTED[word], count)
        if word == "wedge" and match[3]:
            found = _checked(found, "wedge_head_m", _size(match[3], Kind.FINE_LENGTH, units, item))
        elif match[3]:
            raise InputError("kit", item, reason=tr("accepted: {accepted}", accepted=ACCEPTED))
        return found
    if match and word in MEASURED and match[3] and not match[1]:
        name, kind = MEASURED[word]
        return _checked(found, name, _size(match[3], kind, units, item))
    raise InputError("kit", item, reason=tr("accepted: {accepted}", accepted=ACCEPTED))


def _size(text: str, kind: Kind, units: str, item: str) -> float:
    try:
        return parse(text, kind, units)
    except PlainCompassError:
        raise InputError("kit", item, reason=tr("accepted: {accepted}", accepted=ACCEPTED)) from None


def _checked(found: KitSet, name: str, value: float) -> KitSet:
    declared(KitSet, name).check(f"kit, {name.rpartition('_')[0] or name}", value)
    return with_value(found, name, value)


def kit_set_words(kit: KitSet, speech: Speech) -> str:
    """A set as it would be typed."""
    items = []
    for word, name in COUNTED.items():
        count = getattr(kit, name)
        if count:
            several = f"{count} {tr(name)}" if count > 1 else tr(word)
            head = f" {speech.show(kit.wedge_head_m, Kind.FINE_LENGTH)}" if word == "wedge" else ""
            items.append(several + head)
    for word, (name, kind) in MEASURED.items():
        if getattr(kit, name):
            items.append(f"{tr(word)} {speech.show(getattr(kit, name), kind)}")
    whose = f" ({kit.whose})" if kit.whose else ""
    return f"{kit.name}{whose}: {', '.join(items)}"


def with_kit_set(job: Job, place: int, text: str) -> Job:
    """A set said anew, or one more where the place is past the last; none where nothing is typed. Raises InputError."""
    kits = [*job.block.kits]
    new = [kit_set_of(text, job.units)] if text.strip() else []
    if new and place < len(kits):
        new = [replace(new[0], packed=kits[place].packed)]
    kits[place : place + 1] = new
    names = [(each.whose, each.name) for each in kits]
    if len(set(names)) < len(names):
        raise InputError("kit", text, reason=tr("that name is there already; accepted: a name of its own for each"))
    if len(kits) > MOST:
        raise InputError("kit", len(kits), reason=tr("accepted: up to {most} sets", most=MOST))
    return replace(job, block=replace(job.block, kits=tuple(kits)))


def packed(job: Job, place: int, *, comes: bool) -> Job:
    """A set that comes along, or stays at home."""
    kits = [*job.block.kits]
    kits[place] = replace(kits[place], packed="yes" if comes else "no")
    return replace(job, block=replace(job.block, kits=tuple(kits)))


def kit_of(job: Job, block: Block, found: Ordered, day: int | None = None) -> tuple[Piece, ...]:
    """What a day needs, or the whole block; places in ``Piece.trees`` are those of the trees felled then, in order."""
    wanted = [slot.tree for slot in found.slots if day is None or slot.day == day]
    if not wanted:
        return ()
    needing = []
    for at in wanted:
        plan = job.plan(block.trees[at].id)
        closes = bool(people_inside(job.site, plan.at, plan.tree.height_m))
        lay = block.trees[at].lays[found.plan.lays[at]]
        needing.append(Needing(block.trees[at], lay, plan.tree.trunk.diameter_m, closes))
    return pieces_of(needing, packed_of(job.block.kits, job.kit), job.kit.wedge_thickness_m)


WHAT: dict[str, Callable[[Piece, Speech], str]] = {
    "wedges": lambda each, speech: tr(
        "{count:.0f} wedges of {head_m}", count=each.count, head_m=speech.show(each.head_m, Kind.FINE_LENGTH)
    ),
    "maul": lambda *_: tr("a maul"),
    "bar": lambda each, speech: tr("a bar of {count} or more", count=speech.show(each.count, Kind.LENGTH)),
    "rope": lambda each, speech: tr("a rope of {count}", count=speech.show(each.count, Kind.SPAN)),
    "pull": lambda each, speech: tr("what pulls {count}", count=speech.show(each.count, Kind.FORCE)),
    "sheaves": lambda each, _: tr("{count:.0f} sheave", count=each.count),
    "slings": lambda each, _: tr("{count:.0f} slings", count=each.count),
    "signs": lambda each, _: tr("{count:.0f} signs to close the way", count=each.count),
    "machine": lambda *_: tr("a machine, or somebody trained for it"),
}
"""What a piece is called, with how much of it."""


def piece_words(piece: Piece, ids: list[str], speech: Speech) -> str:
    """One thing to take along, with the trees it is for, and whether it is packed."""
    count = len(piece.trees)
    without = tr_count("without it {count} tree put off", "without it {count} trees put off", count)
    unsaid = tr("to be asked for") if piece.key == "machine" else tr("not listed in any kit")
    told = {True: tr("packed"), False: tr("not packed: {without}", without=without), None: f"{unsaid}: {without}"}[
        piece.is_packed
    ]
    which = tr("all trees") if 1 < count == len(ids) else ", ".join(ids[at] for at in piece.trees)
    return f"{WHAT[piece.key](piece, speech)}: {which} ({told})"


def without_missing(job: Job, block: Block, found: Ordered, day: int) -> tuple[tuple[str, ...], tuple[Piece, ...]]:
    """(trees of a day that what is packed does not do, the pieces that lack): to be put off or the pieces fetched."""
    ids = [block.trees[slot.tree].id for slot in found.slots if slot.day == day]
    lacking = tuple(piece for piece in kit_of(job, block, found, day) if piece.is_packed is False)
    return tuple(ids[at] for at in sorted({at for piece in lacking for at in piece.trees})), lacking
