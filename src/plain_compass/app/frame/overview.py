"""All trees of the job (F9): sign, size, lay, how hard, what is left to do; sorted, narrowed by typing, gone to."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from PySide6.QtCore import (
    QAbstractTableModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QSize,
    QSortFilterProxyModel,
    Qt,
    QTimer,
)
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QHeaderView,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from ...core.base.levels import Level
from ...job.document import Job, TreePlan
from ...job.language import tr
from ...job.words.catalogue import level_word
from ..drawing.marks import paint_level
from ..drawing.palette import LIGHT, Palette, font
from .narrowing_edit import NarrowingEdit
from .overview_rows import COLUMNS, Judged, cells, one_by_one, order_of
from .plain_label import PlainLabel
from .store import Store

Role = Qt.ItemDataRole
SORTS_BY = Role.UserRole + 1
LEVEL = Role.UserRole + 2
WIDTHS = (30, 86, 150, 84, 70, 56, 92, 82, 78)
ROOM_PX = 60
"""What is left of the window round the list."""
ROW_PX, AROUND_PX = 42, 130
PAGE_ROWS = 12
"""How far a page key moves."""
AnyIndex = QModelIndex | QPersistentModelIndex


class TreeTable(QAbstractTableModel):
    """A row a tree, filled in as they are judged."""

    def __init__(self, job: Job, known: dict[str, Judged]) -> None:
        super().__init__()
        self.job, self.known = job, known
        self.rows = {plan.id: row for row, plan in enumerate(job.trees)}
        self.blank = Judged()
        self._told: dict[str, tuple[Judged, tuple[str, ...]]] = {}

    def rowCount(self, parent: AnyIndex = QModelIndex()) -> int:  # noqa: B008 - as Qt declares it
        """A row a tree."""
        return 0 if parent.isValid() else len(self.job.trees)

    def columnCount(self, parent: AnyIndex = QModelIndex()) -> int:  # noqa: B008 - as Qt declares it
        """As ``COLUMNS``."""
        return 0 if parent.isValid() else len(COLUMNS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Role.DisplayRole) -> Any:
        """Names of the columns."""
        if orientation == Qt.Orientation.Horizontal and role == Role.DisplayRole:
            return COLUMNS[section]
        return None

    def data(self, index: AnyIndex, role: int = Role.DisplayRole) -> Any:
        """Text, order and sign."""
        plan = self.job.trees[index.row()]
        found = self.known.get(plan.id, self.blank)
        if role == Role.DisplayRole:
            return self._cells(plan, found)[index.column()]
        if role == SORTS_BY:
            order = order_of(plan, found, index.column())
            return self._cells(plan, found)[index.column()] if order is None else order
        if role == LEVEL and index.column() == 0:
            return found.level
        if role == Role.AccessibleTextRole and index.column() == 0:
            return tr("not judged yet") if found.level is None else level_word(found.level)
        if role == Role.ToolTipRole and index.column() == len(COLUMNS) - 1:
            return found.sentence
        return None

    def _cells(self, plan: TreePlan, found: Judged) -> tuple[str, ...]:
        """Made once for what is known: sorting and narrowing ask for all of them again and again."""
        known = self._told.get(plan.id)
        if known is None or known[0] is not found:
            known = self._told[plan.id] = found, cells(self.job, plan, found)
        return known[1]

    def came(self, tree_id: str) -> None:
        """One more is judged."""
        row = self.rows[tree_id]
        self.dataChanged.emit(self.index(row, 0), self.index(row, len(COLUMNS) - 1))


class Signs(QStyledItemDelegate):
    """The sign of a verdict in the first column."""

    palette_in_use: Palette = LIGHT

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        """The row's ground, and the sign on it."""
        super().paint(painter, option, index)
        level = index.data(LEVEL)
        if level is not None:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            paint_level(painter, QPointF(option.rect.center()), 7, Level(level), self.palette_in_use)


class Narrowed(QSortFilterProxyModel):
    """Rows that have every typed word in one of their cells."""

    def __init__(self) -> None:
        super().__init__()
        self.words: list[str] = []
        self.setSortRole(SORTS_BY)

    def narrow(self, typed: str) -> None:
        """Show only what has these words."""
        self.words = typed.lower().split()
        self.invalidate()

    def filterAcceptsRow(self, source_row: int, source_parent: AnyIndex) -> bool:
        """Whether a tree has them all."""
        model = self.sourceModel()
        text = " ".join(str(model.index(source_row, column).data() or "") for column in range(1, len(COLUMNS))).lower()
        return all(word in text for word in self.words)


