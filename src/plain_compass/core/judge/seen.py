"""Findings from what was seen and sounded on the stem: second stems, soundings, defects, buttresses."""

from __future__ import annotations

from ..base.levels import Group, Level
from ..base.phrase import phrase
from ..design.flare import flares_to_trim
from ..plan.case import Case, Parts
from ..tree.cracks import NEAR_CUT_M
from ..tree.soundness import DEFECTS, Defect, beside_cut
from .findings import Finding, Limit, stated


def seen_findings(case: Case, parts: Parts) -> tuple[Finding, ...]:
    """Everything that was seen on this stem and bears on this cut."""
    return (*_fork(case), *_soundings(case), *_defects(case), *_flare(case, parts))


def _fork(case: Case) -> list[Finding]:
    """A second stem: its union, and whether it comes down with the first."""
    fork, cut_m = case.tree.fork, case.cut.height_m
    if fork.kind == "none":
        return []
    at = fork.height_m
    if fork.height_m <= cut_m:
        text = "fork.union.stems_part_below"
        change = "fork.below.change"
        return [stated(Limit("fork.below", Group.SPLIT, "crown"), Level.WATCH, phrase(text, at=at), change)]
    level, text = {
        "unknown": (Level.UNKNOWN, "fork.union.union_stems_been"),
        "wide": (Level.CLEAR, "fork.union.stems_part_wide"),
        "tight": (Level.WATCH, "fork.union.stems_part_tight"),
        "cracked": (Level.STOP, "fork.union.union_cracked_stems"),
    }[fork.union]
    change = "fork.union.change"
    return [stated(Limit("fork.union", Group.SPLIT, "crown"), level, phrase(text, at=at), change)]


def _soundings(case: Case) -> list[Finding]:
    """What the hammer said, held against the rot that is drawn."""
    decay = case.tree.decay
    if not decay.soundings:
        return []
    by_sound = {s: [each for each in decay.soundings if each.sound == s] for s in ("hollow", "dull", "unknown")}
    drawn = decay.kind in ("cavity", "shell")
    for sound, level in (
        ("hollow", Level.WATCH if drawn else Level.STOP),
        ("dull", Level.WATCH),
        ("unknown", Level.UNKNOWN),
    ):
        if by_sound[sound]:
            at = by_sound[sound][0].bearing_deg
            count = len(by_sound[sound])
            sentence = phrase(
                "decay.sounding.several" if count > 1 else "decay.sounding.one",
                found=phrase(f"decay.sounding.{sound}"),
                at=at,
                more=count - 1,
                tail="" if drawn or sound == "unknown" else phrase("decay.sounding.not_drawn"),
            )
            return [stated(Limit("decay.sounding", Group.DECAY, "rot"), level, sentence, "decay.sounding.probe")]
    sentence = phrase("decay.sounding.sound", count=len(decay.soundings))
    return [stated(Limit("decay.sounding", Group.DECAY, "rot"), Level.CLEAR, sentence, "decay.sounding.change")]


def _defects(case: Case) -> list[Finding]:
    """Each defect that concerns the cut; a bracket concerns it wherever it is above."""
    found = []
    cut_m = case.cut.height_m
    for kind in DEFECTS:
        near = [d for d in case.tree.defects if d.kind == kind and _concerns(d, cut_m)]
        if near:
            sentence = phrase(f"defect.{kind}.seen", at=near[0].height_m, side=near[0].bearing_deg)
            level, change = _defect_level(near[0], case), f"defect.{kind}.change"
            found.append(stated(Limit(f"defect.{kind}", Group.DECAY, "rot"), level, sentence, change))
    return found


def _concerns(defect: Defect, cut_m: float) -> bool:
    return beside_cut(defect, cut_m, NEAR_CUT_M) or (defect.kind == "bracket" and defect.height_m > cut_m)


def _defect_level(defect: Defect, case: Case) -> Level:
    """A bracket above rot that is drawn as ended lower says that the drawing is wrong."""
    top = case.tree.decay.top_m
    ends_below = top is not None and top < defect.height_m
    no_rot = case.tree.decay.kind in ("none", "unknown")
    return Level.STOP if defect.kind == "bracket" and (ends_below or no_rot) else Level.WATCH


def _flare(case: Case, parts: Parts) -> list[Finding]:
    """Which buttresses to trim so that the bar crosses."""
    across, reach = parts.section.width_m, case.kit.bar_m
    standing = [lobe for lobe in case.tree.lobes if lobe.state == "standing"]
    if not standing or across <= reach:
        return []
    picked = flares_to_trim(case.tree, case.cut, parts.section, reach)
    if picked is None:
        text = "bar.flare.every_buttress_trimmed"
        sentence = phrase(text, bar=reach)
        return [stated(Limit("bar.flare", Group.BAR, "kerf"), Level.WATCH, sentence, "bar.flare.short_change")]
    names = tuple(phrase("place.bearing", at=lobe.bearing_deg) for lobe in picked)
    sentence = phrase("bar.flare.trim_several" if len(picked) > 1 else "bar.flare.trim", bar=reach, names=names)
    return [stated(Limit("bar.flare", Group.BAR, "kerf"), Level.WATCH, sentence, "bar.flare.trim_change")]
