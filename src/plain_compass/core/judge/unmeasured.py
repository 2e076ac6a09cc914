"""What has not been measured: stand-ins let a new tree be drawn, and nothing that rests on one is called known."""

from __future__ import annotations

from dataclasses import replace

from ..base.errors import PlainCompassError
from ..base.frozen import changed
from ..base.levels import Group, Level
from ..base.phrase import Phrase, phrase
from ..tree.tree import Tree
from .findings import Finding, Limit, stated, worst_first

EDGES = "crown.readings."
LEAN = ("lean.angle_deg", "lean.bearing_deg")
STAND_INS = ("trunk.diameter_m", "height_m", "crown.base_m", *(f"{EDGES}{index}.radius_m" for index in range(4)), *LEAN)
"""Paths within a tree of what a new one has only been given so that it can be drawn."""
THINGS = ("diameter", "height", "crown", "lean")
"""What has to be measured, in the order in which it is best taken."""
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
    """Which of ``THINGS`` for a stand-in's path."""
    return next(key for key in THINGS if key in path)


def missing(tree: Tree) -> tuple[str, ...]:
    """What of a tree has not been measured, out of ``THINGS``, in the order in which it is best taken."""
    found = {named(path) for path in tree.stand_ins}
    return tuple(key for key in THINGS if key in found)


def taken(tree: Tree) -> tuple[int, int]:
    """(how much of what a new tree wants measured has been taken, how much that is)."""
    wanted = [path for path in STAND_INS if not path.startswith(EDGES) or _edge(path) < len(tree.crown.readings)]
    return sum(path not in tree.stand_ins for path in wanted), len(wanted)


def _edge(path: str) -> int:
    return int(path.removeprefix(EDGES).split(".")[0])


def named_things(lacking: tuple[str, ...]) -> tuple[Phrase, ...]:
    """What is lacking, to be listed inside a sentence."""
    return tuple(phrase(f"measured.{key}.name") for key in lacking)


def lacking_of(tree: Tree) -> Phrase | None:
    """What has not been measured, to stand inside a sentence; None where everything was."""
    lacking = missing(tree)
    return phrase("measured.things", names=named_things(lacking)) if lacking else None


class UnmeasuredError(PlainCompassError, ValueError):
    """A search over many cases was asked for of a tree that has not been measured; ``sentence`` says what lacks."""

    def __init__(self, what: str, lacking: tuple[str, ...]) -> None:
        self.lacking = lacking
        self.sentence = phrase(
            "measured.asked_several" if len(lacking) > 1 else "measured.asked_one",
            what=phrase(what),
            names=named_things(lacking),
            how=phrase(f"measured.{lacking[0]}.change"),
        )
        super().__init__(f"not measured: {', '.join(lacking)}")


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
    group = Group.FACE if key == "diameter" else Group.BALANCE
    sentence = phrase("measured.not_yet", name=phrase(f"measured.{key}.name"))
    return stated(Limit(f"measured.{key}", group), Level.UNKNOWN, sentence, f"measured.{key}.change")


def _held_back(finding: Finding, lacking: tuple[str, ...]) -> Finding:
    needs = THINGS if finding.id.startswith("fall.") else NEEDS.get(finding.group, THINGS)
    wanted = tuple(key for key in lacking if key in needs)
    reckoned = finding.margin is not None or finding.id.startswith(("fall.", *SHAPES))
    if not wanted or not reckoned or finding.level == Level.UNKNOWN:
        return finding
    text = "measured.not_known_several" if len(wanted) > 1 else "measured.not_known_one"
    sentence = phrase(text, names=named_things(wanted), by_stand_ins=finding.sentence)
    bare = stated(Limit(finding.id, finding.group), Level.UNKNOWN, sentence, finding.change, source=finding.source)
    return changed(bare, indicative=finding.indicative, mark=finding.mark)


def after_change(before: Tree, after: Tree, path: str) -> Tree:
    """The tree after one of its values was typed or taken: that value is no stand-in any more.

    Args:
        path: what was set, from the tree, such as ``lean.angle_deg``.
    """
    if not before.stand_ins:
        return after
    gone = {path}
    if path in LEAN:
        if after.lean.angle_deg == 0.0:
            # What stands plumb leans nowhere.
            gone = {*LEAN}
        if after.lean.method == "unknown":
            # A lean that was typed has been judged, by eye where nothing else is said.
            after = replace(after, lean=replace(after.lean, method="eye"))
    if path == "crown.readings":
        old, new = before.crown.readings, after.crown.readings
        alike = [i for i, edge in enumerate(new) if i < len(old) and edge == old[i]]
        gone = {f"{EDGES}{i}.radius_m" for i in range(len(old)) if i not in alike}
    return replace(after, stand_ins=tuple(each for each in after.stand_ins if each not in gone))
