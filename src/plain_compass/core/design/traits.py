"""What a form of cut is like, for those who work a cut out without knowing its name.

Each form's own file in ``cuts`` says what is true of it. Hinge, splitting, marks and drawings ask *what is kept behind*
or *does the roof slope*, and a new form changes none of them.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, Protocol, TypeAlias, TypeVar

from ..base.frozen import dataclass
from ..tree.section import Section

H = TypeVar("H")
B = TypeVar("B")
"""The numbers of a hinge, and of a back cut, as a form of it is given them."""
Span: TypeAlias = tuple[float, float]
"""(low, high) across the lay, left positive."""
Line: TypeAlias = tuple[float, float]
"""(forward_m at left = 0, slope): a straight line across the stem."""
KeptPiece: TypeAlias = tuple[float, float, float]
"""(low, high, front edge along the lay): wood that is kept behind, from the back up to that edge."""


class Notch(Protocol):
    """What a form may ask of the face."""

    @property
    def hinge_front_m(self) -> float:
        """The line the hinge begins at, ahead of the pith."""
        ...

    @property
    def end_left_m(self) -> float:
        """Left end of that line on the wood."""
        ...

    @property
    def end_right_m(self) -> float:
        """Right end of it."""
        ...


class Standing(Protocol):
    """What a form may ask of the hinge as it is."""

    @property
    def spans(self) -> tuple[Span, ...]:
        """Its pieces across the lay."""
        ...

    @property
    def forward_m(self) -> float:
        """Its centroid along the lay."""
        ...


class Marker(Protocol):
    """Puts marks on the bark, as distances from the lay mark."""

    def line(self, key: str, forward_m: float, side: str = "") -> None:
        """Where a line across the lay comes out, on both sides or on one."""

    def in_front(self, key: str, half_m: float) -> None:
        """Either side of the lay mark."""

    def behind(self, key: str, half_m: float) -> None:
        """Either side of straight behind."""


@dataclass(frozen=True, slots=True)
class FaceTraits:
    """One form of face.

    Attributes:
        label: how it is offered.
        slopes: which of the two cuts slope, and so have an angle: ``roof``, ``floor``.
        is_cut: whether there is a face at all.
        blocked_out: whether a block is taken out at the apex, which opens it further.
        holds_long: whether it is open enough for a level back cut behind a bore.
        butt_slides: whether the butt leaves the stump first.
    """

    label: str
    slopes: tuple[str, ...] = ("roof",)
    is_cut: bool = True
    blocked_out: bool = False
    holds_long: bool = False
    butt_slides: bool = False


@dataclass(frozen=True, slots=True)
class HingeTraits(Generic[H]):
    """One form of hinge; each function gets the hinge's own numbers.

    Attributes:
        label: how it is offered.
        gap_m: width bored out of its middle from the face.
        shortened: its stretch across the lay with one end taken away, from what it would be.
        lengthened_m: what is added to the bending fibres.
        marks: marks of its own on the bark.
    """

    label: str
    gap_m: Callable[[H], float] | None = None
    shortened: Callable[[H, Span, Notch], Span] | None = None
    lengthened_m: Callable[[H], float] | None = None
    marks: Callable[[Marker, Section, H], None] | None = None


@dataclass(frozen=True, slots=True)
class BackTraits(Generic[B]):
    """One form of back cut.

    Attributes:
        label: how it is offered.
        held: whether wood is left behind that holds the tree until it is let go on purpose.
        strapped: whether that is a strap right across the back.
        kept_straps: how many strap widths forward what is kept at the back reaches.
        keeps_back: whether what is kept stands at the back of the kerf, where no wedge can be driven.
        inner_edge_m: where what is kept in a corner begins, across the lay; none where it goes right across.
        kept: pieces that are kept behind; a strap right across where nothing is said.
        bored: whether the bar is bored in at the hinge, from where a bore out of line would nick it.
        from_behind: whether the kerf is open behind from the start, so that a tree sitting back shuts it on the bar.
        wedge_first: whether a wedge stands before the hinge is finished.
        wedge_beside_bar: whether the first wedge shares its kerf with the bar.
        by_bar: whether it is sawn with a bar at all.
        without_face: whether it goes with a stem that has no face.
        holds_butt: whether the butt stays held on the stump.
        thick_hinge: whether its hinge is twice as thick as usual, either side bearing what one would.
        gap_m: width of a slot through the middle, which parts the hinge.
        front: (front line, pieces) of a hinge that does not follow the face's own line.
        marks: marks of its own on the bark; it is also told where the hinge's back is.
    """

    label: str
    held: bool = False
    strapped: bool = False
    kept_straps: int = 1
    keeps_back: bool = False
    inner_edge_m: Callable[[Section, B], float] | None = None
    kept: Callable[[Section, Notch, B, Standing], tuple[KeptPiece, ...]] | None = None
    bored: bool = False
    from_behind: bool = False
    wedge_first: bool = False
    wedge_beside_bar: bool = True
    by_bar: bool = True
    without_face: bool = False
    holds_butt: bool = False
    thick_hinge: bool = False
    gap_m: Callable[[B], float] | None = None
    front: Callable[[Section, Notch, B], tuple[Line, tuple[Span, ...]]] | None = None
    marks: Callable[[Marker, Section, Notch, B, float], None] | None = None
