"""Suggestions: the whole table of cuts tried on one tree and lay, the three best with what each gives up."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import product

from ..assess import Assessment, assess_many
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
    combinations = list(_combinations())
    whole = len(combinations) + BEST * (len(SHIFTS) - 1)
    found: list[Suggestion] = []
    for first in range(0, len(combinations), AT_ONCE):
        if tell is not None and not tell(first / whole):
            return None
        found += _tried(result, combinations[first : first + AT_ONCE])
    if tell is not None and not tell(len(combinations) / whole):
        return None
    refined = _refined(result, _unlike(sorted(found, key=_rank))[:BEST])
    good = tuple(each for each in refined if not each.stops)
    nearest = None if good else (refined[0] if refined else None)
    return Suggested(good, len(combinations) + len(refined) * (len(SHIFTS) - 1), nearest)


def _refined(result: Assessment, starts: list[Suggestion]) -> list[Suggestion]:
    """The best of each design and of those with its numbers moved, the best first."""
    starts = [_doubled(start) for start in starts]
    shifted = [_shifted(start, shift) for start in starts for shift in SHIFTS[1:]]
    assessed, found, around = assess_many(shifted), [], len(SHIFTS) - 1
    for number, start in enumerate(starts):
        here = zip(SHIFTS[1:], assessed[number * around : (number + 1) * around], strict=True)
        variants = [_moved(result, start, shift, tried) for shift, tried in here if tried is not None]
        found.append(min((start, *variants), key=_rank))
    return sorted(found, key=_rank)


def _doubled(start: Suggestion) -> Suggestion:
    """The same design with its wedges on each other, where one alone lifts too little and the kit allows it."""
    case, wedging = start.result.case, start.result.parts.wedging
    seats = tuple(replace(seat, stacked=2) for seat in case.cut.wedges[: case.kit.wedge_count // 2])
    if not (wedging.wanted and wedging.doubled_needed and seats) or case.kit.stackable == "no":
        return start
    (tried,) = assess_many([replace(case, cut=replace(case.cut, wedges=seats))])
    return min((start, _judged(start.result, start.forms, tried)), key=_rank) if tried is not None else start


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


def _tried(result: Assessment, combinations: list[tuple[str, str, str]]) -> list[Suggestion]:
    """Combinations with their numbers in the middle of the practice's ranges; without those where a form is refused."""
    designed = [(keys, case) for keys in combinations if (case := _designed(result.case, keys)) is not None]
    found = []
    for (keys, _), tried in zip(designed, assess_many([case for _, case in designed]), strict=True):
        if tried is None:
            continue
        if all(form_of(p, k).fits(tried).level != "refused" for p, k in zip(PARTS, keys, strict=True)):
            found.append(_judged(result, keys, tried))
    return found


def _designed(case: Case, keys: tuple[str, str, str]) -> Case | None:
    """One combination as its forms begin; None where one of them cannot."""
    try:
        for part, key in (("hinge", _in_order("hinge")[0].key), *zip(PARTS, keys, strict=True)):
            case = replace(case, cut=form_of(part, key).design(case))
    except InputError:
        return None
    return replace(case, cut=_wedged(case))


def _wedged(case: Case) -> Cut:
    """Seats for the wedges carried: one behind for a cut from behind, two beside a strap or away from a kept corner."""
    back = case.cut.back
    seats = BESIDE_STRAP if back.held else (WedgeSeat(0.0),)
    if back.traits.inner_edge_m:
        seats = (WedgeSeat(-40.0 if back.side == "left" else 40.0), WedgeSeat(0.0))
    return replace(case.cut, wedges=seats[: max(case.kit.wedge_count, 0)])


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


def _moved(result: Assessment, start: Suggestion, shift: tuple[float, float], tried: Assessment) -> Suggestion:
    """What a shifted design is worth; what depth alone has bought counts by half."""
    found = _judged(result, start.forms, tried)
    if shift[0] > 0 and found.margin > start.margin:
        return replace(found, margin=start.margin + DEPTH_BUYS * (found.margin - start.margin))
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
    return Suggestion(keys, tried, least_margin(tried), stops, gives_up[:BEST])
