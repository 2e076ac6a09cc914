"""What can be done with a block: take its lays over, fix one, let decisions go, wind, zones, crew and kit."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, cast

from PySide6.QtWidgets import QFileDialog

from ....core.base.errors import PlainCompassError
from ....job.disk import read_text
from ....job.language import tr
from ...frame.commands import Command
from ...frame.desk import Desk
from .papers import BlockPapers

if TYPE_CHECKING:
    from ....job.block import Block, Ordered
    from .page import BlockPage


class BlockActions:
    """The commands of the group ``block``. What judges and paints is imported when it is first asked for."""

    def __init__(self, desk: Desk) -> None:
        self.desk, self.store = desk, desk.store

    def commands(self) -> list[Command]:
        """Lays, decisions, sheets."""
        return [
            Command("block.take", tr("Take these lays over"), "", self.take, self._is_turned),
            Command("block.fix", self._fix_title, "", self.fix, lambda: bool(self._picked())),
            Command("block.free", tr("Let decisions go"), "", self.free, self._is_decided),
            Command("block.forecast", tr("Wind…"), "", self.take_forecast),
            Command("block.zones", self._zones_title, "", self.show_zones),
            Command("block.hands", self._hands_title, "", self.show_hands),
            Command("block.keep_kit", tr("Keep in own store"), "", self.keep_kit, self._has_kit),
            Command("block.take_kit", tr("From own store"), "", self.take_kit),
            *BlockPapers(self.desk, self.answer).commands(),
        ]

    def _page(self) -> BlockPage | None:
        return cast("BlockPage | None", self.desk.pages.get("block"))

    def answer(self) -> tuple[Block, Ordered] | None:
        """The block and its order; None until there is one."""
        page = self._page()
        if page is None or page.watch.block is None or page.watch.found is None:
            return None
        return page.watch.block, page.watch.found

    def _picked(self) -> str:
        page = self._page()
        return "" if page is None else page.map.picked

    def _is_turned(self) -> bool:
        answer = self.answer()
        if answer is None:
            return False
        from ....job.block_turns import turned_ids  # nobody has asked for an order before there is one

        return bool(turned_ids(*answer))

    def _is_decided(self) -> bool:
        wanted = self.store.snapshot.job.block
        return bool(wanted.first or wanted.trees)

    def _fix_title(self) -> str:
        picked = self._picked()
        stays = bool(picked) and self.store.snapshot.job.block.of(picked).lay == "fixed"
        return tr("May be laid another way") if stays else tr("Stays on its lay")

    def take(self) -> None:
        """Every tree on the lay the order gives it."""
        from ....job.block import taken_over

        answer = self.answer()
        if answer is not None:
            self.store.change(tr("lays taken over"), lambda job: taken_over(job, *answer))

    def fix(self) -> None:
        """The picked tree stays on its own lay, or may be laid another way again."""
        from ....job.block_edits import fixed_lay

        picked = self._picked()
        stays = self.store.snapshot.job.block.of(picked).lay != "fixed"
        title = f"{picked} {tr('stays on its lay') if stays else tr('may be laid another way')}"
        self.store.change(title, lambda job: fixed_lay(job, picked, stays=stays))

    def free(self) -> None:
        """Nothing decided any more, of the picked tree or of any."""
        from ....job.block_edits import let_go

        picked = self._picked()
        self.store.change(tr("decisions let go"), lambda job: let_go(job, picked))

    def _zones_title(self) -> str:
        page = self._page()
        return tr("Hide zones") if page is not None and page.map.all_zones else tr("All zones")

    def show_zones(self) -> None:
        """Where nobody may be round every tree of the order, or round the picked one alone again."""
        page = self._page()
        if page is not None:
            page.map.all_zones = not page.map.all_zones
            page.map.update()
            page.commands.refresh()

    def _hands_title(self) -> str:
        page = self._page()
        return tr("The order") if page is not None and page.side.currentIndex() else tr("Crew and kit")

    def show_hands(self) -> None:
        """Hours, crew and kit, or the order again."""
        page = self._page()
        if page is not None:
            page.show_hands()

    def _has_kit(self) -> bool:
        return bool(self.store.snapshot.job.block.kits)

    def keep_kit(self) -> None:
        """The job's sets of kit are offered in every job from now on."""
        from ....job.own_kits import keep_own_kits, own_kits

        try:
            count = keep_own_kits(own_kits(), self.store.snapshot.job.block.kits)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        self.desk.message.tell(tr("Own store: {count} sets of kit.", count=count))

    def take_kit(self) -> None:
        """The sets of one's own store into this job."""
        from ....job.own_kits import own_kits, read_own_kits, with_own_kits

        try:
            kits, odd = read_own_kits(own_kits())
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        if kits:
            self.store.change(tr("kit from own store"), lambda job: with_own_kits(job, kits))
        unread = tr(" {count} lines of it cannot be read.", count=len(odd)) if odd else ""
        self.desk.message.tell(tr("{count} sets of kit from your own store.{unread}", count=len(kits), unread=unread))

    def ask_forecast(self) -> str:
        """A table of hours and winds to read; empty for none."""
        title, folder = tr("A forecast of the wind"), str(Path.home())
        return QFileDialog.getOpenFileName(self.desk.frame, title, folder, tr("CSV (*.csv)"))[0]

    def take_forecast(self) -> None:
        """Read the wind hour by hour; what could not be taken is said, and gaps in it."""
        from ....job.block_edits import with_forecast
        from ....job.forecast_csv import import_forecast

        where = self.ask_forecast()
        if not where:
            return
        try:
            hours, told = import_forecast(read_text(Path(where)), Path(where).name)
        except PlainCompassError as error:
            self.desk.message.refuse(str(error))
            return
        if self.store.change(tr("forecast of the wind"), lambda job: with_forecast(job, hours)):
            self.desk.message.tell(" ".join([tr("{count} hours of wind taken in.", count=len(hours)), *told[:4]]))
