"""Every command by its name: what it is for in a line, and what its options are, imported when it is asked for.

The imports stand inside the functions: a list of commands is not to wait for what each of them needs.
"""

from __future__ import annotations

import argparse
from collections.abc import Callable, Collection
from importlib import import_module
from typing import Any, NamedTuple, NoReturn

from .. import __version__
from ..job.language import tr

AddTo = Callable[[argparse.ArgumentParser], None]
DESCRIPTION = tr(
    "Design the felling cut of a tree, its notch, what is left to hold it and the cut from behind or bored, from trunk "
    "size, lean, side weight and decay. "
    "Without a command the window opens. It is decision support: local law, site rules and the competent person on "
    "the spot come first."
)
"""What the program is for."""


class Command(NamedTuple):
    """One command.

    Attributes:
        help: what it is for, in a line; add gives its parser its options and what it runs.
    """

    help: str
    add: AddTo


def _of(module: str, add: str = "add_to") -> AddTo:
    """Options and what is run as a module of this package has them."""

    def adding(parser: argparse.ArgumentParser) -> None:
        found: Any = import_module(f".{module}", __package__)
        getattr(found, add)(parser)
        if parser.get_default("run") is None and hasattr(found, "run"):
            parser.set_defaults(run=found.run)

    return adding


def _of_tree(module: str, run: str = "run", *, options: bool = False) -> AddTo:
    """The same of a command about one tree; it answers in JSON too."""

    def adding(parser: argparse.ArgumentParser) -> None:
        from .on_tree import about_tree

        found: Any = import_module(f".{module}", __package__)
        about_tree(parser, getattr(found, run), json=not options)
        if options:
            found.add_to(parser)

    return adding


def _demo(parser: argparse.ArgumentParser) -> None:
    from .window import run_demo

    parser.set_defaults(run=run_demo)


COMMANDS: dict[str, Command] = {
    "demo": Command(tr("open the window on the demo job"), _demo),
    "open": Command(tr("open the window on a job file"), _of("window", "add_open_to")),
    "assess": Command(tr("print the findings of one tree"), _of("assess")),
    "card": Command(tr("write one tree's card as PDF"), _of("card")),
    "survey-sheet": Command(tr("write a blank sheet to take along to trees, as PDF"), _of("card", "add_survey_to")),
    "rose": Command(
        tr("every bearing of one tree: margin, what rules, help needed, targets"), _of_tree("rose", options=True)
    ),
    "fall": Command(tr("where one tree goes, how it is held, and how sure that is"), _of_tree("fall", options=True)),
    "site": Command(tr("a job's site as GeoJSON, in and out"), _of("site")),
    "measure": Command(tr("height, lean or girth from readings, with their spread"), _of("measure")),
    "trees": Command(tr("list a job's trees; import or export them as CSV"), _of("trees")),
    "instruments": Command(tr("run small simulated instruments on loopback"), _of("instruments")),
    "cuts": Command(tr("the table of cuts: when each fits, and its usual mistake"), _of("cuts", "add_table_to")),
    "stages": Command(
        tr("the cut of one tree as standing states, with usual mistakes played in"), _of_tree("cuts", "stages")
    ),
    "suggest": Command(
        tr("the three best designs for one tree, and what each gives up"), _of_tree("cuts", "suggestions")
    ),
    "mend": Command(
        tr("for every trouble of one tree's plan, the smallest changes that make it clear"), _of_tree("mend")
    ),
    "why": Command(tr("what a tree's miss is made of, by the stump as it was cut (--set as_cut.…)"), _of_tree("why")),
    "practices": Command(tr("the schools, and where they disagree"), _of("cuts", "add_schools_to")),
    "species": Command(tr("the table of species, each row with its source; take in your own"), _of("species")),
    "block": Command(tr("many trees in order: plan, kit, left, sheet"), _of("block")),
    "practice": Command(tr("cases to judge: make a set, print it, score answers"), _of("practice")),
    "log": Command(tr("the stump log: add, list, show, export, import, check, stats"), _of("log")),
    "learn": Command(tr("what a faller's own stumps teach"), _of("learn")),
    "watch": Command(tr("one tree reckoned again whenever its file changes"), _of("watch")),
    "convert": Command(tr("a job to today's version, its trees as CSV, its site as GeoJSON"), _of("convert")),
    "self-check": Command(tr("closed forms and the demo's numbers, reckoned on this machine"), _of("self_check")),
    "desktop": Command(tr("entry, icon, type of file, man pages and completion, for this user"), _of("desktop")),
    "language": Command(tr("languages there are; make the file of one, check it, choose one"), _of("language")),
    "schema": Command(tr("print the JSON Schema of job files"), _of("schemas")),
}
"""In the order in which they are told."""


class Parser(argparse.ArgumentParser):
    """Says what is wrong in one sentence instead of printing the whole usage."""

    def error(self, message: str) -> NoReturn:
        """One sentence on standard error, exit status 2."""
        self.exit(2, tr("{message}; see {prog} --help.\n", message=message, prog=self.prog))


def make_parser(wanted: Collection[str] = tuple(COMMANDS)) -> argparse.ArgumentParser:
    """Every command by its name, those that are wanted with their options."""
    parser = Parser(prog="plain-compass", description=DESCRIPTION)
    parser.add_argument("-V", "--version", action="version", version=f"plain-compass {__version__}")
    parser.set_defaults(run=_window)
    commands = parser.add_subparsers(metavar="command", parser_class=Parser)
    for name, command in COMMANDS.items():
        made = commands.add_parser(name, help=command.help)
        if name in wanted:
            command.add(made)
    return parser


def _window(arguments: argparse.Namespace) -> int:
    from .window import run_window

    return run_window(arguments)
