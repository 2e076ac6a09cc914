"""The command line: ``plain-compass``. Exit status 0 answered, 1 as ``--fail-on`` asks, 2 bad input with a sentence."""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any, NoReturn

from . import __version__
from .app.steps.card.paper import MOST_SHEETS, PAPERS, SHEETS, USUAL, LayoutWanted
from .commands import (
    block,
    cuts,
    fall,
    instruments,
    learn,
    log,
    measure,
    mend,
    practice,
    rose,
    site,
    species,
    trees,
    why,
)
from .commands.what_if import with_settings
from .core.base.errors import PlainCompassError
from .core.base.levels import LEVELS, Level
from .core.judge.unmeasured import UnmeasuredError
from .job.words import Speech, vocabularies

FAIL_ON = ("stop", "unknown", "watch")
"""Verdicts that scripts may want to end on."""


class _Parser(argparse.ArgumentParser):
    """Says what is wrong in one sentence instead of printing the whole usage."""

    def error(self, message: str) -> NoReturn:
        self.exit(2, f"{message}; see {self.prog} --help.\n")


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(prog="plain-compass", description="Design the face notch, hinge and back cut of a tree.")
    parser.add_argument("-V", "--version", action="version", version=f"plain-compass {__version__}")
    parser.set_defaults(run=_window)
    commands = parser.add_subparsers(metavar="command", parser_class=_Parser)
    commands.add_parser("demo", help="open the window on the demo job").set_defaults(run=_demo)
    opened = commands.add_parser("open", help="open the window on a job file")
    opened.add_argument("file", type=Path)
    opened.set_defaults(run=_open)
    assessed = commands.add_parser("assess", help="print the findings of one tree")
    _file_and_tree(assessed)
    assessed.add_argument("--json", action="store_true", help="print one JSON object instead of a table")
    assessed.add_argument(
        "--fail-on",
        choices=FAIL_ON,
        help="exit with 1 when the verdict is this bad or worse: stop, unknown or watch, in that order",
    )
    assessed.set_defaults(run=_assess)
    card = commands.add_parser("card", help="write one tree's card as PDF")
    _file_and_tree(card)
    card.add_argument("-o", "--output", type=Path, required=True, help="the PDF to write")
    card.add_argument("--all", action="store_true", help="the cards of every tree of the job in one file")
    card.add_argument("--strip", action="store_true", help="the tape marks alone, as a strip at true scale")
    card.add_argument("--paper", choices=tuple(PAPERS), default=USUAL)
    card.add_argument("--no-stump-page", action="store_true", help="without the page to fill in at the stump")
    card.set_defaults(run=_card)
    blank = commands.add_parser("survey-sheet", help="write a blank sheet to take along to trees, as PDF")
    blank.add_argument("-n", "--trees", type=int, default=SHEETS, help=f"for how many trees ({SHEETS})")
    blank.add_argument("-o", "--output", type=Path, required=True, help="the PDF to write")
    blank.add_argument("--paper", choices=tuple(PAPERS), default=USUAL)
    blank.add_argument("--words", choices=tuple(vocabularies()), default="hinge", help="which trade words it speaks")
    blank.set_defaults(run=_survey_sheet)
    turned = commands.add_parser("rose", help="every bearing of one tree: margin, what rules, help needed, targets")
    _file_and_tree(turned)
    rose.add_to(turned)
    turned.set_defaults(run=_rose)
    falling = commands.add_parser("fall", help="where one tree goes, what its hinge does, and how sure that is")
    _file_and_tree(falling)
    fall.add_to(falling)
    falling.set_defaults(run=_fall)
    placed = commands.add_parser("site", help="a job's site as GeoJSON, in and out")
    site.add_to(placed)
    placed.set_defaults(run=site.run)
    measured = commands.add_parser("measure", help="height, lean or girth from readings, with their spread")
    measure.add_to(measured)
    measured.set_defaults(run=measure.run)
    listed = commands.add_parser("trees", help="list a job's trees; import or export them as CSV")
    trees.add_to(listed)
    listed.set_defaults(run=trees.run)
    simulated = commands.add_parser("instruments", help="run small simulated instruments on loopback")
    instruments.add_to(simulated)
    simulated.set_defaults(run=instruments.run)
    _add_cuts(commands)
    woods = commands.add_parser("species", help="the table of species, each row with its source; take in your own")
    species.add_to(woods)
    woods.set_defaults(run=species.run)
    _add_log(commands)
    schema = commands.add_parser("schema", help="print the JSON Schema of job files")
    schema.add_argument("--stumps", action="store_true", help="of one line of an exported stump log instead")
    schema.set_defaults(run=_schema)
    return parser


