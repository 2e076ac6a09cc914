"""The animation as a sequence of files, numbered in their order."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QByteArray, QIODevice

from ....job.disk import file_name, write_atomically
from ...frame.copying import picture_of, svg_of
from ...frame.page import Picture

if TYPE_CHECKING:
    from .page import FallPage

PER_SECOND = 12
"""Frames of the pictures written out: enough to see the fall, few enough to send."""
MOST_FRAMES = 240
"""The longest fall written out, about twenty seconds of a tree that hangs."""


def _png(pictures: tuple[Picture, ...]) -> bytes:
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    picture_of(pictures).save(buffer, "PNG")
    return bytes(content.data())


FORMATS: dict[str, Callable[[tuple[Picture, ...]], bytes]] = {"png": _png, "svg": svg_of}


def write_frames(page: FallPage, folder: Path, form: str) -> int:
    """Write the strobe view at even times from letting go to rest; how many frames there are.

    Raises JobFileError with a sentence when a file cannot be written.
    """
    playback = page.playback
    before = playback.time_s
    count = min(max(round(playback.ends_s * PER_SECOND), 1), MOST_FRAMES)
    for number in range(count + 1):
        playback.time_s = playback.ends_s * number / count
        content = FORMATS[form]((page.strobe.picture(),))
        write_atomically(folder / f"{file_name(page.store.tree_id, 'tree')}-fall-{number:03d}.{form}", content)
    playback.time_s = before
    return count + 1
