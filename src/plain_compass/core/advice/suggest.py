"""Suggestions: the whole table of cuts tried on one tree and lay, the three best with what each gives up."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import product

from ..assess import Assessment, assess
from ..base.errors import InputError
from ..base.levels import Level
from ..base.phrase import Phrase, Row, phrase
from ..cuts import PARTS, form_of, forms_of
from ..cuts.form import CutForm
from ..design.cut import FACES, Cut, WedgeSeat
from ..judge.findings import Finding
from ..judge.unmeasured import require_measured
from ..plan.case import Case
from .rose import BESIDE_STRAP
from .survey import least, margin_left

BEST = 3
"""Suggestions shown: three can be compared at one look."""
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
        margin: least margin, less what depth alone has bought.
        stops: findings that stop it; empty for one that holds by these numbers.
        gives_up: findings that are worse than the current design's.
    """

    forms: tuple[str, str, str]
    result: Assessment
    margin: float
    stops: tuple[Finding, ...]
    gives_up: tuple[Finding, ...]

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


def suggest(result: Assessment, tell: Callable[[float], bool] | None = None) -> Suggested | None:
    """Search forms and their numbers for the best least margin.

    Args:
        tell: told the share that is done; returning False cancels, and None is returned.

    Raises UnmeasuredError for a tree that has not been measured.
    """
    require_measured(result.case.tree, "measured.best_design")
    found: list[Suggestion] = []
    combinations = list(_combinations())
    tried = 0
    for number, keys in enumerate(combinations):
        if tell is not None and not tell(number / (len(combinations) + BEST * len(SHIFTS))):
            return None
        design = _tried(result, keys)
        tried += 1
        if design is not None:
            found.append(design)
    ranked = sorted(found, key=_rank)
    refined: list[Suggestion] = []
    for number, start in enumerate(_unlike(ranked)[:BEST]):
        if tell is not None and not tell((len(combinations) + number * len(SHIFTS)) / (len(combinations) + 15)):
            return None
        variants = [each for shift in SHIFTS[1:] if (each := _shifted(result, start, shift)) is not None]
        tried += len(SHIFTS) - 1
        refined.append(min((start, *variants), key=_rank))
    refined.sort(key=_rank)
    good = tuple(each for each in refined if not each.stops)
    nearest = None if good else (refined[0] if refined else None)
    return Suggested(good, tried, nearest)


def _rank(design: Suggestion) -> tuple[int, int, float, int]:
    """Nothing that stops it, then forms that suit, then margin to a hundredth, then the fewest things to watch."""
    findings = design.result.findings
    unsuited = sum(f.id in ("cut.face", "cut.hinge", "cut.back") for f in findings)
    return len(design.stops), unsuited, -round(design.margin, 2), sum(f.level == Level.WATCH for f in findings)


def _unlike(ranked: list[Suggestion]) -> list[Suggestion]:
    """The best of each back cut: three that differ only in the face are no choice."""
    seen: set[str] = set()
    return [each for each in ranked if not (each.forms[2] in seen or seen.add(each.forms[2]))]  # type: ignore[func-returns-value]


def _combinations() -> Iterator[tuple[str, str, str]]:
    """Faces, hinges and back cuts that fit the tree as it is planned; specialist forms are never suggested."""
    faces, hinges, backs = ([f for f in _in_order(part) if not f.specialist] for part in PARTS)
    for face, hinge, back in product([f for f in faces if FACES[f.key].is_cut], hinges, backs):
        # A change of face and of hinge is not tried together: the sum of both is found by refining.
        if (hinge.usual or face.usual) and (face.usual or back.usual):
            yield face.key, hinge.key, back.key


def _in_order(part: str) -> list[CutForm]:
    return sorted(forms_of(part), key=lambda form: form.tried_after)


def _tried(result: Assessment, keys: tuple[str, str, str]) -> Suggestion | None:
    """One combination with its numbers in the middle of the practice's ranges; None where a form is refused."""
    case = result.case
    try:
        for part, key in (("hinge", _in_order("hinge")[0].key), *zip(PARTS, keys, strict=True)):
            case = replace(case, cut=form_of(part, key).design(case))
        case = replace(case, cut=_wedged(case))
        tried = assess(case)
    except InputError:
        return None
    if any(form_of(p, k).fits(tried).level == "refused" for p, k in zip(PARTS, keys, strict=True)):
        return None
    return _judged(result, keys, tried)


def _wedged(case: Case) -> Cut:
    """Seats for the wedges carried: one behind for a cut from behind, two beside a strap or away from a kept corner."""
    back = case.cut.back
    seats = BESIDE_STRAP if back.held else (WedgeSeat(0.0),)
    if back.traits.inner_edge_m:
        seats = (WedgeSeat(-40.0 if back.side == "left" else 40.0), WedgeSeat(0.0))
    return replace(case.cut, wedges=seats[: max(case.kit.wedge_count, 0)])


def _shifted(result: Assessment, start: Suggestion, shift: tuple[float, float]) -> Suggestion | None:
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
    cut = replace(case.cut, face=replace(case.cut.face, depth_m=face_m), hinge=hinge)
    try:
        tried = assess(replace(case, cut=cut))
    except InputError:
        return None
    found = _judged(result, start.forms, tried)
    if shift[0] > 0 and found.margin > start.margin:
        won = start.margin + DEPTH_BUYS * (found.margin - start.margin)
        found = replace(found, margin=won)
    return found


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
    return Suggestion(keys, tried, margin_left(least(tried)), stops, gives_up[:BEST])
