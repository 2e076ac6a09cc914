"""``plain-compass cuts``, ``stages``, ``suggest`` and ``practices``: the table of cuts, taken apart and searched."""

from __future__ import annotations

import argparse
from dataclasses import asdict
from pathlib import Path
from typing import Any

from ..core.advice.faults import FAULTS, play
from ..core.advice.suggest import Suggestion, suggest
from ..core.cuts import NEVER_PLANNED, PARTS, forms_of
from ..core.cuts.stages import Stage, stages_of, sweep_of
from ..job.disk import write_atomically
from ..job.document import Job, TreePlan, assess_tree
from ..job.language import in_words, tr
from ..job.practice_files import practice_text
from ..job.report import plain
from ..job.spreads import judged_tree, spreads_of
from ..job.stamp import output_text
from ..job.tables import disagreements, practice_of, practices, take_practice_in
from ..job.words import Speech
from .opening import by_stand_ins


def add_table_to(parser: argparse.ArgumentParser) -> None:
    """The table of cuts."""
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))
    parser.set_defaults(run=table)


def add_schools_to(parser: argparse.ArgumentParser) -> None:
    """The schools."""
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))
    parser.add_argument(
        "--save", nargs=2, metavar=("KEY", "FILE"), help=tr("write one practice to a file, to be shared")
    )
    parser.add_argument("--add", type=Path, metavar="FILE", help=tr("take a practice in from a file"))
    parser.set_defaults(run=schools)


def table(arguments: argparse.Namespace) -> int:
    """Every form: what it is for and the usual mistake; for a tree, whether it fits."""
    say = Speech().tell
    rows = [
        {
            "part": form.part,
            "key": form.key,
            "name": say(form.name),
            "for": say(form.purpose),
            "drill": say(form.drill),
            "specialist": say(form.needs) if form.specialist else "",
        }
        for part in PARTS
        for form in forms_of(part)
    ]
    if arguments.json:
        print(output_text({"cuts": rows, "never_planned": say(NEVER_PLANNED)}))
        return 0
    for row in rows:
        print(f"{row['part']:<6} {row['key']:<13} {row['name']}{tr('  (specialist)') if row['specialist'] else ''}")
        print(tr("       fits when: {what}", what=row["for"]))
        print(tr("       watch for: {drill}", drill=row["drill"]))
    print(f"\n{say(NEVER_PLANNED)}")
    return 0


def stages(job: Job, tree: TreePlan, arguments: argparse.Namespace) -> int:
    """The cut of one tree as standing states."""
    result, speech = assess_tree(job, tree.id), job.speech
    lacking = by_stand_ins(tree)
    found = [_stage(stage, speech) for stage in stages_of(result)]
    if not arguments.json:
        print(_stage_row(tr("stage"), tr("uncut"), tr("standing"), tr("side"), tr("split"), tr("bar"), tr("stop if")))
        for row in found:
            print(
                _stage_row(
                    row["title"],
                    f"{row['uncut_area_m2'] * 1e4:.0f} cm2",
                    f"{row['standing'] * 100:.0f} %",
                    f"{row['side_utilisation'] * 100:.0f} %",
                    in_words(f"{row['split_index']:.2f}"),
                    tr("free") if row["bar_free"] else tr("held"),
                    row["stop_if"] + (tr("  SITS BACK") if row["sits_back"] else ""),
                )
            )
        return 0
    sweep = sweep_of(result)
    faults = []
    for fault in FAULTS:
        played = play(result, fault)
        worse = [speech.phrase(each.sentence) for each in played.worse]
        holds = played.result is not None
        faults.append({"key": fault.key, "name": speech.tell(fault.name), "worse": worse, "fits": holds})
        faults[-1]["mends"] = speech.tell(fault.mends)
    curves = {name: [round(float(v), 5) for v in values] for name, values in asdict(sweep.states).items()}
    whole = {
        "tree": tree.id,
        "not_measured": lacking,
        "stages": found,
        "sweep": {"progress": sweep.progress.tolist(), "ends": sweep.ends, "worst": sweep.worst, **curves},
        "faults": faults,
    }
    print(output_text(whole, job.practice))
    return 0


