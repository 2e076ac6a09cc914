"""Findings from the table of cuts: whether each form suits the tree, and what a specialist one asks for."""

from __future__ import annotations

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..cuts import form_of, forms
from ..cuts.form import CutForm, Fit
from ..plan.case import Planned
from ..plan.reach import in_reach
from .findings import Finding, Limit, as_fact, stated

GROUPS = {"face": Group.FACE, "hinge": Group.HINGE, "back": Group.SPLIT}
MARKS = {"face": "face", "hinge": "hinge", "back": "kerf"}


def cut_findings(planned: Planned) -> tuple[Finding, ...]:
    """What does not suit, and what must be read first; nothing where every form fits."""
    found: list[Finding] = []
    for part, key in planned.case.cut.forms.items():
        form = form_of(part, key)
        fit = form.fits(planned)
        if fit.level != "fits":
            found.append(_unsuited(form, fit))
        if form.specialist:
            found += _specialist(form, planned)
    return tuple(found)


def _unsuited(form: CutForm, fit: Fit) -> Finding:
    refused = fit.level == "refused"
    other = forms().get((form.part, fit.instead))
    change = phrase("cut.form.change")
    if other is not None and other is not form:
        change = phrase("cut.form.instead", name=phrase(other.name))
    text = phrase("cut.form.unsuited", name=phrase(form.name), why=fit.why)
    limit = Limit(f"cut.{form.part}", GROUPS[form.part], MARKS[form.part])
    found = stated(limit, Level.STOP if refused else Level.WATCH, text, change, source="practice")
    # A form that suits less well is a choice; what a limit tells with its number is told there.
    return found if refused and not fit.told_by else as_fact(found)


def _specialist(form: CutForm, planned: Planned) -> list[Finding]:
    """A specialist form opens after its statement is read for this tree, and only where a miss costs nothing."""
    found = []
    name, group, mark = phrase(form.name), GROUPS[form.part], MARKS[form.part]
    if not was_read(planned.case.cut.read, form):
        text = phrase("cut.statement.unread", name=name)
        found.append(stated(Limit("cut.statement", group, mark), Level.STOP, text, form.needs, source="practice"))
    dear = in_reach(planned.case)
    if dear:
        text = phrase("cut.specialist.dear", name=name, dear=dear)
        found.append(
            stated(Limit("cut.specialist", group, mark), Level.STOP, text, "cut.specialist.change", source="site")
        )
    return found


def was_read(read: str, form: CutForm) -> bool:
    """Whether a specialist form's statement has been read for a tree."""
    return f"{form.part}:{form.key}" in read.split()
