"""The table of cuts: one file a form, found by part and name in one registry."""

from __future__ import annotations

from types import ModuleType

from ..design.cut import register
from . import (
    axe_back,
    blocked_face,
    bored_back,
    conventional_face,
    corner_back,
    even_hinge,
    flare_face,
    heart_hinge,
    lengthened_hinge,
    narrow_face,
    no_face,
    open_face,
    plain_back,
    posts_back,
    quarter_back,
    relieved_hinge,
    reverse_face,
    sides_back,
    slot_back,
    tapered_hinge,
    toothed_back,
    vees_back,
)
from .form import CutForm, Fit

__all__ = ["NEVER_PLANNED", "PARTS", "CutForm", "Fit", "form_of", "forms", "forms_of"]

NEVER_PLANNED = "cut.never_planned"
"""Explained as a hazard wherever the table is shown."""
PARTS = ("face", "hinge", "back")
"""The parts of a cut, in the order in which they are made."""
MODULES = [each for _, each in sorted(globals().items()) if isinstance(each, ModuleType) and hasattr(each, "FORM")]
"""Every form's file that is imported above: a new one is that one line more."""
_FORMS: dict[tuple[str, str], CutForm] = {}


def add_form(form: CutForm) -> None:
    """Put a form into the table."""
    register(form.key, form.traits)
    _FORMS[form.part, form.key] = form


for _module in MODULES:
    add_form(_module.FORM)


def forms() -> dict[tuple[str, str], CutForm]:
    """Every form by (part, key)."""
    return _FORMS


def form_of(part: str, key: str) -> CutForm:
    """A form by its part and key; KeyError when there is none."""
    return _FORMS[part, key]


def usual_face() -> CutForm:
    """The face that is taken where one is wanted and none was chosen."""
    return _FORMS["face", "open"]


def forms_of(part: str) -> tuple[CutForm, ...]:
    """The forms of one part."""
    return tuple(form for form in _FORMS.values() if form.part == part)
