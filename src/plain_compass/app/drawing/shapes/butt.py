"""The section at the cut as it was sounded, probed and taped, (forward, left) in metres from the pith."""

from __future__ import annotations

from ....core.assess import Assessment
from ....core.base.frozen import dataclass
from ....core.base.polygon import Array
from ....core.mechanics.hinge import hinge_outline
from ....core.tree.rot import reach_m


@dataclass(frozen=True, slots=True, eq=False)
class ButtShapes:
    """Distances from the pith to where the signs of the survey stand, in the order of the tree's own lists.

    Attributes:
        hinge: the strip the hinge would stand in, shape (n, 2).
        probe_edges_m: to the wood's edge at each probe; lobe_edges_m: to the round stem's bark under each buttress.
        sound_edges_m, defect_edges_m: to the bark at each sounding and each defect.
    """

    hinge: Array
    probe_edges_m: tuple[float, ...]
    lobe_edges_m: tuple[float, ...]
    sound_edges_m: tuple[float, ...]
    defect_edges_m: tuple[float, ...]


def butt_shapes(result: Assessment) -> ButtShapes:
    """Make them."""
    section, tree, lay = result.parts.section, result.case.tree, result.case.cut.gun_deg
    return ButtShapes(
        hinge=hinge_outline(section, result.parts.face, result.case.cut),
        probe_edges_m=tuple(reach_m(section.wood, probe.bearing_deg, lay) for probe in tree.decay.shell),
        lobe_edges_m=tuple(reach_m(section.round_bark, lobe.bearing_deg, lay) for lobe in tree.lobes),
        sound_edges_m=tuple(reach_m(section.bark, each.bearing_deg, lay) for each in tree.decay.soundings),
        defect_edges_m=tuple(reach_m(section.bark, each.bearing_deg, lay) for each in tree.defects),
    )