def _stage_row(title: str, *cells: str) -> str:
    uncut, standing, side, split, bar, stop_if = cells
    return f"{title:<14} {uncut:>9} {standing:>9} {side:>6} {split:>6}  {bar:<5}  {stop_if}"


def _stage(stage: Stage, speech: Speech) -> dict[str, Any]:
    step = stage.step
    told = {
        "key": step.key if step else "uncut",
        "part": stage.part,
        "title": speech.tell(step.title) if step else "Uncut",
        "do": speech.phrase(step.do) if step else "",
        "stand": speech.tell(step.stand) if step else "",
        "look": speech.tell(step.look) if step else "",
        "stop_if": speech.tell(step.stop_if) if step else "",
    }
    names = ("uncut_area_m2", "standing", "side_utilisation", "split_index", "bar_free", "sits_back", "goes", "seat_m")
    return told | {name: plain(getattr(stage, name)) for name in (*names, "wedge_fits")}


def suggestions(job: Job, tree: TreePlan, arguments: argparse.Namespace) -> int:
    """The three best designs for one tree."""
    speech = job.speech
    found = suggest(judged_tree(job, tree.id)[0], spreads=spreads_of(tree, job.hand))
    assert found is not None
    if arguments.json:
        rows = [_suggestion(each, speech) for each in found.best]
        nearest = None if found.nearest is None else _suggestion(found.nearest, speech)
        whole = {"tree": tree.id, "tried": found.tried, "best": rows, "nearest": nearest}
        print(output_text(whole, job.practice))
        return 0
    for number, each in enumerate(found.best, start=1):
        row = _suggestion(each, speech)
        print(
            tr(
                "{number}. {words}: least margin {margin:.0f} %",
                number=number,
                words=row["words"],
                margin=each.margin * 100,
            )
        )
        print(f"   {row['because']}")
        for text in row["gives_up"]:  # type: ignore[attr-defined]
            print(tr("   gives up: {text}", text=text))
    if not found.best:
        print(
            tr(
                "No design of the table is good enough with this kit: a rope, a machine, another lay, "
                "or those qualified."
            )
        )
        if found.nearest is not None:
            print(tr("Nearest: {words}; stopped by:", words=_suggestion(found.nearest, speech)["words"]))
            for finding in found.nearest.stops:
                print(f"   {speech.phrase(finding.sentence)}")
    return 0


def _suggestion(each: Suggestion, speech: Speech) -> dict[str, object]:
    return {
        "words": speech.tell(each.words),
        "forms": dict(zip(PARTS, each.forms, strict=True)),
        "margin": each.margin,
        "because": speech.verdict(each.result.verdict),
        "gives_up": [speech.phrase(finding.sentence) for finding in each.gives_up],
        "stopped_by": [speech.phrase(finding.sentence) for finding in each.stops],
        "cut": asdict(each.cut),
    }


def schools(arguments: argparse.Namespace) -> int:
    """The practices and where they disagree; one written to a file, or taken in from one."""
    say = Speech().say
    if arguments.add is not None:
        practice = take_practice_in(arguments.add)
        print(tr("{name} can be chosen now.", name=practice.name))
        return 0
    if arguments.save is not None:
        key, target = arguments.save
        write_atomically(Path(target), practice_text(practice_of(key)))
        print(tr("Practice written to {target}.", target=target))
        return 0
    if arguments.json:
        schooled = [asdict(each) | {"note": say(each.note)} for each in practices().values()]
        questions = [
            {key: say(value) if isinstance(value, str) else [say(each) for each in value] for key, value in row.items()}
            for row in disagreements()
        ]
        whole = {"practices": schooled, "disagreements": questions}
        print(output_text(whole))
        return 0
    for each in practices().values():
        print(f"{each.key:<17} {tr(each.name)}: {say(each.note)}")
    print(tr("\nWhere practitioners disagree:"))
    for row in disagreements():
        told = tr(
            "{question}: {schools}\n    here: {choice}. {reason}",
            question=say(row["question"]),
            schools="; ".join(map(say, row["schools"])),
            choice=say(row["choice"]),
            reason=say(row["reason"]),
        )
        print(told)
    return 0
