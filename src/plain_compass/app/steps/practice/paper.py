"""A set of practice on paper: two cases a page with room for an answer, the key on pages of its own at the end."""

from __future__ import annotations

from functools import partial
from html import escape
from pathlib import Path

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QPainter, QTextDocument

from ....job.language import tr
from ....job.practice_set import PracticeSet
from ....job.practice_words import question_of, told_of
from ....job.words import Speech
from ...drawing.pages import Drawn, write_pages
from ...drawing.palette import PRINTED, font, pen
from ..card.pdf import draw_without_screen
from .answering import SURE, SURE_WORDS
from .page import CAUTION, result_of
from .view import paint_case

A_PAGE, KEYS_A_PAGE = 2, 12
"""Cases on a page, and answers on a page of the key."""
QUESTION_PX, ANSWER_PX = 66.0, 96.0
"""Height of a question above its drawing, and of what may be answered below it."""
HOW = tr(
    "Write each answer beside its number, and how sure you are of it: {names}. Who says "
    "how sure he is as it is scores most.",
    names=", ".join((f"{words} {100 * share:.0f} %" for share, words in zip(SURE, SURE_WORDS, strict=True))),
)
"""On the first page."""


def write_set(practice: PracticeSet, speech: Speech, path: Path) -> None:
    """Write the set as PDF. Raises JobFileError."""
    pages = [*_case_pages(practice, speech), *_keys(practice, speech)]
    write_pages(path, _first(practice, speech), practice.name, pages)


def write_set_without_screen(practice: PracticeSet, speech: Speech, path: Path) -> None:
    """The same where no window is open."""
    draw_without_screen()
    write_set(practice, speech, path)


def _first(practice: PracticeSet, speech: Speech) -> str:
    rows = "".join(
        f"<tr><td>{number}</td><td>{escape(speech.phrase(f'practice.skill.{kept.asks}'))}</td>"
        "<td>____________________________</td><td>________ %</td></tr>"
        for number, kept in enumerate(practice.cases, 1)
    )
    headings = ("", tr("what is asked"), tr("answer"), tr("how sure"))
    head = f"<tr>{''.join(f'<td>{words}</td>' for words in headings)}</tr>"
    who, when = (f"{words} {'_' * count}" for words, count in ((tr("Name:"), 22), (tr("Date:"), 12)))
    return (
        f"<h2 style='font-weight:600'>{escape(practice.name)}</h2><p>{who} {when}</p><p>{HOW}</p>"
        f"<table cellspacing='6'>{head}{rows}</table><p>{CAUTION}</p>"
    )


def _case_pages(practice: PracticeSet, speech: Speech) -> list[Drawn]:
    places = range(0, len(practice.cases), A_PAGE)
    return [partial(_paint_cases, practice=practice, speech=speech, first=first) for first in places]


def _paint_cases(painter: QPainter, page: QSizeF, practice: PracticeSet, speech: Speech, first: int) -> None:
    tall = page.height() / A_PAGE
    for row, kept in enumerate(practice.cases[first : first + A_PAGE]):
        top, question = row * tall, question_of(kept, speech)
        painter.setPen(pen(PRINTED.ink))
        painter.setFont(font(15, strong=True))
        text = QRectF(0.0, top + 8, page.width(), QUESTION_PX - 12)
        painter.drawText(text, Qt.TextFlag.TextWordWrap, f"{first + row + 1}.  {question.text}")
        box = QRectF(10.0, top + QUESTION_PX, page.width() - 20, tall - QUESTION_PX - ANSWER_PX)
        paint_case(painter, box.adjusted(0, 0, 0, -14), (kept, result_of(kept)), PRINTED)
        painter.setPen(pen(PRINTED.ink))
        painter.setFont(font(12))
        lettered = zip("abcdefgh", question.options, strict=False)
        options = "     ".join(f"{letter}) {words}" for letter, (_, words) in lettered)
        below = QRectF(0.0, box.bottom() + 6, page.width(), ANSWER_PX - 14)
        painter.drawText(below, Qt.TextFlag.TextWordWrap, options or tr("Answer: ______________________________"))
        painter.setPen(pen(PRINTED.line, 1.0))
        painter.drawLine(QPointF(0.0, top + tall - 4), QPointF(page.width(), top + tall - 4))


def _keys(practice: PracticeSet, speech: Speech) -> list[Drawn]:
    places = range(0, len(practice.cases), KEYS_A_PAGE)
    return [partial(_paint_key, practice=practice, speech=speech, first=first) for first in places]


def _paint_key(painter: QPainter, page: QSizeF, practice: PracticeSet, speech: Speech, first: int) -> None:
    rows = []
    for number, kept in enumerate(practice.cases[first : first + KEYS_A_PAGE], first + 1):
        told = "<br>".join(escape(line) for line in told_of(kept, speech))
        rows.append(f"<tr><td>{number}</td><td>{told}</td></tr>")
    document = QTextDocument()
    document.setDefaultFont(font(12))
    document.setPageSize(page)
    head = f"<h2 style='font-weight:600'>{tr('Key: {name}', name=escape(practice.name))}</h2>"
    document.setHtml(f"{head}<table cellspacing='6'>{''.join(rows)}</table>")
    document.drawContents(painter, QRectF(QPointF(0.0, 0.0), page))
