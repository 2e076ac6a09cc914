"""The job's trees as the map has them."""

from __future__ import annotations

from ....core.tree.crown import mean_radius_m
from ....job.block import Block, Ordered
from ....job.document import Job
from ...drawing.block.map_painter import Drawn


def drawn_trees(job: Job, block: Block | None, found: Ordered | None) -> list[Drawn]:
    """Each with the lay and the number the order gives it, or its own lay and none."""
    place: dict[str, tuple[int, int]] = {}
    if block is not None and found is not None:
        place = {block.trees[at].id: (number, at) for number, at in enumerate(found.plan.order, 1)}
    drawn = []
    for plan in job.trees:
        number, lay_deg, is_stop = 0, plan.cut.lay_deg, False
        if plan.id in place and block is not None and found is not None:
            number, at = place[plan.id]
            lay = block.trees[at].lays[found.plan.lays[at]]
            lay_deg, is_stop = lay.lay_deg, lay.is_stop
        drawn.append(
            Drawn(
                id=plan.id,
                east_m=plan.at.east_m,
                north_m=plan.at.north_m,
                crown_m=mean_radius_m(plan.tree.crown),
                length_m=plan.tree.height_m - plan.cut.height_m,
                lay_deg=lay_deg,
                number=number,
                state=plan.state,
                is_stop=is_stop,
            )
        )
    return drawn
