"""Where one stands in the cut: the states, the depth looked at, and what a mistake would do. No widgets."""

from __future__ import annotations

from ....core.advice.faults import FAULTS, Played, play
from ....core.assess import Assessment
from ....core.base.levels import Level
from ....core.base.polygon import Array
from ....core.base.quantity import Kind
from ....core.cuts.form import Bands
from ....core.cuts.stages import (
    TRAPS_FROM,
    Stage,
    States,
    Sweep,
    followed_by,
    kept_outlines,
    stages_of,
    states_at,
    sweep_of,
)
from ....core.judge.bar import bar_plan_of
from ....core.judge.findings import level_of
from ....core.mechanics.bar import BarPlan
from ....job.language import tr
from ....job.words import Speech

MOST_TOLD = 9.99
"""A use beyond this is no number any more: it says that nothing holds."""


def level_at(stage: Stage) -> Level:
    """The worst that is true of a state; a hinge that folds is what the last one is for."""
    if stage.sits_back or not stage.bar_free:
        return Level.STOP
    released = stage.step is not None and stage.step.releases
    uses = [stage.side_utilisation, stage.split_index]
    if stage.goes and not released:
        uses.append(1.01)
    return level_of(max(uses))


class Walk:
    """The cut of one assessed plan, walked through."""

    def __init__(self, result: Assessment, speech: Speech | None = None) -> None:
        self.speech = speech or Speech()
        self.fault = ""
        self.made_at = 0
        self.progress = 0.0
        self.played: Played | None = None
        self.planned = result
        self._take()

    def _take(self) -> None:
        """The states as planned, and from the one at which a mistake is made as it leaves them."""
        self._compute()
        section = self.planned.parts.section
        self.outlines = tuple(kept_outlines(section, stage.kept) for stage in self.stages)

    def _compute(self) -> None:
        self.stages: tuple[Stage, ...] = stages_of(self.planned)
        self.sweep: Sweep = sweep_of(self.planned)
        self._before = self._after = (self.planned, bar_plan_of(self.planned))
        wrong = self.played.result if self.played is not None else None
        if wrong is None:
            return
        self._after = (wrong, bar_plan_of(wrong))
        self.stages = (*self.stages[: self.made_at], *stages_of(wrong)[self.made_at :])
        self.sweep = followed_by(self.sweep, sweep_of(wrong), self.made_at - 1)

    @property
    def _here(self) -> tuple[Assessment, BarPlan]:
        """The plan at the depth that is looked at, as it was made or with the mistake in it, and the bar's passes."""
        return self._after if self.number >= self.made_at else self._before

    @property
    def result(self) -> Assessment:
        """The plan at the depth that is looked at."""
        return self._here[0]

    @property
    def passes(self) -> BarPlan:
        """The bar's passes there."""
        return self._here[1]

    def follow(self, result: Assessment) -> None:
        """Another plan; the place in it stays where it was, as far as it goes."""
        if result.case is self.planned.case:
            # Only what is judged beside it, such as its fall, has come: the states are what they were.
            return
        self.planned = result
        self._play()

    def set_fault(self, key: str) -> None:
        """Make a mistake at the state one is at, or take it out again with an empty key.

        One that cannot be made there is made at the first state where it can, and one is taken to it.
        """
        self.fault = key
        if key:
            self.made_at = self._where(next(f for f in FAULTS if f.key == key).part)
            if self.number < self.made_at:
                self.go_to(self.made_at)
        self._play()

    def _where(self, part: str) -> int:
        parts = [stage.part for stage in self.stages]
        if parts[self.number] == part:
            return self.number
        return parts.index(part) if part in parts else 1

    def _play(self) -> None:
        self.played = None
        if self.fault:
            self.played = play(self.planned, next(f for f in FAULTS if f.key == self.fault))
        self._take()

    # Where one is --------------------------------------------------------------------------------------

    @property
    def number(self) -> int:
        """The state that is reached, 0 the uncut tree; in the middle of a step the one it leads to."""
        return next(
            (i for i, end in enumerate((0.0, *self.sweep.ends)) if self.progress <= end + 1e-6), len(self.stages) - 1
        )

    def go_to(self, number: int) -> None:
        """To a standing state."""
        self.progress = (0.0, *self.sweep.ends)[number]

    @property
    def stage(self) -> Stage:
        """The state that is reached, or worked towards."""
        return self.stages[self.number]

    @property
    def part(self) -> str:
        """Which part of the cut is being made."""
        return self.stage.part

    @property
    def kept(self) -> Bands:
        """The wood that holds at the depth that is looked at."""
        if self.stage.step is None:
            return self.stage.kept
        start = (0.0, *self.sweep.ends)[self.number - 1]
        return self.stage.step.kept((self.progress - start) / (self.sweep.ends[self.number - 1] - start))

    @property
    def holds(self) -> tuple[Array, ...]:
        """Outlines of that wood."""
        return kept_outlines(self.result.parts.section, self.kept)

    @property
    def states(self) -> States:
        """Its margins."""
        return states_at(self.result, [self.kept])

    @property
    def wedges_in(self) -> bool:
        """Whether a wedge has been set by now."""
        return any(stage.wedge_fits for stage in self.stages[: self.number]) or (
            self.stage.wedge_fits and self.progress >= self.sweep.ends[max(self.number - 1, 0)] - 1e-6
        )

    def title(self, number: int) -> str:
        """Name of a state."""
        step = self.stages[number].step
        return tr("Uncut") if step is None else self.speech.tell(step.title)

    # What it means -------------------------------------------------------------------------------------

    def numbers(self, speech: Speech) -> list[tuple[str, str, Level]]:
        """(name, value, level) of every margin at the depth that is looked at."""
        states, stage = self.states, self.stage
        standing, side, split = (
            float(each[0]) for each in (states.standing, states.side_utilisation, states.split_index)
        )
        backwards = bool(states.backwards[0]) and not self.wedges_in
        held = tr("it stands") if standing < 1 else tr("it sits back") if backwards else tr("it goes")
        more = "+" if standing > MOST_TOLD else ""
        opens = stage.step is not None and stage.step.opens_back and not self.wedges_in
        shut = float(states.kerf_shut[0]) if opens else 0.0
        trapped = shut >= TRAPS_FROM
        return [
            (
                tr("wood that holds"),
                tr("{uncut_area_m2:.0f} cm²", uncut_area_m2=float(states.uncut_area_m2[0]) * 10000.0),
                Level.CLEAR,
            ),
            (
                tr("on what holds"),
                f"{speech.show(min(standing, MOST_TOLD), Kind.RATIO)}{more}: {held}",
                Level.STOP if standing >= 1 and backwards else Level.CLEAR,
            ),
            (tr("side weight"), speech.show(side, Kind.RATIO), level_of(side)),
            (tr("splitting ~"), tr("{split:.2f} of 1", split=split), level_of(split, 0.5)),
            (tr("bar"), tr("held by the kerf") if trapped else tr("free"), Level.STOP if trapped else Level.CLEAR),
            (tr("kerf for a wedge"), speech.show(stage.seat_m, Kind.LENGTH), Level.CLEAR),
        ]