def _add_log(commands: Any) -> None:
    """What is asked of many trees, and of the stump log."""
    blocks = commands.add_parser("block", help="many trees in order: plan, kit, left, sheet")
    block.add_to(blocks)
    blocks.set_defaults(run=block.run)
    practice.add_to(commands.add_parser("practice", help="cases to judge: make a set, print it, score answers"))
    logged = commands.add_parser("log", help="the stump log: add, list, show, export, import, check, stats")
    log.add_to(logged)
    logged.set_defaults(run=log.run)
    learning = commands.add_parser("learn", help="what a faller's own stumps teach")
    learn.add_to(learning)
    learning.set_defaults(run=learn.run)


def _add_cuts(commands: Any) -> None:
    """What is asked of the table of cuts."""
    listed = commands.add_parser("cuts", help="the table of cuts: when each fits, and its usual mistake")
    listed.add_argument("--json", action="store_true", help="print one JSON object")
    listed.set_defaults(run=cuts.table)
    for name, what, words in (
        ("stages", cuts.stages, "the cut of one tree as standing states, with usual mistakes played in"),
        ("suggest", cuts.suggestions, "the three best designs for one tree, and what each gives up"),
        ("mend", mend.run, "for every trouble of one tree's plan, the smallest changes that make it clear"),
        ("why", why.run, "what a tree's miss is made of, by the stump as it was cut (--set as_cut.…)"),
    ):
        about = commands.add_parser(name, help=words)
        _file_and_tree(about)
        about.add_argument("--json", action="store_true", help="print one JSON object")
        about.set_defaults(run=lambda arguments, what=what: what(*_load(arguments), arguments))
    schools = commands.add_parser("practices", help="the schools, and where they disagree")
    schools.add_argument("--json", action="store_true", help="print one JSON object")
    schools.add_argument("--save", nargs=2, metavar=("KEY", "FILE"), help="write one practice to a file, to be shared")
    schools.add_argument("--add", type=Path, metavar="FILE", help="take a practice in from a file")
    schools.set_defaults(run=cuts.schools)


