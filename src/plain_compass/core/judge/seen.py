"""Findings from what was seen and sounded on the stem: second stems, soundings, defects, buttresses."""

from __future__ import annotations

from ..base.phrase import listed, phrase
from ..design.flare import flares_to_trim
from ..plan.case import Case, Parts
from ..tree.cracks import NEAR_CUT_M
from ..tree.soundness import DEFECTS, Defect, beside_cut
from .findings import Finding, stated


def seen_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """Everything that was seen on this stem and bears on this cut."""
    return (*_fork(case), *_soundings(case), *_defects(case), *_flare(case, parts))


def _fork(case: Case) -> list[Finding]:
    """A second stem: its union, and whether it comes down with the first."""
    fork, cut_m = case.tree.fork, case.cut.height_m
    if fork.kind == "none":
        return []
    at = (fork.height_m, "span")
    if fork.height_m <= cut_m:
        text = (
            "The stems part at {at}, below the cut: each is felled by itself, and the other still leans on its union."
        )
        change = "Fell the outer, leaning stem first; never stand between the two."
        return [stated("fork.below", "split", "watch", phrase(text, at=at), change, mark="crown")]
    level, text = {
        "unknown": ("unknown", "The union of the two stems at {at} has not been looked at."),
        "wide": ("clear", "The stems part at {at} in a wide union."),
        "tight": (
            "watch",
            "The stems part at {at} in a tight union with bark between: it may split as the tree moves.",
        ),
        "cracked": ("stop", "The union at {at} is cracked: the stems may part while the tree stands."),
    }[fork.union]
    change = "Look into the union from both sides; bind a tight one or fell with a machine; leave a cracked one."
    return [stated("fork.union", "split", level, phrase(text, at=at), change, mark="crown")]


def _soundings(case: Case) -> list[Finding]:
    """What the hammer said, held against the rot that is drawn."""
    decay = case.tree.decay
    if not decay.soundings:
        return []
    by_sound = {s: [each for each in decay.soundings if each.sound == s] for s in ("hollow", "dull", "unknown")}
    drawn = decay.kind in ("cavity", "shell")
    for sound, level in (("hollow", "watch" if drawn else "stop"), ("dull", "watch"), ("unknown", "unknown")):
        if by_sound[sound]:
            at = (by_sound[sound][0].bearing_deg, "bearing")
            count = len(by_sound[sound])
            more = f" and on {count - 1} more" if count > 1 else ""
            said = "has not been sounded" if sound == "unknown" else f"sounds {sound}"
            tail = "" if drawn or sound == "unknown" else ", but no rot is drawn there"
            sentence = phrase(f"The butt {said} at {{at}}{more}{tail}.", at=at)
            return [
                stated("decay.sounding", "decay", level, sentence, "Probe there and draw what is found.", mark="rot")
            ]
    sentence = phrase(f"The butt rings sound on all {len(decay.soundings)} sides that were struck.")
    return [stated("decay.sounding", "decay", "clear", sentence, "Probe where the ring changes.", mark="rot")]


DEFECT_TEXTS = {
    "bracket": (
        "A fungal bracket at {at}, on the side towards {side}: rot reaches at least that high.",
        "Probe at the cut and below the bracket.",
    ),
    "crack": (
        "A crack or seam runs past the cut on the side towards {side}.",
        "Another cut height clear of it; bored, never from behind.",
    ),
    "wound": ("An old wound beside the cut, towards {side}: the wood behind it may be rotten.", "Probe behind it."),
    "stain": (
        "Stain beside the cut, towards {side}: it may come from rot or from metal.",
        "Probe; look for old fittings.",
    ),
    "metal": ("Metal is suspected beside the cut, towards {side}.", "Another cut height, or search it out first."),
}


def _defects(case: Case) -> list[Finding]:
    """Each defect that concerns the cut; a bracket concerns it wherever it is above."""
    found = []
    cut_m = case.cut.height_m
    for kind in DEFECTS:
        near = [d for d in case.tree.defects if d.kind == kind and _concerns(d, cut_m)]
        if near:
            text, change = DEFECT_TEXTS[kind]
            sentence = phrase(text, at=(near[0].height_m, "span"), side=(near[0].bearing_deg, "bearing"))
            found.append(stated(f"defect.{kind}", "decay", _defect_level(near[0], case), sentence, change, mark="rot"))
    return found


def _concerns(defect: Defect, cut_m: float) -> bool:
    return beside_cut(defect, cut_m, NEAR_CUT_M) or (defect.kind == "bracket" and defect.height_m > cut_m)


def _defect_level(defect: Defect, case: Case) -> str:
    """A bracket above rot that is drawn as ended lower says that the drawing is wrong."""
    top = case.tree.decay.top_m
    ends_below = top is not None and top < defect.height_m
    no_rot = case.tree.decay.kind in ("none", "unknown")
    return "stop" if defect.kind == "bracket" and (ends_below or no_rot) else "watch"


def _flare(case: Case, parts: Parts) -> list[Finding]:
    """Which buttresses to trim so that the bar crosses."""
    across, reach = parts.section.width_m, case.kit.bar_m
    standing = [lobe for lobe in case.tree.lobes if lobe.state == "standing"]
    if not standing or across <= reach:
        return []
    picked = flares_to_trim(case.tree, case.cut, parts.section, reach)
    if picked is None:
        text = "With every buttress trimmed the stem is still wider than the bar ({bar})."
        sentence = phrase(text, bar=(reach, "length"))
        return [stated("bar.flare", "bar", "watch", sentence, "A higher cut, a longer bar, or two sides.", mark="kerf")]
    names = listed([f"{{b{i}}}" for i in range(len(picked))])
    values = {f"b{i}": (lobe.bearing_deg, "bearing") for i, lobe in enumerate(picked)}
    plural = "buttresses" if len(picked) > 1 else "buttress"
    sentence = phrase(
        f"Trim the {plural} towards {names}: then the bar ({{bar}}) crosses.", bar=(reach, "length"), **values
    )
    return [stated("bar.flare", "bar", "watch", sentence, "Or a longer bar, a higher cut, or two sides.", mark="kerf")]
