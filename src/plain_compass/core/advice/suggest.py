"""Suggestions: the whole table of cuts tried on one tree and lay, the three best with what each gives up."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from itertools import product
from typing import NamedTuple

from ..assess import Assessment, assess_many, with_chances
from ..base.errors import InputError
from ..base.frozen import dataclass
from ..base.levels import FindingKind, Level
from ..base.phrase import Phrase, Row, phrase
from ..cuts import PARTS, form_of, forms_of
from ..cuts.form import CutForm
from ..design.cut import FACES, Cut
from ..judge.chances import Spreads, chances_of
from ..judge.findings import Finding
from ..judge.unmeasured import require_measured
from ..plan.case import Case
from .begin import begun, wedged
from .survey import least_margin

BEST = 3
"""Suggestions shown: three can be compared at one look."""
AT_ONCE = 12
"""Designs assessed in one go, between two looks at whether anybody has had enough of it."""
SHIFTS = ((0.0, 0.0), (-0.8, 0.0), (0.8, 0.0), (0.0, -0.8), (0.0, 0.8))
"""Depth and thickness, in half widths of the practice's ranges from their middles, that are tried round the best."""
DEPTH_BUYS = 0.5
"""Share of a margin won by depth alone that counts: depth acts hard on the splitting index and gives up the hinge."""


@dataclass(frozen=True, slots=True, eq=False)
class Suggestion:
    """One design.

    Attributes:
        forms: (face, hinge, back) keys.
        result: its assessment.
        margin: least margin over the limits that the choice can change, less what depth alone has bought.
        stops: findings that stop it; empty for one that holds by these numbers.
        gives_up: findings that are worse than the current design's.
        watched: what is to watch that the choice can change.
        is_own: whether it is the one the practice itself begins with.
    """

    forms: tuple[str, str, str]
    result: Assessment
    margin: float
    stops: tuple[Finding, ...]
    gives_up: tuple[Finding, ...]
    watched: tuple[Finding, ...] = ()
    is_own: bool = False

    @property
    def words(self) -> Phrase:
        """It in a few words."""
        return phrase(
            "cut.forms", names=Row(tuple(phrase(form_of(*each).name) for each in zip(PARTS, self.forms, strict=True)))
        )

    @property
    def cut(self) -> Cut:
        """The cut it proposes."""
        return self.result.case.cut


@dataclass(frozen=True, slots=True)
class Suggested:
    """The answer.

    Attributes:
        best: up to three, of unlike forms, the best first; only designs that nothing stops.
        tried: how many designs were assessed.
        nearest: the best of those that something stops, when none is good enough.
    """

    best: tuple[Suggestion, ...]
    tried: int
    nearest: Suggestion | None


def suggest(
    result: Assessment, tell: Callable[[float], bool] | None = None, spreads: Spreads | None = None
) -> Suggested | None:
    """Search forms and their numbers: the simplest design that is clear, then margin over what the choice can change.

    Args:
        tell: told the share that is done; returning False cancels, and None is returned.
        spreads: how well everything is known; without them limits are judged by the shares they use up.

    Raises UnmeasuredError for a tree that has not been measured.
    """
    require_measured(result.case.tree, "measured.best_design")
    search = _Search(result, spreads)
    combinations = list(_combinations())
    whole = len(combinations) + BEST * (len(SHIFTS) - 1)
    found = search.own()
    for first in range(0, len(combinations), AT_ONCE):
        if tell is not None and not tell(first / whole):
            return None
        found += search.tried(combinations[first : first + AT_ONCE])
    if tell is not None and not tell(len(combinations) / whole):
        return None
    search.alike = _alike(found)
    found = [_over(each, search.alike) for each in found]
    refined = search.refined(_unlike(sorted(found, key=_rank))[:BEST])
    good = tuple(each for each in refined if not each.stops)
    nearest = None if good else (refined[0] if refined else None)
    return Suggested(good, len(combinations) + len(refined) * (len(SHIFTS) - 1), nearest)


