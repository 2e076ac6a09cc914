"""Starting the window: fonts, last job or demo, recovery of unsaved work."""

from __future__ import annotations

import locale
import os
import signal
import sys
from collections.abc import Sequence
from importlib import import_module
from pathlib import Path

from PySide6.QtCore import QLibraryInfo, QLocale, QSize, Qt, QTranslator
from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QApplication, QWidget

from ..core.base.errors import PlainCompassError
from ..job.demo import demo_job
from ..job.files import Opened, is_job_file, read_job
from ..job.language import ENGLISH, spoken, tr, tr_mark, write_decimals_with
from ..job.tables import DATA, table_troubles
from .drawing.palette import FAMILY, font, load_fonts
from .frame.commands import Command, Commands
from .frame.page import PageFactory
from .frame.recovery import Recovery
from .frame.settings import Settings
from .frame.store import Store
from .frame.window import Window
from .steps.block.actions import BlockActions
from .steps.card.actions import CardActions
from .steps.fall.actions import FallActions
from .steps.practice.actions import PracticeActions
from .steps.stump.actions import StumpActions
from .text_size import grow

STEPS = {
    "look": "look.page:LookPage",
    "ground": "ground.page:GroundPage",
    "cut": "cut.page:CutPage",
    "stages": "stages.page:StagesPage",
    "fall": "fall.page:FallPage",
    "card": "card.page:CardPage",
    "stump": "stump.page:stump_page",
    "block": "block.page:BlockPage",
    "practice": "practice.page:practice_page",
}
"""Where the page of each step is made: module in ``steps`` and maker. A step is its folder, and its line here."""
PANELS_AT = {tr_mark("Measure"): "look.measure_panel:MeasurePanel", tr_mark("Stump"): "stump.panel:AsCutPanel"}
"""The same of the panels of the side column."""


def _made_at(where: str) -> PageFactory:
    """What makes a page, imported when it is first opened: a third of the start would go to pages nobody looks at."""
    module, _, maker = where.partition(":")

    def make(store: Store, commands: Commands, parent: QWidget) -> QWidget:
        found: QWidget = getattr(import_module(f".steps.{module}", __package__), maker)(store, commands, parent)
        return found

    return make


PAGES: dict[str, PageFactory] = {key: _made_at(where) for key, where in STEPS.items()}
PANELS: dict[str, PageFactory] = {key: _made_at(where) for key, where in PANELS_AT.items()}


def application() -> QApplication:
    """The Qt application, with the program's own type."""
    app = QApplication.instance() or QApplication(sys.argv[:1])
    assert isinstance(app, QApplication)
    app.setApplicationName("Plain Compass")
    app.setDesktopFileName("plain-compass")
    app.setWindowIcon(QIcon(str(DATA / "desktop" / "icons" / "plain-compass-64.png")))
    app.setStyle("Fusion")
    _speak(app)
    if FAMILY not in load_fonts():
        print(tr("The program's own fonts could not be loaded; another is used."), file=sys.stderr)
    app.setFont(font(14))
    return app


def _speak(app: QApplication) -> None:
    """Numbers, and Qt's own words, as the person has them."""
    write_decimals_with(QLocale.system().decimalPoint())
    # Qt has set the system's settings for libraries written in C as well; those are to go on reading points.
    locale.setlocale(locale.LC_NUMERIC, "C")
    code = spoken().code
    words = QTranslator(app)
    if code != ENGLISH and words.load(
        QLocale(code), "qtbase", "_", QLibraryInfo.path(QLibraryInfo.LibraryPath.TranslationsPath)
    ):
        app.installTranslator(words)


def _step_commands(window: Window) -> list[Command]:
    """What the steps bring along."""
    stump, block = StumpActions(window).commands(), BlockActions(window).commands()
    practice = PracticeActions(window, window.jobs.open_made).commands()
    return [*FallActions(window).commands(), *CardActions(window).commands(), *stump, *block, *practice]


def make_window(opened: Opened, path: Path | None, settings: Settings, recovery: Recovery) -> Window:
    """The window on a job."""
    return Window(Store(opened, path), settings, recovery, dict(PAGES), dict(PANELS), _step_commands)


class DisplayError(PlainCompassError):
    """There is nowhere to open a window."""


def has_display() -> bool:
    """Whether a window can open: a display, or a platform that was asked for by name."""
    return any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"))


def _first_job(path: Path | None, demo: bool, settings: Settings) -> tuple[Opened, Path | None, str]:
    """What to open: the file asked for, the demo, or the last job; and a sentence when that went wrong."""
    if path is not None:
        return read_job(path), path, ""
    last = None if demo else next(iter(settings.recent()), None)
    if last is None:
        return Opened(demo_job()), None, ""
    try:
        return read_job(last), last, ""
    except PlainCompassError as error:
        return Opened(demo_job()), None, tr("The last job could not be opened: {error}", error=error)


def fit_screen(window: Window) -> None:
    """The first window: as large as it is meant to be, or as the screen allows."""
    screen = window.screen().availableGeometry().size()
    window.setMinimumSize(window.minimumSize().boundedTo(screen))
    window.resize(QSize(1280, 800).boundedTo(screen))


def start(path: Path | None, settings: Settings, recovery: Recovery, *, demo: bool = False) -> Window:
    """The window, shown, on the file asked for, the demo or the last job, with unsaved work brought back."""
    opened, used, trouble = _first_job(path, demo, settings)
    window = make_window(opened, used, settings, recovery)
    if used is not None:
        settings.used(used)
    geometry = settings.geometry()
    if geometry is None or not window.restoreGeometry(geometry):
        fit_screen(window)
    window.show()
    window.guide.offer()
    brought_back = window.kept.at_start(used, asked_for=demo or path is not None)
    troubles = [*filter(None, [trouble, spoken().trouble]), *settings.troubles, *table_troubles()]
    troubles += window.autosave.recovery.troubles
    if troubles:
        window.message.refuse(" ".join([*troubles, *filter(None, [brought_back])]))
    elif brought_back:
        window.message.tell(brought_back)
    return window


def run(paths: Sequence[Path] = (), *, demo: bool = False, new_window: bool = False) -> int:
    """Open the window and stay until it is closed; files go to one that runs already.

    Args:
        new_window: whether a window of its own is wanted even so.
    """
    if not has_display():
        raise DisplayError(tr("There is no display here, so no window can open; assess and card work without one."))
    # Ctrl+C in the terminal ends the program at once; unsaved work is on disk already.
    signal.signal(signal.SIGINT, signal.SIG_DFL)
    app = application()
    if grow(app):
        del app
        load_fonts.cache_clear()
        app = application()
    # What talks to another window is not wanted by those who only draw.
    from .frame.one_window import OneWindow, hand_over, server_name

    settings = Settings()
    name = server_name(settings.file)
    if paths and not new_window and hand_over(name, paths):
        print(tr("Opened in the window that is there already."))
        return 0
    jobs = [path for path in paths if is_job_file(path)]
    window = start(jobs[0] if jobs else None, settings, Recovery(Settings.recovery_folder()), demo=demo)
    window.arrivals.take([path for path in paths if path not in jobs[:1]])

    def take(files: list[Path]) -> None:
        window.setWindowState(window.windowState() & ~Qt.WindowState.WindowMinimized)
        window.raise_()
        window.activateWindow()
        window.arrivals.take(files)

    listening = None if new_window else OneWindow(name, take, window)
    window.raise_()
    status = app.exec()
    if listening is not None:
        listening.close()
    return status
