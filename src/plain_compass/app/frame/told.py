"""What a drawing says, in one sentence: read out where it cannot be seen."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtWidgets import QWidget

from ...core.base.levels import FindingKind, Group, Level
from ...job.language import tr
from ...job.words.catalogue import capital, level_word, listed
from .store import Snapshot

JUDGED = (FindingKind.LIMIT, FindingKind.UNKNOWN)


def verdict_on(snapshot: Snapshot, groups: Sequence[Group]) -> str:
    """The worst finding of some limit states as a sentence; where they are clear, which ones are."""
    speech = snapshot.speech
    mine = [each for each in snapshot.result.findings if each.group in groups and each.kind in JUDGED]
    # They stand worst first.
    worst = next(iter(mine), None)
    if worst is not None and worst.level != Level.CLEAR:
        level = level_word(worst.level)
        told = tr("indicative, {level}", level=level) if worst.indicative else level
        return f"{capital(told)}. {speech.phrase(worst.sentence)} {speech.odds(worst)}".rstrip()
    names = [speech.named("groups", group).lower() for group in groups]
    return tr("Clear by what is known and drawn: {names}.", names=listed(names))


def tell_drawings(page: QWidget | None, snapshot: Snapshot) -> None:
    """Give every drawing of a page that says what it ``tells_of`` its sentence."""
    for view in page.findChildren(QWidget) if page is not None else ():
        groups = getattr(view, "tells_of", ())
        if groups:
            told = f"{verdict_on(snapshot, groups)} {getattr(view, 'by_keys', '')}".rstrip()
            if told != view.accessibleDescription():
                view.setAccessibleDescription(told)
