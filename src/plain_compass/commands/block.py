"""``plain-compass block``: many trees in an order with its reasons, days, kit, and what is left."""

from __future__ import annotations

import argparse
import sys
from dataclasses import replace
from pathlib import Path

from ..job.block import Block, Ordered, planned_block, taken_over
from ..job.block_edits import with_forecast, worked
from ..job.block_kit import kit_of, piece_words
from ..job.block_report import WRITERS, block_to_plain, takes_words
from ..job.block_turns import turns_of
from ..job.block_wind import day_words, wind_words
from ..job.disk import JobFileError, read_text, write_atomically
from ..job.document import Job
from ..job.forecast_csv import import_forecast
from ..job.language import tr
from ..job.stamp import output_text
from .opening import opened_job


def add_to(parser: argparse.ArgumentParser) -> None:
    """What to do, with which job."""
    parser.add_argument(
        "what",
        choices=("plan", "kit", "left", "wind", "sheet", "cards"),
        help=tr("order, kit, what is left, wind, the day sheet, or cards"),
    )
    parser.add_argument("file", type=Path, help=tr("a job file, the word demo, or - for standard input"))
    parser.add_argument("--seed", type=int, default=1, help=tr("the same seed gives the same order"))
    parser.add_argument("--hours", type=float, help=tr("hours of work a day"))
    parser.add_argument("--begins", default="", help=tr("first day, as 2026-10-01"))
    parser.add_argument("--forecast", type=Path, help=tr("CSV of hour, speed, and where known gust and direction"))
    parser.add_argument("--take-lays", action="store_true", help=tr("cards: on the lays the order gives"))
    parser.add_argument("-o", "--output", type=Path, help=tr("plan: a .csv, .geojson or .ics; sheet: the PDF to write"))
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))


def run(arguments: argparse.Namespace) -> int:
    """Order the block and say what was asked."""
    job = opened_job(arguments.file)
    if arguments.hours is not None:
        job = worked(job, f"{arguments.hours:g}")
    if arguments.begins:
        job = replace(job, block=replace(job.block, begins=arguments.begins))
    if arguments.forecast is not None:
        hours, told = import_forecast(read_text(arguments.forecast), arguments.forecast.name)
        job = with_forecast(job, hours)
        for each in told:
            print(each, file=sys.stderr)
    block, found = planned_block(job, arguments.seed)
    asked = {"plan": _plan, "kit": _kit, "left": _left, "wind": _wind, "sheet": _sheet, "cards": _cards}
    return asked[arguments.what](job, block, found, arguments)


def _plan(job: Job, block: Block, found: Ordered, arguments: argparse.Namespace) -> int:
    if arguments.output is not None:
        return _write(job, block, found, arguments.output)
    plain = block_to_plain(job, block, found)
    if arguments.json:
        print(output_text(plain, job.practice))
        return 0
    for row, slot in zip(plain["order"], found.slots, strict=True):
        turned = (
            ""
            if row["lay_deg"] == row["planned_lay_deg"]
            else tr(" (planned {planned_lay_deg:.0f}°)", planned_lay_deg=row["planned_lay_deg"])
        )
        takes = takes_words(block, found, slot.tree, job.speech)
        lay = tr("lay {lay_deg:.0f}°{turned}", lay_deg=row["lay_deg"], turned=turned)
        print(f"{row['number']:>3}  {row['day']}  {row['tree']:<10}{lay}  {takes}  {row['minutes']:.0f} min")
        for why in row["why"]:
            print(f"       {why}")
    _tell_left(block, found, job)
    return 0


def _write(job: Job, block: Block, found: Ordered, path: Path) -> int:
    kind = WRITERS.get(path.suffix.lower())
    if kind is None:
        raise JobFileError(
            tr("{name}: accepted are names that end in {names}.", name=path.name, names=", ".join(WRITERS))
        )
    write_atomically(path, kind(job, block, found))
    print(tr("Order of {count} trees written to {path}.", count=len(found.slots), path=path))
    return 0


def _kit(job: Job, block: Block, found: Ordered, _: argparse.Namespace) -> int:
    for day in sorted({slot.day for slot in found.slots}):
        ids = [block.trees[slot.tree].id for slot in found.slots if slot.day == day]
        print(tr("Day {day}: {names}", day=day + 1, names=", ".join(ids)))
        for piece in kit_of(job, block, found, day):
            print(f"  {piece_words(piece, ids, job.speech)}")
    return 0


def _wind(job: Job, block: Block, found: Ordered, _: argparse.Namespace) -> int:
    ids = [block.trees[slot.tree].id for slot in found.slots]
    for day in sorted({slot.day for slot in found.slots}):
        for line in day_words(job, ids, day, job.speech):
            print(line)
    for slot in found.slots:
        print(f"  {wind_words(job, block.trees[slot.tree].id, slot.day, job.speech)}")
    return 0


def _left(job: Job, block: Block, found: Ordered, _: argparse.Namespace) -> int:
    print(
        tr(
            "{count} trees to fell, {hours:.1f} h.",
            count=len(found.slots),
            hours=sum(slot.ends_min - slot.begins_min for slot in found.slots) / 60,
        )
    )
    _tell_left(block, found, job)
    return 0


def _tell_left(block: Block, found: Ordered, job: Job) -> None:
    for at in found.late:
        print(f"{block.trees[at].id}: {job.speech.tell('block.no_day')}.")
    for tree_id, what in block.left_out:
        print(f"{tree_id}: {job.speech.tell(what)}.")


def _sheet(job: Job, block: Block, found: Ordered, arguments: argparse.Namespace) -> int:
    if arguments.output is None:
        raise JobFileError(tr("block sheet wants -o with the PDF to write."))
    from ..app.steps.block.sheet import write_day_sheet_without_screen

    write_day_sheet_without_screen(job, block, found, arguments.output)
    print(tr("Day sheet of {count} trees written to {output}.", count=len(found.slots), output=arguments.output))
    return 0


def _cards(job: Job, block: Block, found: Ordered, arguments: argparse.Namespace) -> int:
    if arguments.output is None:
        raise JobFileError(tr("block cards wants -o with the PDF to write."))
    from ..app.steps.card.card_set import write_cards_without_screen
    from ..app.steps.card.paper import LayoutWanted

    if arguments.take_lays:
        job = taken_over(job, block, found)
        # What the order gave is now what is planned: the same order, no lay of it turned.
        found = replace(found, plan=replace(found.plan, lays=(0,) * len(block.trees)))
    print(write_cards_without_screen(job, arguments.output, LayoutWanted(), turns_of(job, block, found)))
    return 0
