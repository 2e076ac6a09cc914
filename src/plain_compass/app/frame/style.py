"""The style sheet of the window's widgets, from the palette."""

from __future__ import annotations

from ..drawing.palette import CONDENSED, FAMILY, Palette


def style_sheet(p: Palette) -> str:
    """Flat, printed-plan look: ink lines on paper, one accent for focus."""
    return _sheets(p) + _controls(p) + _lists(p)


def _sheets(p: Palette) -> str:
    """What things lie on, and what is only read."""
    return f"""
    * {{ font-family: "{FAMILY}"; color: {p.ink}; }}
    QMainWindow, QWidget#page, QWidget#topbar, QWidget#trail {{ background: {p.paper}; }}
    QWidget#topbar {{ border-bottom: 1px solid {p.line}; }}
    QWidget#sheetbody, QScrollArea#sheet {{ background: {p.sheet}; border: none; }}
    QCheckBox {{ min-height: 28px; border: 2px solid transparent; }}
    QCheckBox:focus {{ border: 2px solid {p.focus}; }}
    QFrame#guide {{ background: {p.sheet}; border: 2px solid {p.lay}; }}
    QLabel#survey {{ background: {p.paper}; border-top: 1px solid {p.line}; }}
    QLabel#refused {{ background: {p.sheet}; color: {p.load}; border: 2px solid {p.load}; }}
    QLabel#told {{ background: {p.sheet}; border: 1px solid {p.ink}; }}
    """


def _controls(p: Palette) -> str:
    """What is typed into, chosen from and pressed; no lower than a finger wants."""
    return f"""
    QLineEdit, QPlainTextEdit {{ background: {p.sheet}; border: 1px solid {p.line}; border-bottom: 2px solid {p.quiet};
        padding: 1px 2px; min-height: 27px; selection-background-color: {p.focus}; selection-color: {p.sheet}; }}
    QLineEdit:hover {{ border-color: {p.ink}; }}
    QLineEdit:focus, QPlainTextEdit:focus {{ border: 2px solid {p.focus}; padding: 0px 1px 1px 1px; }}
    QLineEdit[unmeasured="true"] {{ font-family: "{CONDENSED}"; border-style: dashed; }}
    QLineEdit[wrong="true"] {{ border: 2px solid {p.load}; color: {p.load}; }}
    QComboBox {{ background: {p.sheet}; border: 1px solid {p.line};
        border-bottom: 2px solid {p.quiet}; padding: 3px 6px; min-height: 23px; }}
    QComboBox:focus {{ border: 2px solid {p.focus}; padding: 2px 5px; }}
    QComboBox::drop-down {{ width: 20px; border: none; }}
    QComboBox::down-arrow {{ width: 0; height: 0; border-left: 4px solid {p.sheet}; border-right: 4px solid {p.sheet};
        border-top: 6px solid {p.ink}; }}
    QComboBox QAbstractItemView {{ background: {p.sheet}; border: 1px solid {p.ink};
        selection-background-color: {p.focus}; selection-color: {p.sheet}; }}
    QToolButton {{ background: transparent; border: 1px solid transparent; padding: 6px 9px; font-size: 14px; }}
    QToolButton:hover {{ border-color: {p.quiet}; }}
    QToolButton:focus {{ border: 2px solid {p.focus}; padding: 5px 8px; }}
    QToolButton:disabled {{ color: {p.line}; }}
    QToolButton::menu-indicator {{ image: none; }}
    QToolButton#job {{ border: 1px solid {p.line}; }}
    QToolButton#tree {{ text-align: left; border: 1px solid {p.line}; border-bottom: 2px solid {p.quiet};
        padding: 3px 9px; font-size: 14px; font-weight: 600; }}
    QToolButton[framed="true"] {{ border: 1px solid {p.line}; border-bottom: 2px solid {p.quiet};
        padding: 3px 9px; min-height: 23px; }}
    QToolButton[close="true"] {{ padding: 3px 4px; }}
    QToolButton[framed="true"]:checked {{ border: 2px solid {p.ink}; }}
    QToolButton[framed="true"]:focus {{ border: 2px solid {p.focus}; padding: 3px 8px; }}
    QSlider {{ border: 2px solid transparent; }}
    QSlider:focus {{ border: 2px solid {p.focus}; }}
    QToolButton[tab="true"] {{ border: none; border-bottom: 3px solid transparent; padding: 8px 6px; }}
    QToolButton[narrow="true"] {{ font-family: "{CONDENSED}"; font-size: 15px; }}
    QToolButton[tab="true"]:checked {{ border-bottom: 3px solid {p.ink}; font-weight: 600; }}
    QToolButton[tab="true"]:focus {{ border: 2px solid {p.focus}; }}
    """


def _lists(p: Palette) -> str:
    """Lists, tables, menus, dialogs and scroll bars."""
    return f"""
    QListView {{ background: {p.sheet}; border: none; outline: none; }}
    QTextBrowser {{ background: {p.sheet}; border: 1px solid {p.line}; }}
    QTextBrowser:focus {{ border: 2px solid {p.focus}; }}
    QListView:focus {{ border: 2px solid {p.focus}; }}
    QListWidget::item {{ padding: 3px 4px; }}
    QListWidget::item:selected {{ background: {p.focus}; color: {p.sheet}; }}
    QFileDialog QToolButton {{ padding: 2px; }}
    QTreeView, QTableView {{ background: {p.sheet}; border: 1px solid {p.line}; outline: none;
        selection-background-color: {p.focus}; selection-color: {p.sheet}; }}
    QHeaderView::section {{ background: {p.paper}; border: none; border-right: 1px solid {p.line}; padding: 4px; }}
    QMenu {{ background: {p.sheet}; border: 1px solid {p.ink}; }}
    QMenu::item {{ padding: 6px 26px 6px 16px; }}
    QMenu::item:selected {{ background: {p.focus}; color: {p.sheet}; }}
    QMenu::item:disabled {{ color: {p.quiet}; }}
    QMenu::separator {{ height: 1px; background: {p.line}; margin: 4px 8px; }}
    QToolTip {{ background: {p.sheet}; color: {p.ink}; border: 1px solid {p.ink}; padding: 4px; font-size: 13px; }}
    QScrollBar:vertical {{ background: {p.paper}; width: 12px; }}
    QScrollBar:horizontal {{ background: {p.paper}; height: 12px; }}
    QScrollBar::handle {{ background: {p.line}; min-height: 28px; min-width: 28px; }}
    QScrollBar::handle:hover {{ background: {p.quiet}; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ height: 0; width: 0; }}
    QDialog, QMessageBox {{ background: {p.sheet}; }}
    QDialog#keys {{ border: 1px solid {p.ink}; }}
    QPushButton {{ background: {p.paper}; border: 1px solid {p.quiet}; padding: 6px 14px; font-size: 14px; }}
    QPushButton:focus {{ border: 2px solid {p.focus}; }}
    """