def _file_and_tree(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("file", type=Path, help="a job file (.pcjob.json), the word demo, or - for standard input")
    parser.add_argument("--tree", help="id of the tree; may be left out for a job of one tree, and for demo")
    parser.add_argument(
        "--set",
        action="append",
        default=[],
        metavar="FIELD=VALUE",
        dest="settings",
        help="answer as if this stood in the job, as in cut.hinge.left_m=4cm; may be given more than once",
    )


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit status."""
    arguments = _parser().parse_args(argv)
    try:
        status = int(arguments.run(arguments))
        sys.stdout.flush()  # here, so that a reader that has gone is met inside the try and not at exit
        return status
    except UnmeasuredError as error:
        print(Speech().phrase(error.sentence), file=sys.stderr)
        return 2
    except PlainCompassError as error:
        print(str(error), file=sys.stderr)
        return 2
    except BrokenPipeError:
        # The reader (a pager, head) has seen enough; what was asked for has been answered.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except RecursionError:
        print("The file is nested too deeply to be read.", file=sys.stderr)
        return 2


# The imports below stand inside the functions for start-up time only: the window needs Qt, a table does not.


def _window(_: argparse.Namespace) -> int:
    from .app.main import run

    return run()


def _demo(_: argparse.Namespace) -> int:
    from .app.main import run

    return run(demo=True)


def _open(arguments: argparse.Namespace) -> int:
    from .app.main import run
    from .job.files import read_job

    if str(arguments.file) == "demo" and not arguments.file.exists():
        return run(demo=True)
    read_job(arguments.file)
    return run(arguments.file)


def _load(arguments: argparse.Namespace):  # type: ignore[no-untyped-def]  # noqa: ANN202
    from .commands.opening import opened_job
    from .job.disk import JobFileError

    job = opened_job(arguments.file)
    if arguments.tree is None and len(job.trees) > 1 and str(arguments.file) != "demo":
        raise JobFileError(
            f"{arguments.file.name} has several trees; say which with --tree: {', '.join(t.id for t in job.trees)}."
        )
    tree_id = job.plan(arguments.tree or job.trees[0].id).id
    job = with_settings(job, tree_id, arguments.settings) if arguments.settings else job
    return job, job.plan(tree_id)


def _assess(arguments: argparse.Namespace) -> int:
    from .job.fall import judged_with_fall
    from .job.report import assessment_to_plain, table

    job, plan = _load(arguments)
    result, chances = judged_with_fall(job, plan.id)
    if arguments.json:
        print(
            json.dumps(assessment_to_plain(job, plan, result, chances), indent=2, ensure_ascii=False, allow_nan=False)
        )
    else:
        print(table(job, plan, result))
    worst = LEVELS.index(result.verdict.level)
    return 1 if arguments.fail_on and worst >= LEVELS.index(Level(arguments.fail_on)) else 0


def _rose(arguments: argparse.Namespace) -> int:
    job, plan = _load(arguments)
    return rose.run(job, plan, arguments)


def _fall(arguments: argparse.Namespace) -> int:
    job, plan = _load(arguments)
    return fall.run(job, plan, arguments)


def _card(arguments: argparse.Namespace) -> int:
    from .app.steps.card.card_set import write_cards_without_screen
    from .app.steps.card.pdf import write_card_without_screen, write_strip_without_screen
    from .commands.opening import opened_job
    from .job.disk import JobFileError

    wanted = LayoutWanted(arguments.paper, not arguments.no_stump_page)
    if arguments.all:
        if arguments.tree or arguments.strip or arguments.settings:
            raise JobFileError("--all writes the cards of every tree as they are: leave out --tree, --strip and --set.")
        print(write_cards_without_screen(opened_job(arguments.file), arguments.output, wanted))
        return 0
    job, plan = _load(arguments)
    if arguments.strip:
        write_strip_without_screen(job, plan.id, arguments.output, arguments.paper)
    else:
        write_card_without_screen(job, plan.id, arguments.output, wanted)
    print(f"{'Tape strip' if arguments.strip else 'Card'} of {plan.id} written to {arguments.output}.")
    return 0


def _survey_sheet(arguments: argparse.Namespace) -> int:
    from .app.steps.card.survey_sheet import write_survey_sheet
    from .job.disk import JobFileError

    if not 1 <= arguments.trees <= MOST_SHEETS:
        raise JobFileError(f"--trees {arguments.trees}: accepted is 1 to {MOST_SHEETS}.")
    write_survey_sheet(arguments.trees, Speech(words=arguments.words), arguments.output, arguments.paper)
    print(
        f"Survey sheet for {arguments.trees} tree{'s' if arguments.trees != 1 else ''} written to {arguments.output}."
    )
    return 0


def _schema(arguments: argparse.Namespace) -> int:
    from .job.schema import entry_schema, json_schema

    print(json.dumps(entry_schema() if arguments.stumps else json_schema(), indent=2, ensure_ascii=False))
    return 0


if __name__ == "__main__":
    sys.exit(main())
