"""The command line: ``plain-compass``. Exit status 0 answered, 1 as ``--fail-on`` asks, 2 bad input with a sentence."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Collection, Sequence
from typing import NoReturn

from . import __version__
from .commands.parsers import COMMANDS

DESCRIPTION = (
    "Design the face notch, hinge and back or bore cut of a tree from trunk size, lean, side weight and decay. "
    "Without a command the window opens. It is decision support: local law, site rules and the competent person on "
    "the spot come first."
)
"""What the program is for."""


class Parser(argparse.ArgumentParser):
    """Says what is wrong in one sentence instead of printing the whole usage."""

    def error(self, message: str) -> NoReturn:
        """One sentence on standard error, exit status 2."""
        self.exit(2, f"{message}; see {self.prog} --help.\n")


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
    from .commands.window import run_window

    return run_window(arguments)


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit status."""
    given = sys.argv[1:] if argv is None else [*argv]
    # Only the command that is asked for is imported: a list of commands is there at once.
    arguments = make_parser([each for each in given if each in COMMANDS][:1]).parse_args(given)
    try:
        status = int(arguments.run(arguments))
        sys.stdout.flush()  # here, so that a reader that has gone is met inside the try and not at exit
        return status
    except BrokenPipeError:
        # The reader (a pager, head) has seen enough; what was asked for has been answered.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except RecursionError:
        print("The file is nested too deeply to be read.", file=sys.stderr)
        return 2
    except Exception as error:
        told = _told(error)
        if told is None:
            raise
        print(told, file=sys.stderr)
        return 2


def _told(error: Exception) -> str | None:
    """The sentence of an error that was raised on purpose; None of any other."""
    from .core.base.errors import PlainCompassError

    if not isinstance(error, PlainCompassError):
        return None
    from .core.judge.unmeasured import UnmeasuredError
    from .job.words import Speech

    return Speech().phrase(error.sentence) if isinstance(error, UnmeasuredError) else str(error)


if __name__ == "__main__":
    sys.exit(main())
