"""``plain-compass log``: the stump log on the command line."""

from __future__ import annotations

import argparse
import json
from collections.abc import Callable
from dataclasses import asdict
from datetime import datetime
from hashlib import sha256
from pathlib import Path

from ..core.assess import assess
from ..core.base.errors import InputError
from ..core.fall.nominal import nominal_fall
from ..core.stump.told import told_of
from ..job.disk import JobFileError, write_atomically
from ..job.document import Job, LogEntry, case_of
from ..job.fall import fan_for
from ..job.language import tr
from ..job.log_entries import entry_of, entry_of_tree, entry_text, entry_to_words
from ..job.stamp import output_text
from ..job.tables import species_table
from ..job.words import Speech
from ..log.exchange import csv_text, entries_in, lines_text
from ..log.places import DEMO, demo_log, own_log_file
from ..log.stats import near_misses, summary_of
from ..log.store import Filter, StumpLog
from .opening import opened_job

FILTERS = ("faller", "saw", "place", "cut", "species", "since", "until")


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add what can be done, and with what."""
    parser.add_argument("what", choices=tuple(DO), help=tr("what to do"))
    parser.add_argument(
        "names", nargs="*", help=tr("job files to add from; files to export to or import; an entry's id")
    )
    parser.add_argument("--log", default="", help=tr("the log's file, or the word demo; your own where left out"))
    parser.add_argument("--tree", help=tr("add: only this tree of the job"))
    for name in FILTERS:
        is_day = name in ("since", "until")
        told = tr("a day, as 2026-05-01") if is_day else tr("only entries of this {name}", name=name)
        parser.add_argument(f"--{name}", default="", help=told)
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))


def opened_log(where: str) -> StumpLog:
    """The log that is meant; what was found when it was opened is told first."""
    log = demo_log() if where == DEMO else StumpLog(Path(where) if where else own_log_file())
    for trouble in log.troubles:
        print(trouble)
    return log


def wanted_of(arguments: argparse.Namespace) -> Filter:
    """Which entries."""
    return Filter(**{name: getattr(arguments, name) for name in FILTERS if getattr(arguments, name, "")})


def run(arguments: argparse.Namespace) -> int:
    """Do one thing with the log."""
    return DO[arguments.what](opened_log(arguments.log), arguments)


def _add(log: StumpLog, arguments: argparse.Namespace) -> int:
    """Every tree of the jobs whose stump was read, and what their own logs hold; each once."""
    if not arguments.names:
        raise JobFileError(tr("log add wants a job file to take stumps from."))
    count = 0
    for name in arguments.names:
        job = opened_job(Path(name))
        trees = [job.plan(arguments.tree).id] if arguments.tree else [plan.id for plan in job.trees]
        count += log.add([entry for entry in job.log if entry.id and entry.tree_id in trees])
        count += log.add([_entry(job, tree_id) for tree_id in trees if _is_new(job, tree_id)])
    print(tr("{count} taken in; the log has {held}.", count=count, held=log.count()))
    return 0


def _is_new(job: Job, tree_id: str) -> bool:
    return job.plan(tree_id).as_cut.is_read and entry_of_tree(job, tree_id) is None


def _entry(job: Job, tree_id: str) -> LogEntry:
    """A tree's stump with what its plan tells, frozen.

    The same stump of the same job is the same entry, however often its file is added.
    """
    plan, result = job.plan(tree_id), assess(case_of(job, tree_id))
    told = told_of(result, nominal_fall(result), fan_for(plan, result, hand=job.hand))
    id = sha256(f"{job.name}\n{tree_id}\n{plan.as_cut}".encode()).hexdigest()[:32]
    return entry_of(job, tree_id, told, datetime.now().isoformat(sep=" ", timespec="seconds"), id)


def _list(log: StumpLog, arguments: argparse.Namespace) -> int:
    rows, kinds = log.listed(wanted_of(arguments)), log.kinds()
    if arguments.json:
        names = ("number", "id", "day", "place", "tree", "faller", "saw", "cut", "kind")
        plain = [dict(zip(names, row, strict=True)) | {"species": kinds[row[8]][0]} for row in rows]
        print(output_text({"entries": plain}))
        return 0
    table = species_table()
    for row in rows:
        wood = kinds[row[8]][0]
        named = table[wood].name if wood in table else wood
        print(f"{row[2]:<11}{row[4]:<9}{row[5]:<12}{named:<26}{row[7]:<28}{row[1][:12]}")
    print(tr("{count} of {held}.", count=len(rows), held=log.count()))
    return 0


def _show(log: StumpLog, arguments: argparse.Namespace) -> int:
    entry = log.entry(arguments.names[0]) if len(arguments.names) == 1 else None
    if entry is None:
        raise InputError("id", " ".join(arguments.names), reason=tr("no entry, or more than one, begins so"))
    if arguments.json:
        print(json.dumps(json.loads(entry_text(entry)), indent=2, ensure_ascii=False))
    else:
        print("\n".join(entry_to_words(entry, Speech())))
    return 0


def _export(log: StumpLog, arguments: argparse.Namespace) -> int:
    if len(arguments.names) != 1:
        raise JobFileError(tr("log export wants one file to write: a .csv, or .jsonl with everything."))
    path, entries = Path(arguments.names[0]), list(log.entries(wanted_of(arguments)))
    write_atomically(path, csv_text(entries) if path.suffix.lower() == ".csv" else lines_text(entries))
    print(tr("{count} written to {path}.", count=len(entries), path=path))
    return 0


def _import(log: StumpLog, arguments: argparse.Namespace) -> int:
    if not arguments.names:
        raise JobFileError(tr("log import wants the files to take in."))
    found = [entry for name in arguments.names for entry in entries_in(Path(name))]
    new = log.add(found)
    print(tr("{new} of {count} were new; the log has {held}.", new=new, count=len(found), held=log.count()))
    return 0


def _check(log: StumpLog, _: argparse.Namespace) -> int:
    found = log.check()
    print("\n".join(found) if found else tr("The log is whole: {count} entries.", count=log.count()))
    return 1 if found else 0


def _stats(log: StumpLog, arguments: argparse.Namespace) -> int:
    wanted = wanted_of(arguments)
    summary = summary_of(log, wanted)
    near = near_misses(log, summary)
    if arguments.json:
        plain = asdict(summary) | {"near_misses": [asdict(each) for each in near]}
        print(output_text(plain))
        return 0
    speech = Speech()
    print(
        tr(
            "{count} felled; {blows} blows told of, {time_s:.1f} h of {timed}.",
            count=summary.count,
            blows=summary.blows,
            time_s=summary.time_s / 3600,
            timed=summary.timed,
        )
    )
    if summary.miss_deg is not None:
        inside = tr("{inside} of {told} lay where nine in ten were told to", inside=summary.inside, told=summary.told)
        print(tr("{inside}; half within {miss_deg:.1f}° of the lay.", inside=inside, miss_deg=summary.miss_deg))
    for name in ("faller", "species", "cut"):
        print(
            tr("By {name}: ", name=name)
            + ", ".join(f"{value or tr('not said')} {count}" for value, count in summary.by[name].items())
        )
    for each in near:
        print(
            tr(
                "Near miss {day}, {place}: {names}. {words}",
                day=each.day,
                place=each.place,
                names=speech.say(", ".join(each.happened)),
                words=each.words,
            ).rstrip()
        )
    return 0


DO: dict[str, Callable[[StumpLog, argparse.Namespace], int]] = {
    "add": _add,
    "list": _list,
    "show": _show,
    "export": _export,
    "import": _import,
    "check": _check,
    "stats": _stats,
}
"""What can be done."""
