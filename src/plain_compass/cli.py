"""The command line: ``plain-compass``. Exit status 0 answered, 1 as ``--fail-on`` asks, 2 bad input with a sentence."""

from __future__ import annotations

import os
import sys
from collections.abc import Sequence

from .commands.parsers import COMMANDS, make_parser
from .job.language import follow_system, spoken, tr


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit status."""
    given = sys.argv[1:] if argv is None else [*argv]
    follow_system()
    if spoken().trouble:
        print(spoken().trouble, file=sys.stderr)
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
        print(tr("The file is nested too deeply to be read."), file=sys.stderr)
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
