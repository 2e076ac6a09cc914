"""The rope findings: does it pull enough, does every part hold it, is it long enough, where does the hauler stand?"""

from __future__ import annotations

import math

from ..base.phrase import phrase
from ..mechanics.wedge import moment_wanted_Nm
from ..plan.case import Case, Parts
from ..site.rigging import Rigging
from .findings import Finding, against, stated, used

STRAIGHT_IN_DEG = 45.0
"""A hauler within this of the lay, and in reach of the top, stands where the tree comes down."""


def rope_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """Nothing where no rope is set."""
    rope, rigging = case.rope, parts.rigging
    if rope.use != "set":
        return ()
    if rigging is None:
        text = "The rope leads straight down the stem: it pulls nothing over."
        return (
            stated("rope.pull", "balance", "stop", phrase(text), "Move the anchor away from the stump.", mark="rope"),
        )
    return (_pull(case, parts, rigging), _weakest(rigging), _long_enough(case, rigging), _hauler(case, rigging))


def _pull(case: Case, parts: Parts, rigging: Rigging) -> Finding:
    wanted = moment_wanted_Nm(parts.mass, parts.balance, parts.strength, parts.loads.forward_Nm, case.constants)
    wanted += max(rigging.moment_forward_Nm - parts.loads.forward_Nm, 0.0)
    gives = rigging.moment_forward_Nm
    use = wanted / gives if gives > 0 else (math.inf if wanted > 0 else 0.0)
    needs = rigging.pull_N * use if use < math.inf else 0.0
    text = (
        "The rope pulls {pull} at the tree ({haul} hauled, advantage {real}); alone it wants {needs} to bring it over. "
        "Set at half that height it would take {low}."
    )
    if gives <= 0:
        text = "The rope pulls {pull} at the tree, but away from the lay."
    return against(
        "rope.pull",
        "balance",
        use,
        (needs, rigging.pull_N, "force"),
        phrase(
            text,
            pull=(rigging.pull_N, "force"),
            haul=(case.rope.haul_N, "force"),
            real=(rigging.advantage, "number"),
            needs=(needs, "force"),
            low=(rigging.low_pull_N * min(use, 99.0), "force"),
        ),
        phrase("Set it higher, anchor it farther off and nearer the lay, more legs, or wedges with it."),
        watch_from=0.9,
        mark="rope",
    )


def _weakest(rigging: Rigging) -> Finding:
    part = {"rope": "the rope at its end", "anchor": "the gear at the anchor", "redirect": "the redirect"}
    sentence = phrase(
        f"Of all parts {part[rigging.weakest]} is nearest to its working limit, at {{use}} of it.",
        use=(rigging.weakest_use, "ratio"),
    )
    change = phrase("Less haul, stronger gear, a splice instead of a knot, or a wider angle at the redirect.")
    return used("rope.weakest", "balance", rigging.weakest_use, sentence, change, mark="rope")


def _long_enough(case: Case, rigging: Rigging) -> Finding:
    have = case.rope.length_m
    return against(
        "rope.length",
        "balance",
        rigging.length_needed_m / have,
        (rigging.length_needed_m, have, "span"),
        phrase(
            "All legs and ends take {needs} of rope; {have} is carried.",
            needs=(rigging.length_needed_m, "span"),
            have=(have, "span"),
        ),
        phrase("A longer rope, a nearer anchor, or a sling to lengthen it."),
        watch_from=0.95,
        mark="rope",
    )


def _hauler(case: Case, rigging: Rigging) -> Finding:
    reach = case.tree.height_m - case.cut.height_m
    away = (rigging.hauler_m, "span")
    change = "A redirect, so that the hauler stands aside and beyond the reach of the top."
    inside = rigging.hauler_m <= 1.2 * reach
    if inside and rigging.hauler_off_lay_deg <= STRAIGHT_IN_DEG:
        text = "The hauler stands {away} from the stump, where the tree comes down."
        return stated("rope.hauler", "way_out", "stop", phrase(text, away=away), change, mark="rope")
    if rigging.hauler_m <= case.site.kept_away_lengths * case.tree.height_m:
        text = "The hauler stands {away} from the stump, inside the kept-away zone; agree on signs and a way out."
        return stated("rope.hauler", "way_out", "watch", phrase(text, away=away), change, mark="rope")
    text = "The hauler stands {away} from the stump, outside the kept-away zone."
    return stated("rope.hauler", "way_out", "clear", phrase(text, away=away), change, mark="rope")