class Overview(QDialog):
    """Shown by F9 or from the tree's name; Enter or a double click goes to a tree, Escape stays."""

    def __init__(self, store: Store, palette: Palette, known: dict[str, Judged], parent: QWidget) -> None:
        super().__init__(parent)
        self.store = store
        self.setWindowTitle(tr("Trees of this job"))
        self.setObjectName("page")
        self.table = TreeTable(store.snapshot.job, known)
        self.shown = Narrowed()
        self.shown.setSourceModel(self.table)
        hint = tr("Type to narrow: a name, a species, stop, hard, down …")
        self.typed = NarrowingEdit(15, hint, tr("Words to narrow the list by"), PAGE_ROWS)
        self.typed.textChanged.connect(self._narrow)
        self.typed.moved.connect(self._move)
        self.typed.entered.connect(self.go)
        self.count = PlainLabel("")
        self.count.setFont(font(13))
        self.view = self._table_view(palette)
        whole = QVBoxLayout(self)
        for widget in (self.typed, self.view, self.count):
            whole.addWidget(widget)
        room = parent.window().size() - QSize(ROOM_PX, ROOM_PX)
        self.resize(room.width(), min(room.height(), ROW_PX * (len(self.table.job.trees) + 1) + AROUND_PX))
        self._steps: Iterator[str] = one_by_one(self.table.job, known)
        self._timer = QTimer(self)
        self._timer.timeout.connect(self.step)
        self._timer.start(0)
        self._choose(store.tree_id)
        self._tell()

    def _table_view(self, palette: Palette) -> QTableView:
        view = QTableView()
        view.setModel(self.shown)
        view.setSortingEnabled(True)
        view.horizontalHeader().setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
        view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        view.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        view.setFont(font(14))
        view.setShowGrid(False)
        view.horizontalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        view.setAccessibleName(tr("Trees"))
        view.verticalHeader().hide()
        view.verticalHeader().setDefaultSectionSize(ROW_PX)
        for column, width in enumerate(WIDTHS):
            view.setColumnWidth(column, width)
        view.horizontalHeader().setSectionResizeMode(len(COLUMNS) - 1, QHeaderView.ResizeMode.Stretch)
        signs = Signs(view)
        signs.palette_in_use = palette
        view.setItemDelegateForColumn(0, signs)
        view.activated.connect(lambda _: self.go())
        return view

    # Judging -------------------------------------------------------------------------------------------

    def step(self) -> None:
        """Judge one more tree."""
        tree_id = next(self._steps, None)
        if tree_id is None:
            self._timer.stop()
        else:
            self.table.came(tree_id)
        self._tell()

    def finish(self) -> None:
        """Judge all that are left, now."""
        while self._timer.isActive():
            self.step()

    def _tell(self) -> None:
        trees, known = len(self.table.job.trees), len(self.table.known)
        left = "" if known == trees else tr(" · {known} of {trees} judged so far", known=known, trees=trees)
        self.count.setText(
            tr(
                "{row_count} of {trees} trees shown{left} · Enter goes to one, Escape stays",
                row_count=self.shown.rowCount(),
                trees=trees,
                left=left,
            )
        )

    # Choosing ------------------------------------------------------------------------------------------

    def _narrow(self, typed: str) -> None:
        chosen = self.chosen
        self.shown.narrow(typed)
        self._choose(chosen or "")
        self._tell()

    @property
    def chosen(self) -> str | None:
        """Id of the tree that is chosen; none where nothing is shown."""
        row = self.view.currentIndex()
        return str(row.siblingAtColumn(1).data()) if row.isValid() else None

    def _choose(self, tree_id: str) -> None:
        row = self.table.rows.get(tree_id, -1)
        at = self.shown.mapFromSource(self.table.index(row, 1))
        self.view.setCurrentIndex(at if at.isValid() else self.shown.index(0, 1))

    def _move(self, step: int) -> None:
        row = self.view.currentIndex().row() + step
        self.view.setCurrentIndex(self.shown.index(min(max(row, 0), self.shown.rowCount() - 1), 1))

    def go(self) -> None:
        """To the tree that is chosen."""
        if self.chosen is not None:
            self.store.look_at(self.chosen)
            self.accept()

    def done(self, result: int) -> None:
        """Nothing is judged for a list that nobody looks at."""
        self._timer.stop()
        super().done(result)
