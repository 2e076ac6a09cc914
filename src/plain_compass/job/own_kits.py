"""One's own store of kit: sets as lines of text, offered in every job."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path

from platformdirs import user_config_path

from .. import APP
from ..core.base.errors import PlainCompassError
from ..core.block.kit_sets import KitSet
from .block_kit import kit_set_of, kit_set_words
from .disk import JobFileError, read_text, reason_of, write_atomically
from .document import Job
from .language import tr
from .words import Speech

PLAIN = Speech("metric", "hinge")
"""Units of the store: of one person, whatever units a job speaks."""


def own_kits() -> Path:
    """Where they are kept."""
    return Path(user_config_path(APP)) / "kit.txt"


def read_own_kits(path: Path) -> tuple[tuple[KitSet, ...], tuple[str, ...]]:
    """(sets, lines that cannot be read); neither where nothing is kept. Raises JobFileError."""
    if not path.exists():
        return (), ()
    found, odd = list[KitSet](), list[str]()
    for line in read_text(path).splitlines():
        try:
            found += [kit_set_of(line, "metric")] if line.strip() else []
        except PlainCompassError:
            odd.append(line)
    return tuple(found), tuple(odd)


def keep_own_kits(path: Path, kits: Sequence[KitSet]) -> int:
    """Add sets to the store, each in the place of one of its name; returns how many it has now.

    Lines that cannot be read stay as they are. Raises JobFileError.
    """
    before, odd = read_own_kits(path)
    by_name = {(each.whose, each.name): each for each in (*before, *kits)}
    lines = [kit_set_words(each, PLAIN) for each in by_name.values()]
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise JobFileError(
            tr(
                "{parent} could not be made: {reason}; no kit can be kept there.",
                parent=path.parent,
                reason=reason_of(error),
            )
        ) from None
    write_atomically(path, "\n".join([*lines, *odd]) + "\n")
    return len(by_name)


def with_own_kits(job: Job, kits: Sequence[KitSet]) -> Job:
    """The job with the store's sets, each in the place of one of its name; what comes along stays so."""
    known = {(each.whose, each.name): each for each in job.block.kits}
    for each in kits:
        before = known.get((each.whose, each.name), each)
        known[(each.whose, each.name)] = replace(each, packed=before.packed)
    return replace(job, block=replace(job.block, kits=tuple(known.values())))
