"""The table of cuts: one file a form, found by name in one registry."""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from .form import CutForm, Fit

__all__ = ["CutForm", "Fit", "form_of", "forms", "forms_of"]

PARTS = ("face", "hinge", "back")
"""The parts of a cut, in the order in which they are made."""


@cache
def forms() -> dict[tuple[str, str], CutForm]:
    """Every form by (part, key): each module here that has a ``FORM``."""
    found = [getattr(import_module(f"{__name__}.{item.name}"), "FORM", None) for item in iter_modules(__path__)]
    return {(form.part, form.key): form for form in found if isinstance(form, CutForm)}


def form_of(part: str, key: str) -> CutForm:
    """A form by its part and key; KeyError when there is none."""
    return forms()[part, key]


def forms_of(part: str) -> tuple[CutForm, ...]:
    """The forms of one part."""
    return tuple(form for form in forms().values() if form.part == part)
