"""From a dotted path in the document to the declaration of what stands there."""

from __future__ import annotations

from dataclasses import Field, fields
from functools import cache
from typing import Any, get_args, get_origin, get_type_hints

from ..core.base.quantity import Quantity
from .document import Job, TreePlan
from .language import tr

OF_A_TREE = ("tree", "cut", "notes", "id", "readings", "at", "rope", "state", "as_cut")
"""How paths within a tree's plan begin."""


@cache
def _field(root: type, path: str) -> Field[Any]:
    cls: Any = root
    item: Field[Any] | None = None
    for name in path.split("."):
        if name.isdigit():
            continue
        item = next(f for f in fields(cls) if f.name == name)
        hint = get_type_hints(cls)[name]
        cls = get_args(hint)[0] if get_origin(hint) is tuple else hint
    assert item is not None
    return item


def root_of(path: str) -> type:
    """Paths that begin with ``tree`` or ``cut`` live in a tree's plan, all others in the job."""
    return TreePlan if path.split(".")[0] in OF_A_TREE else Job


def quantity_at(path: str) -> Quantity:
    """The declaration of the number at a path; KeyError when it is not a number."""
    found: Quantity = _field(root_of(path), path).metadata["quantity"]
    return found


def is_number(path: str) -> bool:
    """Whether a number stands at a path."""
    return "quantity" in _field(root_of(path), path).metadata


def is_choice(path: str) -> bool:
    """Whether a choice among words stands at a path."""
    return "choice" in _field(root_of(path), path).metadata


def label_of(path: str) -> str:
    """The label of whatever stands at a path, in the language spoken, with vocabulary words in square brackets."""
    meta = _field(root_of(path), path).metadata
    return tr(meta["quantity"].label if "quantity" in meta else meta.get("label", ""))


def choice_at(path: str) -> tuple[str, dict[str, str], str]:
    """(label, options, help) of the choice at a path."""
    meta = _field(root_of(path), path).metadata
    return meta.get("label", ""), meta["choice"], meta.get("help", "")
