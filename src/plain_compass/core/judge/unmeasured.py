"""What has not been measured: stand-ins let a new tree be drawn, and nothing that rests on one is called known."""

from __future__ import annotations

from dataclasses import replace

from ..base.errors import PlainCompassError
from ..base.phrase import Phrase, listed
from ..tree.tree import Tree
from .findings import Finding, stated, unknown, worst_first

EDGES = "crown.readings."
LEAN = ("lean.angle_deg", "lean.bearing_deg")
STAND_INS = ("trunk.diameter_m", "height_m", "crown.base_m", *(f"{EDGES}{index}.radius_m" for index in range(4)), *LEAN)
"""Paths within a tree of what a new one has only been given so that it can be drawn."""
WORDS = {"diameter": "the diameter", "height": "the height", "crown": "the crown", "lean": "the lean"}
HOW = {
    "diameter": "Tape the stem at breast height.",
    "height": "Take the height on the Look step.",
    "crown": "Pace from the stem to the edge of the crown on four sides, and judge where it begins.",
    "lean": "Walk round and hang a plumb line from two sides; zero is an answer too.",
}
NEEDS: dict[str, tuple[str, ...]] = {
    "face": ("diameter",),
    "bar": ("diameter",),
    "decay": ("diameter",),
    "around": (),
    "way_out": ("height", "crown"),
    "landing": ("height", "crown"),
}
"""Limit state -> what its findings rest on; all of it where nothing is said."""
SHAPES = ("cut.face", "cut.hinge", "cut.back")
"""Findings on whether a form fits this tree."""


def named(path: str) -> str:
    """Key of ``WORDS`` for a stand-in's path."""
    return next(key for key in WORDS if key in path)


def missing(tree: Tree) -> tuple[str, ...]:
    """What of a tree has not been measured, as keys of ``WORDS``, in the order in which it is best taken."""
    found = {named(path) for path in tree.stand_ins}
    return tuple(key for key in WORDS if key in found)


def missing_words(tree: Tree) -> str:
    """What has not been measured, to stand inside a sentence; empty where everything was."""
    lacking = missing(tree)
    return listed([WORDS[key] for key in lacking]) if lacking else ""


class UnmeasuredError(PlainCompassError, ValueError):
    """A search over many cases was asked for of a tree that has not been measured; ``lacking`` says what of it."""

    def __init__(self, what: str, lacking: tuple[str, ...]) -> None:
        self.lacking = lacking
        words = listed([WORDS[key] for key in lacking])
        verb = "has" if len(lacking) == 1 else "have"
        super().__init__(f"{what} cannot be told: {words} {verb} not been measured. {HOW[lacking[0]]}")


def require_measured(tree: Tree, what: str) -> None:
    """Raise UnmeasuredError unless everything was measured: the best of many by stand-ins would look like an answer."""
    lacking = missing(tree)
    if lacking:
        raise UnmeasuredError(what, lacking)


def with_unknowns(tree: Tree, findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """The findings with whatever rests on something that has not been measured called unknown."""
    lacking = missing(tree)
    if not lacking:
        return findings
    # A lean that is not measured is not judged either: said once.
    twice = ("measured.", "balance.lean") if "lean" in lacking else ("measured.",)
    kept = [finding for finding in findings if not finding.id.startswith(twice)]
    asked = [_asked(key) for key in lacking]
    return worst_first((*asked, *(_held_back(finding, lacking) for finding in kept)))


def _asked(key: str) -> Finding:
    words = WORDS[key]
    group = "face" if key == "diameter" else "balance"
    return unknown(f"measured.{key}", group, f"{words[:1].upper()}{words[1:]} has not been measured.", HOW[key])


def _held_back(finding: Finding, lacking: tuple[str, ...]) -> Finding:
    needs = tuple(WORDS) if finding.id.startswith("fall.") else NEEDS.get(finding.group, tuple(WORDS))
    wanted = [WORDS[key] for key in lacking if key in needs]
    reckoned = finding.margin is not None or finding.id.startswith(("fall.", *SHAPES))
    if not wanted or not reckoned or finding.level == "unknown":
        return finding
    before = f"Not known before {listed(wanted)} {'is' if len(wanted) == 1 else 'are'} measured; by stand-ins: "
    sentence = Phrase(before + finding.sentence.template, finding.sentence.values)
    bare = stated(finding.id, finding.group, "unknown", sentence, "Measure it first.", source=finding.source)
    return replace(bare, change=finding.change, indicative=finding.indicative, mark=finding.mark)


def after_change(before: Tree, after: Tree, path: str) -> Tree:
    """The tree after one of its values was typed or taken: that value is no stand-in any more.

    Args:
        path: what was set, from the tree, such as ``lean.angle_deg``.
    """
    if not before.stand_ins:
        return after
    gone = {path}
    if path.startswith("lean."):
        gone = {*LEAN}
        if path in LEAN and after.lean.method == "unknown":
            # A lean that was typed has been judged, by eye where nothing else is said.
            after = replace(after, lean=replace(after.lean, method="eye"))
    if path == "crown.readings":
        old, new = before.crown.readings, after.crown.readings
        alike = [i for i, edge in enumerate(new) if i < len(old) and edge == old[i]]
        gone = {f"{EDGES}{i}.radius_m" for i in range(len(old)) if i not in alike}
    return replace(after, stand_ins=tuple(each for each in after.stand_ins if each not in gone))
