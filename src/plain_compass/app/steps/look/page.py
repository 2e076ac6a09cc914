"""The page of the Look step: the tree along and across its lay, the crown from above, the section at the cut."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QTimer
from PySide6.QtWidgets import QGridLayout, QSizePolicy, QVBoxLayout, QWidget

from ....core.advice.centre import centre_spread
from ....core.advice.rising import soundness_by_height
from ....core.advice.survey import survey
from ....core.judge.findings import Finding
from ....core.plan.case import Case
from ....job.language import tr
from ....job.spreads import LEAST_EFFECT, plan_spreads
from ....job.tree_readings import lean_marks, reading_marks
from ...drawing.look.surveyed import Surveyed
from ...drawing.shapes import ACROSS, ALONG
from ...frame.commands import Commands
from ...frame.page import Picture
from ...frame.store import Snapshot, Store
from .views import ButtView, CrownView, LookView, TreeView

STILL_MS = 250
"""What takes many assessments waits until the hands are still for so long."""


class LookPage(QWidget):
    """Survey the tree: every measurement on the drawing, with its spread."""

    def __init__(self, store: Store, commands: Commands, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.store = store
        self._surveyed: tuple[Snapshot, Surveyed] | None = None
        self._worst = ""
        self.along = TreeView(store, self.surveyed, ALONG, tr("From its right side, lay →"), self)
        self.across = TreeView(store, self.surveyed, ACROSS, tr("From behind, along the lay"), self)
        self.crown = CrownView(store, self.surveyed, self)
        self.butt = ButtView(store, self.surveyed, self)
        self.views: tuple[LookView, ...] = (self.along, self.across, self.crown, self.butt)
        names = (
            tr("Tree from its right side"),
            tr("Tree from behind"),
            tr("Crown from above"),
            tr("Section at the cut"),
        )
        for view, name in zip(self.views, names, strict=True):
            view.setAccessibleName(name)
            view.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self._compose()
        self._surveyed_case: Case | None = None
        self._tree_id = store.tree_id
        self._still = QTimer(self)
        self._still.setSingleShot(True)
        self._still.setInterval(STILL_MS)
        self._still.timeout.connect(self.compute)

    def _compose(self) -> None:
        grid = QGridLayout()
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(1)
        grid.addWidget(self.along, 0, 0, 2, 1)
        grid.addWidget(self.across, 0, 1, 2, 1)
        grid.addWidget(self.crown, 0, 2)
        grid.addWidget(self.butt, 1, 2)
        for column, share in enumerate((30, 30, 40)):
            grid.setColumnStretch(column, share)
        grid.setRowStretch(0, 52)
        grid.setRowStretch(1, 48)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addLayout(grid)

    def surveyed(self, snapshot: Snapshot) -> Surveyed:
        """Spreads of the tree in a snapshot, reckoned once for all four drawings."""
        if self._surveyed is None or self._surveyed[0] is not snapshot:
            spreads = plan_spreads(snapshot.plan, snapshot.job.hand)
            centre = centre_spread(snapshot.result.case, spreads)
            self._surveyed = (
                snapshot,
                Surveyed(spreads, centre, self._worst, reading_marks(snapshot.plan), lean_marks(snapshot.plan)),
            )
        return self._surveyed[1]

    def refresh(self, snapshot: Snapshot) -> None:
        """Follow the document; what takes many assessments waits until nothing has changed for a moment."""
        self._still.start()
        if snapshot.plan.id != self._tree_id:
            # Nothing of another tree is shown of this one.
            self._tree_id, self._worst, self.butt.rising = snapshot.plan.id, "", None
        for view in self.views:
            view.refresh(snapshot)

    def compute(self) -> None:
        """What to measure better, and soundness by height, now."""
        self._still.stop()
        if self.store.dragging:
            self._still.start()
            return
        snapshot = self.store.snapshot
        case = snapshot.result.case
        # Some thirty assessments: not again for one that only its fall was added to.
        if case is not self._surveyed_case:
            self._surveyed_case, found = case, survey(case, plan_spreads(snapshot.plan, snapshot.job.hand))
            self._worst = found[0].path if found and found[0].effect >= LEAST_EFFECT else ""
        self.butt.rising = soundness_by_height(snapshot.result.case)
        self._surveyed = None
        for view in self.views:
            view.refresh(snapshot)

    def bring_out(self, finding: Finding) -> None:
        """Bring out what a finding is about."""
        for view in self.views:
            view.mark = finding.mark
            view.update()

    def fit(self) -> None:
        """Back to the whole of all drawings."""
        self._each(lambda view: view.fit())

    def zoom(self, factor: float) -> None:
        """All drawings nearer or further."""
        self._each(lambda view: view.zoom_about(QPointF(view.rect().center()), factor))

    def _each(self, do: Callable[[LookView], None]) -> None:
        for view in self.views:
            do(view)

    def pictures(self) -> tuple[Picture, ...]:
        """The drawings, for copying."""
        return tuple(view.picture() for view in self.views)