class _Search:
    """Designs for one tree, judged over the spreads of the plan as it is; those that are told are judged whole."""

    def __init__(self, result: Assessment, spreads: Spreads | None) -> None:
        self.result, self.spreads = result, spreads
        self.before = chances_of(result.case, spreads) if spreads is not None else None
        self.alike = _Alike(frozenset(), frozenset())

    def own(self) -> list[Suggestion]:
        """The practice's own design, where it has one."""
        case = self.result.case
        try:
            cut = begun(case)
        except InputError:
            return []
        keys = (cut.face.form, cut.hinge.form, cut.back.form)
        (judged,) = self._assessed([replace(case, cut=cut)])
        return [] if judged is None else [replace(_judged(self.result, keys, judged), is_own=True)]

    def tried(self, combinations: list[tuple[str, str, str]]) -> list[Suggestion]:
        """Combinations with their numbers as the practice begins them; without those where a form is refused."""
        designed = [(keys, case) for keys in combinations if (case := _designed(self.result.case, keys)) is not None]
        found = []
        for (keys, _), tried in zip(designed, self._assessed([case for _, case in designed]), strict=True):
            if tried is None:
                continue
            if all(form_of(p, k).fits(tried).level != "refused" for p, k in zip(PARTS, keys, strict=True)):
                found.append(_judged(self.result, keys, tried))
        return found

    def refined(self, starts: list[Suggestion]) -> list[Suggestion]:
        """The best of each design and of those with its numbers moved, judged whole, the best first."""
        shifted = [_shifted(start, shift) for start in starts for shift in SHIFTS[1:]]
        assessed, found, around = self._assessed(shifted), [], len(SHIFTS) - 1
        for number, start in enumerate(starts):
            here = zip(SHIFTS[1:], assessed[number * around : (number + 1) * around], strict=True)
            variants = [self._moved(start, shift, tried) for shift, tried in here if tried is not None]
            found.append(self._whole(min((start, *variants), key=_rank)))
        return sorted(found, key=_rank)

    def _like(self, start: Suggestion, tried: Assessment) -> Suggestion:
        """A design of the same forms, over what this choice can change."""
        return _over(_judged(self.result, start.forms, tried), self.alike)

    def _moved(self, start: Suggestion, shift: tuple[float, float], tried: Assessment) -> Suggestion:
        """What a shifted design is worth; what depth alone has bought counts by half."""
        found = self._like(start, tried)
        if shift[0] > 0 and found.margin > start.margin:
            return replace(found, margin=start.margin + DEPTH_BUYS * (found.margin - start.margin))
        return found

    def _assessed(self, cases: list[Case]) -> tuple[Assessment | None, ...]:
        return assess_many(cases, self.before)

    def _whole(self, design: Suggestion) -> Suggestion:
        """A design judged by chances of its own."""
        if self.spreads is None:
            return design
        judged = with_chances(design.result, chances_of(design.result.case, self.spreads))
        found = self._like(design, judged)
        return replace(found, margin=design.margin, is_own=design.is_own)


class _Alike(NamedTuple):
    """What all designs have alike, and so says nothing of the choice between them.

    Attributes:
        margins: ids of findings whose margins do not differ.
        watched: ids of findings that are to watch in every one.
    """

    margins: frozenset[str]
    watched: frozenset[str]


def _alike(found: list[Suggestion]) -> _Alike:
    margins: dict[str, list[float]] = {}
    for each in found:
        for finding in _margined(each.result):
            margins.setdefault(finding.id, []).append(finding.margin or 0.0)
    same = {id for id, all_of in margins.items() if len(all_of) == len(found) and max(all_of) - min(all_of) < ALIKE}
    watched = [{f.id for f in each.result.findings if f.level == Level.WATCH} for each in found]
    return _Alike(frozenset(same), frozenset(set.intersection(*watched) if watched else ()))


