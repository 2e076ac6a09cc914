"""Commands about one tree of a job: which file, which tree, and answers as if something else stood there."""

from __future__ import annotations

import argparse
from collections.abc import Callable
from pathlib import Path

from ..job.disk import JobFileError
from ..job.document import Job, TreePlan
from ..job.language import tr
from .opening import opened_job

Run = Callable[[Job, TreePlan, argparse.Namespace], int]


def add_file_and_tree(parser: argparse.ArgumentParser) -> None:
    """Options that name a tree."""
    parser.add_argument("file", type=Path, help=tr("a job file (.pcjob.json), the word demo, or - for standard input"))
    parser.add_argument("--tree", help=tr("id of the tree; may be left out for a job of one tree, and for demo"))
    parser.add_argument(
        "--set",
        action="append",
        default=[],
        metavar="FIELD=VALUE",
        dest="settings",
        help=tr("answer as if this stood in the job, as in cut.hinge.left_m=4cm; may be given more than once"),
    )


def loaded(arguments: argparse.Namespace) -> tuple[Job, TreePlan]:
    """The job and the tree. Raises JobFileError where several trees could be meant."""
    job = opened_job(arguments.file)
    if arguments.tree is None and len(job.trees) > 1 and str(arguments.file) != "demo":
        names = ", ".join(tree.id for tree in job.trees)
        raise JobFileError(
            tr("{name} has several trees; say which with --tree: {names}.", name=arguments.file.name, names=names)
        )
    tree_id = job.plan(arguments.tree or job.trees[0].id).id
    if arguments.settings:
        from .what_if import with_settings  # few ask what if

        job = with_settings(job, tree_id, arguments.settings)
    return job, job.plan(tree_id)


def about_tree(parser: argparse.ArgumentParser, run: Run, *, json: bool = False) -> None:
    """Make a parser one of a tree.

    Args:
        json: whether it can answer with one JSON object.
    """
    add_file_and_tree(parser)
    if json:
        parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))
    parser.set_defaults(run=lambda arguments: run(*loaded(arguments), arguments))
