"""``plain-compass card`` and ``survey-sheet``: what goes on paper of a tree, and to it."""

from __future__ import annotations

import argparse
from pathlib import Path

from ..app.steps.card.paper import MOST_SHEETS, PAPERS, SHEETS, USUAL, LayoutWanted
from ..job.disk import JobFileError
from ..job.language import tr, tr_count
from ..job.words import Speech, vocabularies
from .on_tree import add_file_and_tree, loaded
from .opening import opened_job


def add_to(parser: argparse.ArgumentParser) -> None:
    """Which tree, on which paper."""
    add_file_and_tree(parser)
    parser.add_argument("-o", "--output", type=Path, required=True, help=tr("the PDF to write"))
    parser.add_argument("--all", action="store_true", help=tr("the cards of every tree of the job in one file"))
    parser.add_argument("--strip", action="store_true", help=tr("the tape marks alone, as a strip at true scale"))
    parser.add_argument("--paper", choices=tuple(PAPERS), default=USUAL)
    parser.add_argument("--no-stump-page", action="store_true", help=tr("without the page to fill in at the stump"))
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Write it."""
    from ..app.steps.card.card_set import write_cards_without_screen
    from ..app.steps.card.pdf import write_card_without_screen, write_strip_without_screen

    wanted = LayoutWanted(arguments.paper, not arguments.no_stump_page)
    if arguments.all:
        if arguments.tree or arguments.strip or arguments.settings:
            raise JobFileError(
                tr("--all writes the cards of every tree as they are: leave out --tree, --strip and --set.")
            )
        print(write_cards_without_screen(opened_job(arguments.file), arguments.output, wanted))
        return 0
    job, plan = loaded(arguments)
    if arguments.strip:
        write_strip_without_screen(job, plan.id, arguments.output, arguments.paper)
    else:
        write_card_without_screen(job, plan.id, arguments.output, wanted)
    print(
        tr(
            "{what} of {id} written to {output}.",
            what=tr("Tape strip") if arguments.strip else tr("Card"),
            id=plan.id,
            output=arguments.output,
        )
    )
    return 0


def add_survey_to(parser: argparse.ArgumentParser) -> None:
    """For how many trees."""
    parser.add_argument(
        "-n", "--trees", type=int, default=SHEETS, help=tr("for how many trees ({sheets})", sheets=SHEETS)
    )
    parser.add_argument("-o", "--output", type=Path, required=True, help=tr("the PDF to write"))
    parser.add_argument("--paper", choices=tuple(PAPERS), default=USUAL)
    parser.add_argument(
        "--words", choices=tuple(vocabularies()), default="hinge", help=tr("which trade words it speaks")
    )
    parser.set_defaults(run=run_survey)


def run_survey(arguments: argparse.Namespace) -> int:
    """Write a blank sheet."""
    from ..app.steps.card.survey_sheet import write_survey_sheet

    if not 1 <= arguments.trees <= MOST_SHEETS:
        raise JobFileError(
            tr("--trees {trees}: accepted is 1 to {most_sheets}.", trees=arguments.trees, most_sheets=MOST_SHEETS)
        )
    write_survey_sheet(arguments.trees, Speech(words=arguments.words), arguments.output, arguments.paper)
    told = tr_count(
        "Survey sheet for {count} tree written to {output}.",
        "Survey sheet for {count} trees written to {output}.",
        arguments.trees,
        output=arguments.output,
    )
    print(told)
    return 0
