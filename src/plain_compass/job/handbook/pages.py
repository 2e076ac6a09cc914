"""The pages of the handbook as Markdown, made from declarations, catalogue and a few texts that ship.

One source for the window's help and for the printed handbook. Links lead from page to page as ``help:ID``.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import lru_cache

from ...core.cuts import NEVER_PLANNED, forms_of
from ...core.judge.limits import LIMITS
from ...core.judge.places import where_of
from ..fields import choice_at, is_choice, is_number, label_of, quantity_at
from ..language import tr
from ..step_names import STEP_NAMES
from ..tables import constants_explained, constants_in_force, disagreements
from ..units import EXAMPLES
from ..words import Speech
from ..words.catalogue import glossary, sentences
from .places import CHAPTERS, field_page, lessons, page_ids, settled_by, shipped_text

KINDS = {
    "lessons": "lesson",
    "groups": "group",
    "findings": "finding",
    "forms": "form",
    "fields": "field",
    "schools": "",
    "terms": "term",
    "model": "",
    "constants": "",
}
"""Chapter -> how the ids of its pages begin; nothing for one that is a page itself."""
_HOLE = re.compile(r"\{(\w+)(?::\w+)?\}")


def page(id: str, speech: Speech) -> str:
    """A page as Markdown. KeyError for one there is not."""
    # What somebody may change while the program runs is told as it is now; all else is made once.
    return _constants(speech) if id == "constants" else _made(id, speech)


@lru_cache(maxsize=1024)
def _made(id: str, speech: Speech) -> str:
    kind, _, rest = id.partition(":")
    makers: dict[str, Callable[[str, Speech], str]] = {
        "lesson": _lesson, "group": _group, "finding": _finding, "form": _form, "field": _field, "term": _term
    }  # fmt: skip
    if rest and kind in makers:
        return makers[kind](rest, speech)
    return _CHAPTER_PAGES[id](speech)


def title_of(id: str, speech: Speech) -> str:
    """What a page is called."""
    return title_in(page(id, speech))


def title_in(text: str) -> str:
    """What a page with this text is called."""
    return text.partition("\n")[0].removeprefix("# ")


def _said(template: str, speech: Speech) -> str:
    """A sentence of the catalogue with its holes left open."""
    return _HOLE.sub("…", speech.say(template))


def _link(id: str, text: str) -> str:
    # The names of some terms are two words, and a link ends at a space.
    return f"[{text}](help:{id.replace(' ', '%20')})"


def _field(path: str, speech: Speech) -> str:
    label = speech.say(label_of(path))
    lines = [f"# {label[:1].upper()}{label[1:]}", ""]
    if is_choice(path):
        _, options, told = choice_at(path)
        lines += [speech.say(told), "", tr("One of:"), ""]
        lines += [f"- {speech.say(words)}" for words in options.values()]
    elif is_number(path):
        about = quantity_at(path)
        lines += [speech.say(about.help), ""]
        lines.append(
            tr(
                "Accepted: {low} to {high}.",
                low=speech.show(about.low, about.kind),
                high=speech.show(about.high, about.kind),
            )
        )
        lines.append(tr("Typed for example as `{examples}`.", examples=EXAMPLES.get(about.kind, "1")))
        if about.optional:
            lines.append(tr("Left empty it is not known, and nothing is made up in its place."))
    ids = settled_by(path)
    if ids:
        lines += ["", tr("Findings that are put right here:"), ""]
        lines += [f"- {_link(f'finding:{id}', _finding_title(id, speech))}" for id in ids]
    for row in disagreements():
        if path in row["fields"]:
            others = "; ".join(speech.say(each) for each in row["schools"])
            lines += [
                "",
                tr("The trade on *{question}*: {others}.", question=speech.say(row["question"]), others=others),
            ]
            lines += [
                "",
                tr("Here: {choice}. {reason}", choice=speech.say(row["choice"]), reason=speech.say(row["reason"])),
            ]
            lines += ["", _link("schools", CHAPTERS["schools"])]
    return "\n".join([*lines, "", _link("fields", tr("All fields"))])


def _finding_title(id: str, speech: Speech) -> str:
    ruled = glossary()["ruled_by"].get(id)
    return speech.say(ruled or glossary()["titles"][id])


def _finding(id: str, speech: Speech) -> str:
    title = _finding_title(id, speech)
    where, lines = where_of(id), [f"# {title[:1].upper()}{title[1:]}", ""]
    if id in LIMITS:
        group = LIMITS[id].group
        name = speech.say(glossary()["groups"][group])
        lines += [
            tr("Limit state: {link}. Its level is its chance of failing.", link=_link(f"group:{group}", name)),
            "",
        ]
    mine = [key for key in sentences() if key.startswith(f"{id}.") and not key.endswith("change")]
    told = [key for key in mine if sentences()[key].endswith(".")]  # the rest are parts of these
    if told:
        lines += [tr("What is said of it:"), "", *(f"- {_said(sentences()[key], speech)}" for key in told), ""]
    changes = [sentences()[key] for key in sentences() if key.startswith(f"{id}.") and key.endswith("change")]
    if changes:
        lines += [tr("What would change it:"), "", *(f"- {_said(text, speech)}" for text in changes), ""]
    there = _link(field_page(where.field), speech.say(label_of(where.field))) if where.field else tr("on the drawing")
    lines += [tr("Put right on *{steps}*: {there}.", steps=STEP_NAMES[where.step], there=there), ""]
    lines.append(f"{_link('model', tr('How it reckons'))} · {_link('findings', tr('All findings'))}")
    return "\n".join(lines)


def _group(group: str, speech: Speech) -> str:
    name = speech.say(glossary()["groups"][group])
    ids = [id for id, measure in LIMITS.items() if measure.group == group]
    rows = [f"- {_link(f'finding:{id}', _finding_title(id, speech))}" for id in ids] or [
        tr("- told by what was looked at")
    ]
    about = tr(
        "A strip of the band is a short ruler: a notch at the limit, a peg at the value. A peg past the notch is a "
        "stop. Clear is under 1 in 50 to fail, watch up to 1 in 5, a stop above; unknown is never clear."
    )
    head = [f"# {name}", "", about, "", tr("What is held against a limit here:"), ""]
    return "\n".join([*head, *rows, "", _link("groups", tr("All pegs"))])


def _form(which: str, speech: Speech) -> str:
    part, _, key = which.partition(".")
    form = next(each for each in forms_of(part) if each.key == key)
    head = f"cut.{part}.{key}."
    name = speech.phrase(form.name)
    lines = [f"# {name}", ""]
    texts = sentences()
    for ending, title in (("purpose", ""), ("do", tr("How: ")), ("drill", tr("To practise: "))):
        if head + ending in texts:
            lines += [title + _said(texts[head + ending], speech), ""]
    if form.specialist:
        lines += [
            tr("**Specialist:** it opens only after a statement of what it needs, and where a miss costs nothing."),
            "",
        ]
    fits = [texts[key] for key in texts if key.startswith(f"{head}fits.")]
    if fits:
        lines += [tr("When it does not fit:"), "", *(f"- {_said(text, speech)}" for text in fits), ""]
    return "\n".join([*lines, _link("forms", tr("All cuts"))])


def _term(term: str, speech: Speech) -> str:
    entry = glossary()["terms"][term]
    names = [f"- {words}: **{entry[key]}**" for key, words in glossary()["vocabularies"].items()]
    own = speech.say(f"[{term}]")
    head = [f"# {own[:1].upper()}{own[1:]}", "", speech.say(entry["meaning"]), ""]
    return "\n".join([*head, *names, "", _link("terms", tr("All words"))])


def _lesson(number: str, speech: Speech) -> str:
    place = int(number)
    title, text = lessons()[place - 1]
    onward = _link(f"lesson:{place + 1}", tr("Next")) if place < len(lessons()) else _link("lessons", tr("All lessons"))
    return f"# {speech.say(title)}\n\n{speech.say(text)}\n\n{onward}"


def _index(speech: Speech) -> str:
    rows = [f"- {_link(id, title)}" for id, title in CHAPTERS.items() if id != "index"]
    about = tr("F1 on a field, a finding or a form of cut opens its page. Words typed above the list find pages.")
    return "\n".join([tr("# Handbook"), "", *_cautions(speech), "", about, "", *rows])


def _cautions(speech: Speech) -> list[str]:
    """What every plan and card carries, and so this book."""
    return [f"- {text}" for text in speech.cautions()]


def _listed(title: str, ids: list[str], speech: Speech) -> str:
    rows = [f"- {_link(id, title_of(id, speech))}" for id in ids]
    return "\n".join([f"# {title}", "", *rows, "", _link("index", CHAPTERS["index"])])


def _chapter(chapter: str, kind: str) -> Callable[[Speech], str]:
    return lambda speech: _listed(CHAPTERS[chapter], [id for id in page_ids() if id.startswith(f"{kind}:")], speech)


def _forms(speech: Speech) -> str:
    rows = _chapter("forms", KINDS["forms"])(speech)
    return f"{rows}\n\n{speech.phrase(NEVER_PLANNED)}"


def _schools(speech: Speech) -> str:
    lines = [f"# {CHAPTERS['schools']}", ""]
    for row in disagreements():
        question = speech.say(row["question"])
        lines += [f"**{question[:1].upper()}{question[1:]}**", ""]
        lines += [f"- {speech.say(each)}" for each in row["schools"]]
        lines += [
            "",
            tr("Here: {choice}. {reason}", choice=speech.say(row["choice"]), reason=speech.say(row["reason"])),
            "",
        ]
    return "\n".join([*lines, _link("index", CHAPTERS["index"])])


def _model(_: Speech) -> str:
    text = shipped_text("model.md")
    return f"{text}\n\n{_link('constants', CHAPTERS['constants'])} · {_link('index', CHAPTERS['index'])}"


def _constants(_: Speech) -> str:
    lines = [tr("# Constants"), "", tr("Indicative, as in force now; one changed in your own file is marked."), ""]
    explained = constants_explained()
    for name, value, shipped in constants_in_force():
        table = name.partition(".")[0]
        if table in explained:
            lines += ["", f"## {table.replace('_', ' ')}", "", tr(explained.pop(table)), ""]
            lines += [tr("| constant | value |"), "|---|---|"]
        mark = tr(" **changed**; ships as {shipped:g}", shipped=shipped) if value != shipped else ""
        lines.append(f"| `{name}` | {value:g}{mark} |")
    return "\n".join([*lines, "", _link("index", CHAPTERS["index"])])


def whole(speech: Speech) -> str:
    """The whole book as one text, its chapters in the order in which they are read; links are words only."""
    parts = ["\n".join([tr("# Plain Compass: handbook"), "", *_cautions(speech)])]
    for chapter, kind in KINDS.items():
        mine = [id for id in page_ids() if kind and id.startswith(f"{kind}:")]
        head = f"# {CHAPTERS[chapter]}" if mine else page(chapter, speech)
        parts += [head, *(f"#{page(id, speech)}" for id in mine)]
    return "\n\n".join(_unlinked(part) for part in parts)


def _unlinked(text: str) -> str:
    """Without the lines that only lead elsewhere, and links as the words they are on."""
    lines = (line for line in text.split("\n") if re.sub(r"\[[^\]]*\]\(help:[^)]*\)|[·\s]", "", line) or not line)
    return re.sub(r"\[([^\]]*)\]\(help:[^)]*\)", r"\1", "\n".join(lines))


_CHAPTER_PAGES: dict[str, Callable[[Speech], str]] = {
    **{chapter: _chapter(chapter, kind) for chapter, kind in KINDS.items() if kind},
    "index": _index,
    "forms": _forms,
    "schools": _schools,
    "model": _model,
}
