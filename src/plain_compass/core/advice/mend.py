"""For every trouble a way out: the smallest change of each thing a person can change that makes a limit clear.

All changes are tried at once by the states of their limits over the spreads of the plan as it is; those that look as if
they did it are then judged whole, their own chances, their fall and its fan included, before any of them is told.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import cached_property

import numpy as np

from ..assess import Assessment, assess, fits, with_chances, with_fall
from ..base.errors import ReckoningError
from ..base.frozen import dataclass
from ..base.levels import LEVELS, FindingKind, Level
from ..base.phrase import Phrase
from ..base.polygon import Array
from ..fall.fan import fan_of
from ..fall.nominal import nominal_fall
from ..judge.chances import CLEAR_BETA, HELD_BETA, SPREAD, Chances, Spreads, chances_of, states_of
from ..judge.findings import Finding
from ..judge.limits import IDS
from ..plan.case import Case
from ..plan.many import many_of
from .levers import Change, changes, suits

MOST = 3
"""Mends told of one limit: three can be weighed against each other."""
AT_ONCE = 24
"""Changes reckoned in one go, between two looks at whether anybody has had enough of it."""
SLACK = 1.05
"""So much surer than clear, as the spreads of before have it, a change must look before it is judged whole."""
LESS = 0.1
"""An index lower by less than this is no worse."""
MOVED = 0.05
"""A margin that moves by more than this is told among what else moves."""
LEVERS_OF: dict[str, tuple[str, ...]] = {
    # A rope pulls nothing out of a neighbour's crown and lifts nothing over a hump: only a miss is made good by it.
    "landing.miss": ("rope", "jack", "lay"),
    "landing.break": ("lay", "height"),
    "landing.": ("lay",),
    "fall.drift": ("aim", "taper", "lay"),
    "fall.targets": ("aim", "taper", "lay"),
    "fall.hangs": ("lay",),
    "fall.start": ("thinner", "taper", "opening", "rope", "lay"),
    "fall.": (),
    "way_out.": ("lay",),
    "rope.hauler": (),
    "rope.": ("rope", "lay"),
    "around.": (),
    "fork.": (),
    "defect.": (),
    "decay.sounding": (),
    "bar.flare": ("trim", "height", "back", "hinge"),
    "wedge.in_strap": ("seats", "wedges", "back"),
    "wedge.spacing": ("seats", "wedges"),
    "who.": (),
}
"""How the ids begin of what only some changes touch, and which: of anything else every change is tried."""


@dataclass(frozen=True, slots=True, eq=False)
class Mend:
    """One way out of one trouble.

    Attributes:
        change: what is changed.
        result: the plan with it, judged whole.
        moves: findings that stand otherwise then, as they stand then.
    """

    change: Change
    result: Assessment
    moves: tuple[Finding, ...]

    @property
    def words(self) -> Phrase:
        """What is done."""
        return self.change.words


@dataclass(frozen=True, slots=True, eq=False)
class Mends:
    """What can be done about one limit.

    Attributes:
        id: of the finding.
        mends: up to three ways out, the simplest first.
        would: what would do it that is not at hand; told where nothing at hand does.
    """

    id: str
    mends: tuple[Mend, ...]
    would: tuple[Change, ...]


def to_mend(result: Assessment) -> tuple[Finding, ...]:
    """The findings that a change of the plan may put right: limits that are not clear."""
    return tuple(f for f in result.findings if f.level in (Level.WATCH, Level.STOP) and levers_of(f.id) != ())


def levers_of(id: str) -> tuple[str, ...] | None:
    """Levers that touch what a finding is about: none where it was seen, and nothing of the plan changes it."""
    return next((levers for head, levers in LEVERS_OF.items() if id.startswith(head)), None)


def mends_for(
    result: Assessment,
    spreads: Spreads,
    chances: Chances,
    ids: Sequence[str],
    tell: Callable[[float], bool] | None = None,
) -> dict[str, Mends] | None:
    """Look for ways out of some troubles of a plan.

    Args:
        ids: of the findings, as ``to_mend`` has them.
        tell: told the share that is done; returning False cancels, and None is returned.
    """
    for each in mends_in_steps(result, spreads, chances, ids):
        if isinstance(each, dict):
            return each
        if tell is not None and not tell(each):
            return None
    return None


def mends_in_steps(
    result: Assessment, spreads: Spreads, chances: Chances, ids: Sequence[str]
) -> Iterator[float | dict[str, Mends]]:
    """``mends_for`` a few milliseconds at a time: shares that are done until the last, which is the answer."""
    tried: list[Change] = []
    for change in changes(result):
        if fits(change.case):
            tried.append(change)
        if len(tried) % 8 == 0:
            yield 0.2 * len(tried) / 80
    looked = _Looked()
    for first in range(0, len(tried), AT_ONCE):
        yield 0.2 + 0.3 * first / len(tried)
        looked.add([each.case for each in tried[first : first + AT_ONCE]], chances)
    whole, answers = _Whole(result, spreads, chances), {}
    for number, id in enumerate(ids):
        for _ in (steps := _Finder(id, tried, looked, whole)).run():
            yield 0.5 + 0.5 * number / len(ids)
        answers[id] = steps.answer
    yield answers


class _Looked:
    """What changes look like at a first glance: indices over the spreads of before, shares used up."""

    def __init__(self) -> None:
        self.betas: dict[str, list[float]] = {id: [] for id in SPREAD}
        self.shares: list[list[float]] = []

    def add(self, cases: Sequence[Case], before: Chances) -> None:
        """Look at some more."""
        found, use = _looked_at(cases, before)
        for id in SPREAD:
            self.betas[id] += found[id]
        self.shares += use.T.tolist()

    def promises(self, id: str, at: int, before: Chances) -> bool:
        """Whether a change looks as if it made a limit clear and left the others standing, or as they stood.

        No other limit may come nearer by it than one that fails as often as a stop begins.
        """
        if id in IDS:
            share = self.shares[at][IDS.index(id)]
            if share > 1.0 or (id in self.betas and self.betas[id][at] < CLEAR_BETA * SLACK):
                return False
        for other, indices in self.betas.items():
            was = before.beta(other) if other in before.ways else HELD_BETA
            if other != id and indices[at] < min(HELD_BETA, was) - LESS:
                return False
        return True


def _looked_at(cases: Sequence[Case], before: Chances) -> tuple[dict[str, list[float]], Array]:
    """(index of every limit over the spreads of before, shares used up) of some cases."""
    states, use = states_of(many_of(cases))
    betas: dict[str, list[float]] = {}
    for (id, way), state in states.items():
        index = state / max(before.like(id, way).spread, 1e-9)
        betas[id] = np.minimum(betas[id], index).tolist() if id in betas else index.tolist()
    return betas, use


class _Whole:
    """Judges a change whole, each once."""

    def __init__(self, result: Assessment, spreads: Spreads, chances: Chances) -> None:
        self.before, self.spreads, self.chances = result, spreads, chances
        self._known: dict[int, Assessment] = {}
        self._plain: dict[int, Assessment] = {}

    def __call__(self, change: Change) -> Assessment:
        if id(change) not in self._known:
            chances = chances_of(change.case, self.spreads)
            self._known[id(change)] = with_chances(self.plain(change), chances)
        return self._known[id(change)]

    def does_it(self, change: Change, wanted: str) -> bool:
        """Whether a change makes the finding clear and nothing else a stop that was none, nor a form refused."""
        plain = self.plain(change)
        # Chances and falls take longest, and are asked only where nothing else speaks against it.
        if suits(plain) is not None or not self._stands(plain, wanted if wanted not in SPREAD else ""):
            return False
        return self._stands(self(change), wanted) and self._falls_well(change, wanted)

    def _falls_well(self, change: Change, wanted: str) -> bool:
        """Whether the tree falls with it as it should; turned to another lay it hits nothing it did not hit before."""
        if "aim_deg" not in self.spreads.cutting:
            return not wanted.startswith("fall.")
        after = self.with_fall(self(change))
        if after is None or not self._stands(after, wanted):
            return False
        if not change.lever.startswith("lay"):
            return True
        was = {f.id: LEVELS.index(f.level) for f in self._before_falling.findings if f.kind == FindingKind.LIMIT}
        return all(
            LEVELS.index(f.level) <= was.get(f.id, 0)
            for f in after.findings
            if f.id in SPARED and f.kind == FindingKind.LIMIT
        )

    def with_fall(self, result: Assessment) -> Assessment | None:
        """A plan with its fall and fan judged; none where its fall cannot be worked out."""
        try:
            fall = nominal_fall(result)
            fan = fan_of(result, self.spreads.found, self.spreads.cutting, LIKELY_FALLS, 1)
        except ReckoningError:
            return None
        return with_fall(result, fall, fan)

    @cached_property
    def _before_falling(self) -> Assessment:
        return self.with_fall(self.before) or self.before

    def plain(self, change: Change) -> Assessment:
        """The plan with a change, its chances not asked."""
        if id(change) not in self._plain:
            self._plain[id(change)] = assess(change.case)
        return self._plain[id(change)]

    def _stands(self, after: Assessment, wanted: str) -> bool:
        falls = any(f.id.startswith("fall.") for f in after.findings)
        was = {f.id: f.level for f in (self._before_falling if falls else self.before).findings}
        for finding in after.findings:
            if finding.id == wanted and finding.kind == FindingKind.LIMIT and finding.level != Level.CLEAR:
                return False
            if finding.level == Level.STOP and was.get(finding.id) != Level.STOP:
                return False
        return True


class _Finder:
    """Looks for the ways out of one trouble."""

    def __init__(self, id: str, tried: Sequence[Change], looked: _Looked, whole: _Whole) -> None:
        self.id, self.tried, self.looked, self.whole = id, tried, looked, whole
        self.mends: list[Mend] = []
        self.would: list[Change] = []

    @property
    def answer(self) -> Mends:
        """What was found."""
        return Mends(self.id, tuple(self.mends), () if self.mends else tuple(self.would[:1]))

    def run(self) -> Iterator[None]:
        """Look, change by change, the simplest first; stops between two that take long."""
        levers, judged = levers_of(self.id), dict[str, int]()
        for change, at in sorted(zip(self.tried, range(len(self.tried)), strict=True), key=lambda each: each[0].cost):
            if len(self.mends) >= MOST:
                return
            known = any(mend.change.lever == change.lever for mend in self.mends)
            lever = change.lever.partition(":")[0]
            is_open = lever not in ASKED_ONLY if levers is None else lever in levers
            if known or not is_open or judged.get(change.lever, 0) >= TRIES:
                continue
            if not self.looked.promises(self.id, at, self.whole.chances):
                continue
            if not change.within:
                self.would.append(change)
                continue
            judged[change.lever] = judged.get(change.lever, 0) + 1
            yield
            if self.whole.does_it(change, self.id):
                after = self.whole(change)
                self.mends.append(Mend(change, after, _moves(self.whole.before, after, self.id)))


ASKED_ONLY = ("aim", "trim")
"""Levers that are tried only for what names them."""
LIKELY_FALLS = 512
"""Falls by which a change is judged: a power of two, as the sequence wants it."""
SPARED = ("landing.targets", "fall.targets", "fall.hangs", "landing.hang_up", "landing.miss")
"""What a turned lay may not make worse by one level: what is to be spared is not a price for something else."""
TRIES = 3
"""Steps of one lever that are judged whole before it is given up."""


def _moves(before: Assessment, after: Assessment, id: str) -> tuple[Finding, ...]:
    """What stands otherwise after a mend, beside what it mends."""
    was = {f.id: f for f in before.findings}
    found = []
    for now in after.findings:
        old = was.get(now.id)
        if now.id == id or now.kind != FindingKind.LIMIT:
            continue
        if old is None or old.level != now.level:
            if now.level != Level.CLEAR or old is not None:
                found.append(now)
        elif old.margin is not None and now.margin is not None and abs(old.margin - now.margin) > MOVED:
            found.append(now)
    return tuple(sorted(found, key=lambda f: -LEVELS.index(f.level))[:MOST])
