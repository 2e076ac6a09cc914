"""By what a number was reckoned, on cards and exports: program, fingerprint of the constants, practice."""

from __future__ import annotations

import json
from dataclasses import asdict
from typing import Any

from .. import __version__
from ..core.tree.wood import Indicative
from .language import tr
from .tables import indicative, practices

OUTPUT = 1
"""Version of the JSON that commands print: raised when a key goes or changes its meaning, not when one is added."""


def constants_text(constants: Indicative) -> str:
    """All constants as one line of JSON."""
    return json.dumps(asdict(constants), sort_keys=True, separators=(",", ":"))


def fingerprint(text: str) -> str:
    """What tells one set of constants from another."""
    from hashlib import sha256  # a cipher library, that only those who write wait for

    return sha256(text.encode()).hexdigest()[:12]


def stamp(practice: str = "") -> dict[str, Any]:
    """Program, constants and practice as plain data.

    Args:
        practice: key of the job's; left out where no job is asked.
    """
    told: dict[str, Any] = {"version": __version__, "constants": fingerprint(constants_text(indicative()))}
    return told | ({"practice": practice} if practice else {})


def stamp_words(practice: str = "") -> str:
    """The same in a line, for paper."""
    told = stamp(practice)
    named = practices()[practice].name if practice in practices() else practice
    line = tr("Plain Compass {version} · constants {constants}", version=told["version"], constants=told["constants"])
    return tr("{line} · practice: {named}", line=line, named=named) if named else line


def output_text(whole: dict[str, Any], practice: str = "") -> str:
    """What a command prints with ``--json``: its answer, and by what it was reckoned."""
    by = {"output": OUTPUT, **stamp(practice)}
    return json.dumps({"plain_compass": by, **whole}, indent=2, ensure_ascii=False, allow_nan=False)
