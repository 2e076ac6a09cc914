"""A text beside a drawing that may be longer than its place."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QScrollArea, QVBoxLayout, QWidget

from ...job.language import tr


def scrolled(words: QLabel) -> QScrollArea:
    """The text in a place of its own, scrolled up and down where it does not fit."""
    body = QWidget()
    body.setObjectName("page")
    column = QVBoxLayout(body)
    column.setContentsMargins(12, 8, 12, 8)
    column.addWidget(words)
    column.addStretch()
    area = QScrollArea()
    area.setObjectName("page")
    area.setAccessibleName(words.accessibleName() or tr("Text"))
    area.setWidget(body)
    area.setWidgetResizable(True)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    return area
