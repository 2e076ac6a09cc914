"""Plain back cut, stepped or level: from behind to the hinge, with wedges set on the way."""

from __future__ import annotations

from ..base.phrase import phrase
from ..design.traits import BackTraits
from ..plan.case import Planned
from .form import Bands, CutForm, CutStep, Fit
from .shapes import GOOD, hinge_bands, rear_moved, with_back

ASIDE = "Aside of the stem on the better side, never straight behind it."
CRACK = "The stem cracks or the [hinge] moves: leave at once."


def _fits(result: Planned) -> Fit:
    parts = result.parts
    if parts.splitting.split_index_plain > 1.0:
        return Fit("refused", "Cut from behind it would split up the stem before the [hinge] is thin enough.", "bored")
    if parts.wedging.wanted and not parts.wedging.first_fits:
        if parts.wedging.kerf_at_sit_back_m is not None:
            return Fit("refused", "The tree would sit back on the bar before a wedge can be set.", "quarter")
        return Fit("poor", "No wedge fits behind so short a kerf; it wants a hand, a lever or a rope.", "quarter")
    if parts.splitting.split_index_plain > 0.5:
        return Fit("poor", "The splitting check is not clear when cut from behind.", "bored")
    return GOOD


def wedge_share(result: Planned) -> float:
    """Share of the back cut after which a wedge fits behind the bar."""
    kit, parts = result.case.kit, result.parts
    needs = kit.wedge_seat_m + kit.bar_width_m
    kerf = parts.hinge_back_m - parts.section.back_m
    return min(max(needs / max(kerf, 1e-6), 0.05), 0.9)


def steps(result: Planned, before: Bands) -> tuple[CutStep, ...]:
    """In to where a wedge fits, set it; on to the hinge; drive and wait in turn."""
    part, cut, wedging = wedge_share(result), result.case.cut, result.parts.wedging
    step = (cut.back.step_m, "length")

    def opened(share: float) -> Bands:
        return rear_moved(before, result, share * part) if share * part < 1 else hinge_bands(result)

    def closed(share: float) -> Bands:
        whole = part + share * (1 - part)
        return hinge_bands(result) if share >= 1 else rear_moved(before, result, whole)

    depth = ((result.parts.hinge_back_m - result.parts.section.back_m) * part, "length")
    found = [
        CutStep(
            "open",
            "Open",
            phrase(
                "[Back cut] {step} above the apex, in to {depth}: as deep as a wedge and the bar want.",
                step=step,
                depth=depth,
            ),
            ASIDE,
            "The kerf: does it shut on the bar? The top: does it move?",
            "The kerf shuts: do not force it, drive the wedge or leave the saw.",
            opened,
            cut.back.step_m,
            opens_back=True,
            wedge_after=True,
        ),
        CutStep(
            "hinge",
            "To the [hinge]",
            phrase(
                "Set the wedge snug, then cut on and stop at the [hinge]: {left} left, {right} right.",
                left=(cut.hinge.left_m, "length"),
                right=(cut.hinge.right_m, "length"),
            ),
            ASIDE,
            "Check the [hinge] from behind, both ends; look up.",
            CRACK,
            closed,
            cut.back.step_m,
            opens_back=not cut.wedges,
            wedge_after=True,
            releases=not wedging.wanted,
        ),
    ]
    return (*found, *driving(result))


def driving(result: Planned) -> tuple[CutStep, ...]:
    """Wedges driven in three rounds, with a pause for the top and a look at the hinge between them."""
    wedging = result.parts.wedging
    if not wedging.wanted or not wedging.seats or wedging.blows > 1e4 or wedging.blows < 0.5:
        return ()
    finished = hinge_bands(result)
    pause = wedging.pause_s or 0.0
    text = (
        "Drive the wedges in turn, about {blows} blows in three rounds, {advance} at the hardest; "
        "wait {pause} after each and look up."
    )
    return (
        CutStep(
            "drive",
            "Drive",
            phrase(
                text,
                blows=(wedging.blows, "count"),
                advance=(min(wedging.advance_per_blow_m, 0.2), "fine_length"),
                pause=(pause, "time"),
            ),
            "Beside the wedges, the way out at your back.",
            "The top answers late; the kerf opens; the [hinge] from behind, again.",
            "A wedge no longer moves at a blow: it is not going, use a rope.",
            lambda _: finished,
            releases=True,
        ),
    )


FORM = CutForm(
    "plain",
    "back",
    "plain [back cut]",
    "Little lean, either way; stepped, or level behind an open [face].",
    _fits,
    with_back("plain"),
    steps,
    "Cut through the [hinge] at one end: the tree turns towards the other.",
    traits=BackTraits("plain, from behind", from_behind=True),
    usual=True,
)
