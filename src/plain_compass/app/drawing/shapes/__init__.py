"""What the drawings of one assessment show, in metres and without Qt: made once, when first asked for, then kept.

Painters turn it into pixels and compute nothing: every drawing of one snapshot shows the same geometry.
"""

from __future__ import annotations

from functools import cached_property

from ....core.assess import Assessment
from ....core.base.frozen import dataclass
from .butt import ButtShapes, butt_shapes
from .crown import CrownShapes, crown_shapes
from .fallen import FallenShapes, fallen_shapes
from .site import SiteShapes, site_shapes
from .solid import Solid, solid_of
from .standing import ACROSS, ALONG, Facing, TreeShapes
from .stump import StumpShapes, stump_shapes

__all__ = [
    "ACROSS",
    "ALONG",
    "ButtShapes",
    "CrownShapes",
    "Facing",
    "FallenShapes",
    "Shapes",
    "SiteShapes",
    "StumpShapes",
    "TreeShapes",
]


@dataclass(frozen=True, eq=False)
class Shapes:
    """The geometry of every drawing of one assessed plan."""

    result: Assessment

    @cached_property
    def stump(self) -> StumpShapes:
        """Stump and cut from above, as finely as they are reckoned."""
        return stump_shapes(self.result, every=1)

    @cached_property
    def stump_coarse(self) -> StumpShapes:
        """The same with half of the outline's points: for drawings too small to show more."""
        return stump_shapes(self.result, every=2)

    @cached_property
    def solid(self) -> Solid:
        """Stump and cut in the round, as planned: before what is held is let go, the wedges in."""
        stump = self.stump_coarse
        strap = () if stump.strap is None else (stump.strap,)
        return solid_of(self.result, (*stump.hinge, *strap, *stump.held), face_cut=True, wedged=True)

    @cached_property
    def butt(self) -> ButtShapes:
        """The section at the cut as it was sounded and probed."""
        return butt_shapes(self.result)

    @cached_property
    def crown(self) -> CrownShapes:
        """The crown from above, the lay up the page."""
        return crown_shapes(self.result)

    @cached_property
    def _facings(self) -> dict[Facing, TreeShapes]:
        return {facing: TreeShapes(self.result, facing) for facing in (ALONG, ACROSS)}

    def tree(self, facing: Facing) -> TreeShapes:
        """The whole standing tree from one side."""
        return self._facings[facing]

    @cached_property
    def site(self) -> SiteShapes:
        """What the plan means on the ground."""
        return site_shapes(self.result)

    @cached_property
    def fallen(self) -> FallenShapes:
        """The tree as it falls and lies, and the neighbours it may touch, from the side."""
        return fallen_shapes(self.result)