def _over(design: Suggestion, alike: _Alike) -> Suggestion:
    """A design with its margin and what is to watch over what this choice can change."""
    own = [f.margin or 0.0 for f in _margined(design.result) if f.id not in alike.margins]
    watched = tuple(
        f
        for f in design.result.findings
        if f.level == Level.WATCH and f.kind == FindingKind.LIMIT and f.id not in alike.watched
    )
    return replace(design, margin=min(own, default=design.margin), watched=watched)


ALIKE = 0.01
"""Margins of one limit that differ by less over all designs are not changed by the choice."""


def _margined(result: Assessment) -> list[Finding]:
    return [f for f in result.findings if f.margin is not None and f.source == "physics"]


def _rank(design: Suggestion) -> tuple[float, ...]:
    """Nothing that stops it, then what is clear and simplest, the practice's own first, then margin to a hundredth."""
    trouble = sum(form_of(*each).trouble for each in zip(PARTS, design.forms, strict=True))
    fails = sum(f.chance or 0.0 for f in design.watched)
    is_clear = not design.watched
    return (
        len(design.stops),
        not is_clear,
        not (is_clear and design.is_own),
        trouble if is_clear else round(fails, 1),
        -round(design.margin, 2),
        trouble,
        len(design.watched),
    )


def _unlike(ranked: list[Suggestion]) -> list[Suggestion]:
    """The best of each back cut and hinge: three that differ only in the face are no choice."""
    seen: set[tuple[str, str]] = set()
    return [each for each in ranked if not (each.forms[1:] in seen or seen.add(each.forms[1:]))]  # type: ignore[func-returns-value]


def _combinations() -> Iterator[tuple[str, str, str]]:
    """Faces, hinges and back cuts that fit the tree as it is planned; specialist forms are never suggested."""
    faces, hinges, backs = ([f for f in _in_order(part) if not f.specialist] for part in PARTS)
    for face, hinge, back in product([f for f in faces if FACES[f.key].is_cut], hinges, backs):
        # A change of face and of hinge is not tried together: the sum of both is found by refining.
        if (hinge.usual or face.usual) and (face.usual or back.usual):
            yield face.key, hinge.key, back.key


def _in_order(part: str) -> list[CutForm]:
    return sorted(forms_of(part), key=lambda form: form.trouble)


def _designed(case: Case, keys: tuple[str, str, str]) -> Case | None:
    """One combination as its forms begin; None where one of them cannot."""
    try:
        for part, key in (("hinge", _in_order("hinge")[0].key), *zip(PARTS, keys, strict=True)):
            case = replace(case, cut=form_of(part, key).design(case))
    except InputError:
        return None
    return replace(case, cut=wedged(case))


def _shifted(start: Suggestion, shift: tuple[float, float]) -> Case:
    """The same design with depth and thickness moved within the practice's ranges."""
    case = start.result.case
    practice, depth = case.practice, start.result.parts.section.depth_m
    low, high = practice.face_depth_ratio
    face_m = case.cut.face.depth_m + shift[0] * (high - low) / 2 * depth
    thin, thick = practice.hinge_ratio
    by = shift[1] * (thick - thin) / 2 * depth
    least_m = practice.hinge_least_m
    hinge = replace(
        case.cut.hinge,
        left_m=max(case.cut.hinge.left_m + by, least_m),
        right_m=max(case.cut.hinge.right_m + by, least_m),
    )
    return replace(case, cut=replace(case.cut, face=replace(case.cut.face, depth_m=face_m), hinge=hinge))


def _judged(result: Assessment, keys: tuple[str, str, str], tried: Assessment) -> Suggestion:
    stops = tuple(f for f in tried.findings if f.level == Level.STOP)
    before = {f.id: f for f in result.findings}
    gives_up = tuple(
        f
        for f in tried.findings
        if f.margin is not None
        and (old := before.get(f.id)) is not None
        and old.margin is not None
        and f.margin < old.margin - 0.05
    )
    return Suggestion(keys, tried, least_margin(tried), stops, gives_up[:BEST])
