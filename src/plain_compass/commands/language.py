"""``plain-compass language``: those there are, the file of a new one, what is missing in one, and the choice."""

from __future__ import annotations

import argparse
from pathlib import Path

from ..job.disk import JobFileError, write_atomically
from ..job.language import (
    ENGLISH,
    LanguageError,
    file_of,
    languages,
    named_languages,
    own_folder,
    read_language,
    spoken,
    tr,
)
from ..job.language_files import checked, english, template
from ..job.language_kept import choose

MOST_TOLD = 20
"""Entries of one sort that are told; more are a matter for the file itself."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add the arguments."""
    parser.add_argument(
        "what",
        nargs="?",
        choices=("list", "template", "check", "use"),
        default="list",
        help=tr("list them, write a file to fill in, check one, or speak one from now on"),
    )
    parser.add_argument("which", nargs="?", default="", help=tr("its code, such as de, or its file"))
    parser.add_argument("-o", "--output", type=Path, help=tr("template: the file to write"))


def run(arguments: argparse.Namespace) -> int:
    """Do what is asked. Raises JobFileError."""
    try:
        return {"list": _list, "template": _template, "check": _check, "use": _use}[arguments.what](arguments)
    except LanguageError as error:
        raise JobFileError(str(error)) from None


def _list(_: argparse.Namespace) -> int:
    names, troubles = named_languages()
    for code, name in names.items():
        sign = "*" if code == spoken().code else " "
        print(f"{sign} {code:<8} {name}")
    for trouble in troubles:
        print(trouble)
    print(tr("Files of your own lie in {folder}.", folder=own_folder()))
    return 0


def _template(arguments: argparse.Namespace) -> int:
    """A file to fill in; what a language has already is kept in it."""
    if not arguments.which or arguments.output is None:
        raise JobFileError(tr("language template wants a code and -o with the file to write."))
    code, file = arguments.which, file_of(arguments.which)
    known = read_language(file) if file is not None else None
    write_atomically(arguments.output, template(code, known.name if known else code, known))
    count = sum(map(len, english().values()))
    print(tr("{count} texts to fill in written to {output}.", count=count, output=arguments.output))
    return 0


def _check(arguments: argparse.Namespace) -> int:
    """0 where nothing is to be mended, else 1."""
    found = checked(read_language(_file(arguments.which)))
    for entries, words in (
        (found.missing, tr("missing, said in English")),
        (found.surplus, tr("not said by this program")),
        (found.unfilled, tr("of other placeholders")),
        (found.untaught, tr("with trade words the English has not")),
    ):
        if entries:
            print(f"{words}: {len(entries)}")
            print("".join(f"  {entry}\n" for entry in entries[:MOST_TOLD]), end="")
    if found.is_good:
        print(tr("Every text is there, and none is too many."))
    return 0 if found.is_good else 1


def _use(arguments: argparse.Namespace) -> int:
    if arguments.which != ENGLISH:
        read_language(_file(arguments.which))
    choose(arguments.which)
    print(tr("From the next start on {code} is spoken.", code=arguments.which))
    return 0


def _file(which: str) -> Path:
    """The file of a code, or the file itself."""
    file = file_of(which) or (Path(which) if which else None)
    if file is None or not file.is_file():
        raise JobFileError(
            tr("There is no language “{which}” here; accepted: {names}.", which=which, names=", ".join(languages()))
        )
    return file
