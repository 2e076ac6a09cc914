"""``plain-compass trees``: a job's trees as a table, and tree lists in and out."""

from __future__ import annotations

import argparse
from dataclasses import replace
from pathlib import Path

from ..job.disk import JobFileError, read_text, write_atomically
from ..job.document import Job, TreePlan, size_words
from ..job.files import read_job, write_job
from ..job.language import tr
from ..job.readings_csv import readings_csv
from ..job.report import plain
from ..job.spreads import judged_tree
from ..job.stamp import output_text
from ..job.tree_list import export_csv, import_csv
from .opening import opened_job


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add the arguments: a job file, or import or export with two files."""
    parser.add_argument("what", help=tr("a job file to list, or the word import, export or readings"))
    parser.add_argument("file", nargs="?", type=Path, help=tr("the list to import, or the job to export from"))
    parser.add_argument("-o", "--output", type=Path, help=tr("the job or list to write"))
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))


def run(arguments: argparse.Namespace) -> int:
    """List, import, export, or write raw readings."""
    if arguments.what not in ("import", "export", "readings"):
        return _list(opened_job(Path(arguments.what)), as_json=arguments.json)
    if arguments.file is None or arguments.output is None:
        raise JobFileError(tr("trees {what} wants a file and -o with the file to write.", what=arguments.what))
    return {"import": _import, "export": _export, "readings": _readings}[arguments.what](arguments)


def _list(job: Job, *, as_json: bool) -> int:
    if as_json:
        print(output_text({"trees": [_row(job, plan) for plan in job.trees]}, job.practice))
        return 0
    show = job.speech.show
    for plan in job.trees:
        row, (diameter, height) = _row(job, plan), size_words(plan, job.speech)
        size = f"{diameter:>12}  {height:>12}"
        print(f"{plan.id:<10}{row['species']!s:<34}{size}   lay {show(plan.cut.lay_deg, 'bearing'):<6}{row['level']}")
    return 0


def _row(job: Job, plan: TreePlan) -> dict[str, object]:
    result = judged_tree(job, plan.id)[0]
    return {
        "id": plan.id,
        "species": result.case.wood.name,
        "diameter_m": plan.tree.trunk.diameter_m,
        "height_m": plan.tree.height_m,
        "mass_kg": plain(result.parts.mass.mass_kg),
        "lay_deg": plan.cut.lay_deg,
        "level": result.verdict.level,
        "verdict": job.speech.verdict(result.verdict),
    }


def _import(arguments: argparse.Namespace) -> int:
    """Into a new job, or into one that is there: trees of the same id are refused, never overwritten."""
    output: Path = arguments.output
    opened = read_job(output) if output.exists() else None
    job = opened.job if opened else Job(name=output.name.split(".")[0], trees=())
    trees = import_csv(read_text(arguments.file), arguments.file.name, job.practice)
    taken = {plan.id for plan in job.trees} & {plan.id for plan in trees}
    if taken:
        raise JobFileError(
            tr(
                "{name} has trees called {names} already; nothing was imported.",
                name=output.name,
                names=", ".join(sorted(taken)),
            )
        )
    write_job(output, replace(job, trees=(*job.trees, *trees)), opened.raw if opened else None)
    print(tr("{count} trees written to {output}.", count=len(trees), output=output))
    return 0


def _export(arguments: argparse.Namespace) -> int:
    job = opened_job(arguments.file)
    write_atomically(arguments.output, export_csv(job))
    print(tr("{count} trees written to {output}.", count=len(job.trees), output=arguments.output))
    return 0


def _readings(arguments: argparse.Namespace) -> int:
    job = opened_job(arguments.file)
    write_atomically(arguments.output, readings_csv(job))
    print(
        tr(
            "{readings} readings written to {output}.",
            readings=sum(len(plan.readings) for plan in job.trees),
            output=arguments.output,
        )
    )
    return 0
