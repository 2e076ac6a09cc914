"""Checks on the user's own machine: closed forms, symmetries, the demo's numbers as they were at the release."""

from __future__ import annotations

import json
import math
from collections.abc import Callable, Iterator

from ..core.assess import Assessment, assess, assess_many
from ..core.base.frozen import dataclass
from ..core.design.cut import BackCut, Cut, Face, Hinge, WedgeSeat
from ..core.fall.nominal import falls_beside_deg, nominal_fall
from ..core.mechanics.hinge import hinge_outline
from ..core.plan.case import Case
from ..core.practice.scoring import brier
from ..core.site.site import Site
from ..core.stump.shares import coalitions, shapley
from ..core.tree.body import AboveCut
from ..core.tree.stem import stem_body
from ..core.tree.tree import Crown, CrownReading, Decay, Lean, Tree, Trunk
from .demo import demo_job
from .document import case_of
from .language import tr
from .tables import DATA, DEFAULT_PRACTICE, indicative, practice_of, species_table, wood_of

CLOSED, SAME = 5e-4, 1e-6
"""Relative: against closed forms of shapes drawn with 360 corners; against what the same code said elsewhere."""
GOLDEN = DATA / "self_check.json"
"""Numbers of the demo's trees as they were at the release."""


@dataclass(frozen=True, slots=True)
class Check:
    """One number held against what it should be.

    Attributes:
        name: of it, in words; within how near it has to be, relative to what it should be, or to 1 where that is 0.
    """

    name: str
    found: float
    wanted: float
    within: float

    @property
    def is_good(self) -> bool:
        """Whether it is."""
        return abs(self.found - self.wanted) <= self.within * max(abs(self.wanted), 1e-3)


def _case(lean: Lean = Lean(), lay_deg: float = 0.0) -> Case:  # noqa: B008 - frozen
    """A round oak of 40 cm, 15 m tall, under an even crown, with a textbook cut."""
    edges = tuple(CrownReading(bearing, 3.0) for bearing in (0.0, 90.0, 180.0, 270.0))
    tree = Tree(
        species="oak",
        height_m=15.0,
        trunk=Trunk(diameter_m=0.40, butt_diameter_m=0.40, butt_at_m=0.3, bark_m=0.0),
        crown=Crown(base_m=5.0, readings=edges),
        lean=lean,
        decay=Decay(kind="none"),
        crack="none",
    )
    face, hinge, back = Face("open", 0.08, 50.0, 20.0), Hinge(0.04, 0.04), BackCut("plain", 0.03, 0.05)
    cut = Cut(lay_deg=lay_deg, height_m=0.3, face=face, hinge=hinge, back=back, wedges=(WedgeSeat(0.0),))
    site = Site(wind_m_s=0.0, looked="yes")
    kit = demo_job().kit
    return Case(tree, wood_of("oak"), site, cut, kit, practice_of(DEFAULT_PRACTICE), indicative())


def _section(result: Assessment) -> Iterator[Check]:
    moments = result.parts.section.sound_moments
    yield Check(tr("area of a round stem: pi d^2/4"), moments.area_m2, math.pi * 0.4**2 / 4, CLOSED)
    yield Check(tr("its second moment: pi d^4/64"), moments.second_fall_m4, math.pi * 0.4**4 / 64, CLOSED)
    across = hinge_outline(result.parts.section, result.parts.face, result.case.cut)[:, 1]
    chord = 2 * math.sqrt(0.2**2 - (0.2 - 0.08 - 0.04) ** 2)
    yield Check(tr("length of the [hinge] at its back: a chord"), float(across.max() - across.min()), chord, 2e-3)
    corner = next(mark for mark in result.tape_marks if mark.key == "face_corner")
    yield Check(
        tr("tape to the corner of the notch: R acos(a/R)"), corner.left_m or 0.0, 0.2 * math.acos(0.12 / 0.2), 2e-3
    )


def _stem() -> Iterator[Check]:
    trunk = Trunk(diameter_m=0.45)
    cone = stem_body(trunk, Lean(), AboveCut(0.0, 20.0, 0.0), exponent=1.0, density_kg_m3=1000.0)
    base = 0.45 * 20.0 / (20.0 - 1.3)
    yield Check(tr("mass of a cone: rho pi d^2 h/12"), cone.mass_kg, 1000.0 * math.pi * base**2 * 20.0 / 12, SAME)
    yield Check(tr("its centre a quarter up"), cone.up_m, 5.0, SAME)


def _symmetries() -> Iterator[Check]:
    left, right = (assess(_case(Lean(4.0, bearing))) for bearing in (300.0, 60.0))
    yield Check(tr("a mirrored lean is mirrored"), left.parts.mass.com_left_m, -right.parts.mass.com_left_m, SAME)
    turned = assess(_case(Lean(4.0, 300.0 - 73.0), 360.0 - 73.0))
    uses = [each.parts.use.side_utilisation for each in (turned, left)]
    yield Check(tr("turned with its lay it is the same tree"), uses[0], uses[1], 1e-3)
    many = assess_many([_case(Lean(angle, 300.0)) for angle in (1.0, 4.0, 7.0)])[1]
    assert many is not None
    yield Check(tr("many at once are each by itself"), many.parts.use.side_utilisation, uses[1], 1e-9)
    off = falls_beside_deg(left)[0]
    yield Check(tr("where it lies is where its course ends"), off, nominal_fall(left).bearing_error_deg, 1e-9)


def _laws() -> Iterator[Check]:
    players = ("a", "b", "c")
    worth = {group: sum({"a": 1.0, "b": 2.0, "c": -0.5}[each] for each in group) ** 2 for group in coalitions(players)}
    whole = worth[frozenset(players)] - worth[frozenset()]
    yield Check(tr("shares of a miss add up to it"), sum(shapley(players, worth).values()), whole, SAME)
    expected = [0.7 * brier(p / 100, True) + 0.3 * brier(p / 100, False) for p in range(101)]
    yield Check(tr("who believes 70 and says so expects most"), expected.index(max(expected)) / 100, 0.7, SAME)
    bare = sum(not wood.source for wood in species_table().values())
    yield Check(tr("species without a source"), float(bare), 0.0, SAME)


def demo_numbers() -> dict[str, float]:
    """What is said of the demo's trees, by tree and name."""
    job, found = demo_job(), dict[str, float]()
    for plan in job.trees:
        parts = assess(case_of(job, plan.id)).parts
        found |= {
            f"{plan.id} mass": parts.mass.mass_kg,
            f"{plan.id} centre up": parts.mass.com_up_m,
            f"{plan.id} side use": parts.use.side_utilisation,
            f"{plan.id} splitting": parts.splitting.split_index,
        }
    return found


def _golden() -> Iterator[Check]:
    kept: dict[str, float] = json.loads(GOLDEN.read_text(encoding="utf-8"))
    for name, found in demo_numbers().items():
        yield Check(tr("as released: {name}", name=name), found, kept.get(name, math.nan), 1e-5)


PARTS: tuple[Callable[[], Iterator[Check]], ...] = (
    lambda: _section(assess(_case())),
    _stem,
    _symmetries,
    _laws,
    _golden,
)


def checks() -> Iterator[Check]:
    """All of them, one after another."""
    for part in PARTS:
        yield from part()
