"""Room between paragraphs and lines of rich text made from Markdown, which has none of its own."""

from __future__ import annotations

from PySide6.QtGui import QTextBlockFormat, QTextCursor, QTextDocument

GAP_PX, LINE_PERCENT = 10.0, 120.0
"""Under a paragraph, and from line to line."""


def give_room(document: QTextDocument) -> None:
    """Paragraphs and headings apart, lines of a list nearer; a table keeps its own."""
    block = document.begin()
    while block.isValid():
        cursor = QTextCursor(block)
        if cursor.currentTable() is None:
            shape = block.blockFormat()
            shape.setTopMargin(GAP_PX if shape.headingLevel() else 0.0)
            shape.setBottomMargin(GAP_PX if block.textList() is None else GAP_PX / 3)
            shape.setLineHeight(LINE_PERCENT, QTextBlockFormat.LineHeightTypes.ProportionalHeight.value)
            cursor.setBlockFormat(shape)
        block = block.next()
