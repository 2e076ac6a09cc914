"""``--set``: one number or choice of a job taken otherwise, for this answer only."""

from __future__ import annotations

import re
from dataclasses import fields
from difflib import get_close_matches
from typing import get_type_hints

from ..core.base.errors import PlainCompassError
from ..job.document import Job, TreePlan
from ..job.edits import depth_m, set_values
from ..job.fields import choice_at, is_choice, quantity_at
from ..job.language import tr
from ..job.typed import parse


class SettingError(PlainCompassError):
    """A setting that cannot be put in; its message is a whole sentence."""


BARE = re.compile(r"[+-]?\d+(?:[.,]\d+)?")
UNITS = {"_m_s": "m/s", "_m": "m", "_N": "N", "_kg": "kg"}
"""How the name of a field ends, and the unit that a bare number is in: whoever writes the name has read it."""
SHORT = {
    "tree.lean_deg": "tree.lean.angle_deg",
    "tree.lean_bearing_deg": "tree.lean.bearing_deg",
    "tree.diameter_m": "tree.trunk.diameter_m",
    "site.wind": "site.wind_m_s",
}
"""What people write for fields that stand deeper."""


def with_settings(job: Job, tree_id: str, settings: list[str]) -> Job:
    """The job with each ``path=value`` put in. Raises InputError or TypedError naming the field."""
    changes: dict[str, object] = {}
    for setting in settings:
        path, equals, text = setting.partition("=")
        if not equals:
            raise SettingError(
                tr("--set {setting} wants a field, an equals sign and a value: cut.hinge.left_m=4cm.", setting=setting)
            )
        path = SHORT.get(path.strip(), path.strip())
        changes[path] = _value(job, tree_id, path, text.strip())
    return set_values(job, tree_id, changes)


def _value(job: Job, tree_id: str, path: str, text: str) -> object:
    try:
        if is_choice(path):
            _, options, _ = choice_at(path)
            if text not in options:
                raise SettingError(
                    tr("{path} is {text}; accepted: {names}.", path=path, text=text, names=", ".join(options))
                )
            return text
        quantity = quantity_at(path)
    except (KeyError, StopIteration, TypeError):
        raise SettingError(tr("--set {path} names {nearest}.", path=path, nearest=_nearest(path))) from None
    if BARE.fullmatch(text):
        text += next((f" {unit}" for end, unit in UNITS.items() if path.endswith(end)), "")
    return parse(text, quantity.kind, job.units, depth_m(job, tree_id), job.person.pace_m)


def _nearest(path: str) -> str:
    """What a path that names no number or choice may have meant."""
    known = [*SHORT, *_paths(TreePlan), *_paths(Job)]
    near = get_close_matches(path, known, n=3, cutoff=0.4)
    return (
        tr("no number or choice of a job; near it are {names}", names=", ".join(near))
        if near
        else tr("no number or choice of a job")
    )


def _paths(of: type, before: str = "") -> list[str]:
    """Paths of the numbers and choices below a class."""
    found, hints = [], get_type_hints(of)
    for item in fields(of):
        path, inner = f"{before}{item.name}", hints[item.name]
        if "quantity" in item.metadata or "choice" in item.metadata:
            found.append(path)
        elif isinstance(inner, type) and hasattr(inner, "__dataclass_fields__"):
            found += _paths(inner, f"{path}.")
    return found
