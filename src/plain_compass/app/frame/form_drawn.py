"""Forms of cut as they begin on a tree, and from where all of them are looked at."""

from __future__ import annotations

from dataclasses import replace

from ...core.assess import Assessment, assess_many
from ...core.cuts.form import CutForm
from ..drawing.round_painter import Look

LOOK = Look(38.0, 34.0)
"""A little to the side and from above: face, hinge and back are all seen."""


def drawn_on(result: Assessment, forms: list[CutForm]) -> list[Assessment | None]:
    """The plan with each of some forms as it begins on this tree; nothing where it cannot be cut there."""
    return list(assess_many([replace(result.case, cut=form.design(result.case)) for form in forms]))
