"""What a row of the table of cuts is made of: when it fits, what it begins as, and how it takes the wood away.

Wood that still holds is a few *bands*: between a rear and a front line, both straight, over a stretch across the lay.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import field
from typing import NamedTuple, TypeAlias

from ..base.frozen import dataclass
from ..base.phrase import Phrase
from ..design.cut import BackCut, Cut, Hinge
from ..design.traits import BackTraits, FaceTraits, HingeTraits
from ..plan.case import Case, Planned


class Band(NamedTuple):
    """Wood between two straight lines over a stretch across the lay.

    Attributes:
        from_m, to_m: the stretch, left positive.
        rear_m, rear_slope: the rear line stands at ``rear_m + rear_slope * left``.
        front_m, front_slope: the front line likewise.
    """

    from_m: float
    to_m: float
    rear_m: float
    rear_slope: float
    front_m: float
    front_slope: float


Bands: TypeAlias = tuple[Band, ...]
Traits: TypeAlias = FaceTraits | HingeTraits[Hinge] | BackTraits[BackCut]
Kept: TypeAlias = Callable[[float], Bands]
"""The wood that still holds after a share of a step, 0 to 1."""
FAR_m = 5.0
"""Beyond any stump: where a band has no edge of its own."""


@dataclass(frozen=True, slots=True)
class Fit:
    """Whether a form suits a tree.

    Attributes:
        level: ``fits``, ``poor`` or ``refused``.
        why: what is said of it.
        instead: key of the form to take instead; empty where it fits.
        told_by: id of the limit that says the same of the plan with a number; empty where only the form says it.
    """

    level: str
    why: Phrase
    instead: str = ""
    told_by: str = ""


@dataclass(frozen=True, slots=True)
class CutStep:
    """One step of a cut, between two standing states.

    Attributes:
        key: stable name within the form.
        title: two or three words, by their key like all that follow.
        do: what is done.
        stand: where to stand for it.
        look: what to look at.
        stop_if: what ends the work.
        kept: the wood that still holds after a share of this step, 0 to 1.
        level_m: height of this cut over the apex.
        opens_back: whether it opens a kerf that a tree sitting back would shut on the bar.
        wedge_after: whether a wedge can be set once it is done.
        releases: whether the tree is free to go after it.
    """

    key: str
    title: str
    do: Phrase
    stand: str | Phrase
    look: str
    stop_if: str
    kept: Kept
    level_m: float = 0.0
    opens_back: bool = False
    wedge_after: bool = False
    releases: bool = False


@dataclass(frozen=True, slots=True)
class CutForm:
    """One row of the table.

    Attributes:
        key: what ``cut.face.form``, ``cut.back.form`` or ``cut.hinge.form`` says.
        part: ``face``, ``back`` or ``hinge``.
        fits: judges it for a tree as it is planned.
        design: the case's cut begun in this form by practice and tree; the rest of it stays.
        steps: how it takes the wood away, given what held before it.
        specialist: whether it opens only after its statement is read.
        traits: what it is like, for those who do not know it by name.
        fields: paths of the numbers that only it has, in the order in which they are typed.
        labels: what a number is called where this form gives it another meaning.
        usual: whether it is one of those that anything else goes with.
        on_card: what the card tells to do, where that is said otherwise than step by step.
        trouble: how much more it asks of a faller than the plain form of its part; suggestions take the least first.
    """

    key: str
    part: str
    fits: Callable[[Planned], Fit]
    design: Callable[[Case], Cut]
    steps: Callable[[Planned, Bands], tuple[CutStep, ...]]
    traits: Traits
    specialist: bool = False
    fields: tuple[str, ...] = ()
    labels: Mapping[str, str] = field(default_factory=dict)
    usual: bool = False
    on_card: Callable[[Planned], tuple[Phrase, ...]] | None = None
    trouble: int = 0

    @property
    def name(self) -> str:
        """Key of what it is called."""
        return f"cut.{self.part}.{self.key}.name"

    @property
    def purpose(self) -> str:
        """Key of what it is for."""
        return f"cut.{self.part}.{self.key}.purpose"

    @property
    def drill(self) -> str:
        """Key of the usual mistake, and how to see it."""
        return f"cut.{self.part}.{self.key}.drill"

    @property
    def needs(self) -> str:
        """Key of the plain statement of a specialist cut."""
        return f"cut.{self.part}.{self.key}.needs"
