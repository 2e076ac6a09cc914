"""What a drawing says, in one sentence: read out where it cannot be seen."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtWidgets import QWidget

from ...core.base.levels import FindingKind, Group, Level
from ...job.words.catalogue import listed
from .store import Snapshot

JUDGED = (FindingKind.LIMIT, FindingKind.UNKNOWN)


def verdict_on(snapshot: Snapshot, groups: Sequence[Group]) -> str:
    """The worst finding of some limit states as a sentence; where they are clear, which ones are."""
    speech = snapshot.speech
    mine = [each for each in snapshot.result.findings if each.group in groups and each.kind in JUDGED]
    # They stand worst first.
    worst = next(iter(mine), None)
    if worst is not None and worst.level != Level.CLEAR:
        about = "indicative, " if worst.indicative else ""
        told = f"{about}{worst.level}. {speech.phrase(worst.sentence)} {speech.odds(worst)}"
        return told[:1].upper() + told[1:].rstrip()
    names = [speech.named("groups", group).lower() for group in groups]
    return f"Clear by what is known and drawn: {listed(names)}."


def tell_drawings(page: QWidget | None, snapshot: Snapshot) -> None:
    """Give every drawing of a page that says what it ``tells_of`` its sentence."""
    for view in page.findChildren(QWidget) if page is not None else ():
        groups = getattr(view, "tells_of", ())
        if groups:
            told = f"{verdict_on(snapshot, groups)} {getattr(view, 'by_keys', '')}".rstrip()
            if told != view.accessibleDescription():
                view.setAccessibleDescription(told)
