"""The fall in a table: the design looked at, and the kept one beside it."""

from __future__ import annotations

from html import escape

from ....core.judge.fall import wrongs_told
from ....core.judge.unmeasured import lacking_of
from ....job.fall import WRONGS, butt_words, named_driver
from ....job.language import tr
from ....job.learned_words import hand_words
from ....job.units import chance_words
from ....job.words import Speech
from ...drawing.fall.strobe_painter import contact_words
from ...frame.store import Snapshot
from .playback import Design, Playback

TOLD_FROM = 0.005
"""Chance from which a way to go wrong stands in the table."""


def rows_of(design: Design, speech: Speech) -> list[tuple[str, str]]:
    """(name, value) of everything that is told of a fall."""
    fall, fan, show = design.fall, design.fan, speech.show
    low, middle, high = (show(value, "aside") for value in fan.off_deg)
    wrong = [
        f"{speech.say(WRONGS[chance.key])} {chance_words(chance.share)}"
        for chance in wrongs_told(design.result.findings, fan)
        if chance.share >= TOLD_FROM
    ]
    hung = fall.hangs_on is not None
    aimed = design.result.case.cut.aim_off_deg
    return [
        (
            tr("let go at"),
            tr(
                "{start_deg}, {ends} in {time_s}",
                start_deg=show(fall.start_deg, "angle"),
                ends=tr("hung") if hung else tr("down"),
                time_s=show(fall.time_s, "time"),
            ),
        ),
        (
            tr("top meets it") if hung else tr("top lands"),
            f"{show(fall.tip_speed_m_s, 'speed')}, {contact_words(fall)}",
        ),
        (
            speech.say("[hinge]"),
            f"{speech.named('lets_go_by', fall.hinge_broke_by)}, {show(fall.hinge_broke_at_deg, 'angle')}",
        ),
        (tr("butt"), butt_words(speech, fall)),
        (
            tr("off the lay"),
            tr(
                "{bearing_error_deg}; likely {middle}",
                bearing_error_deg=show(fall.bearing_error_deg, "aside"),
                middle=middle,
            ),
        ),
        (tr("nine in ten"), tr("{low} to {high}", low=low, high=high)),
        (tr("may go wrong"), "; ".join(wrong) or tr("nothing that shows in these")),
        *([(tr("aimed off"), show(aimed, "aside"))] if aimed else []),
    ]


def describe(playback: Playback, snapshot: Snapshot) -> str:
    """The table as rich text."""
    now, kept, speech = playback.now, playback.kept, snapshot.speech
    if now is None:
        return f"<p>{tr('Reckoning the fall …')}</p>"
    rows, beside = rows_of(now, speech), dict(rows_of(kept, speech)) if kept is not None else {}
    cells = []
    if kept is not None:
        cells.append(
            f"<tr><td></td><td><b>{tr('now')}</b></td><td style='padding-left:10px'><b>{escape(kept.name)}</b></td>"
            "</tr>"
        )
    for name, value in rows:
        other = f"<td style='padding-left:10px'>{escape(beside.get(name, '–'))}</td>" if kept is not None else ""
        cells.append(f"<tr><td style='padding-right:8px'>{escape(name)}</td><td>{escape(value)}</td>{other}</tr>")
    first = now.fan.drivers[:2]
    drivers = ", ".join(
        f"{escape(named_driver(snapshot.plan, path, snapshot.job))} {share * 100:.0f} %" for path, share in first
    )
    own = hand_words(snapshot.job.hand, speech)
    learned = f"<p style='margin-top:5px'>{escape(own)}</p>" if own else ""
    by = tr("<b>Drives the spread:</b> {drivers}.", drivers=drivers)
    driven = f"<p style='margin-top:5px'>{by}</p>" if drivers else ""
    lacking, bare = lacking_of(snapshot.plan.tree), ""
    if lacking:
        told = speech.tell(lacking)
        bare = f"<p>{tr('<b>Only a stand-in falls here:</b> not measured: {lacking}.', lacking=told)}</p>"
    return f"{bare}<table cellspacing='1'>{''.join(cells)}</table>{driven}{learned}"
