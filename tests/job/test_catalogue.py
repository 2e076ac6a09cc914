"""The one catalogue: every sentence the core asks for is there, none is left over, none holds a bare trade word."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

import plain_compass
from plain_compass.core.base.phrase import Row, phrase
from plain_compass.core.base.quantity import KINDS
from plain_compass.core.cuts import forms
from plain_compass.job.words import Speech, glossary, sentences, vocabularies
from plain_compass.job.words.speech import PLACE

PACKAGE = Path(plain_compass.__file__).parent
BARE = re.compile(r"(?<![\w\[])(?:face|hinge|strap|back cut|overcut)s?(?![\w\]])", re.IGNORECASE)


def strings(source: str) -> Iterator[str]:
    """Every string of a module; what is put together becomes a pattern."""
    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.Constant) and isinstance(node.value, str):
            yield re.escape(node.value)
        if isinstance(node, ast.JoinedStr):
            parts = (re.escape(str(v.value)) if isinstance(v, ast.Constant) else r"[\w-]+" for v in node.values)
            yield "".join(parts)


ASKED = {text for path in PACKAGE.rglob("*.py") for text in strings(path.read_text()) if r"\." in text}


def test_no_sentence_is_left_over_that_nobody_asks_for() -> None:
    patterns = [re.compile(text) for text in ASKED if "[" in text]
    left = [k for k in sentences() if re.escape(k) not in ASKED and not any(p.fullmatch(k) for p in patterns)]
    assert not left


def test_every_sentence_that_is_asked_for_by_its_whole_key_is_there() -> None:
    """Looks at what is handed to ``phrase``; keys put together are met by the tests that tell every finding."""
    for path in (PACKAGE / "core").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if (
                isinstance(node, ast.Call)
                and isinstance(node.func, ast.Name)
                and node.func.id == "phrase"
                and node.args
            ):
                key = node.args[0]
                if isinstance(key, ast.Constant):
                    assert key.value in sentences(), f"{path.name}:{node.lineno}: {key.value}"


@pytest.mark.parametrize("form", forms().values(), ids=lambda form: f"{form.part}-{form.key}")
def test_every_form_has_its_words(form: object) -> None:
    for key in (form.name, form.purpose, form.drill, *form.labels.values()):  # type: ignore[attr-defined]
        assert sentences()[key]
    assert (form.needs in sentences()) is form.specialist  # type: ignore[attr-defined]


@pytest.mark.parametrize("key", sentences())
def test_a_sentence_has_no_bare_trade_word_known_terms_and_kinds_that_exist(key: str) -> None:
    text = sentences()[key]
    assert not BARE.search(PLACE.sub("", text))
    for term in re.findall(r"\[([A-Za-z ]+)\]", text):
        assert term.lower() in glossary()["terms"]
    for _, how in PLACE.findall(text):
        assert how in (*KINDS, "", "small", "capital")


def test_a_quantity_without_a_kind_in_its_place_is_an_error_and_not_a_number() -> None:
    sentences()["test.bare"] = "{value} long"
    try:
        with pytest.raises(KeyError, match="wants a kind"):
            Speech().phrase(phrase("test.bare", value=0.3))
    finally:
        del sentences()["test.bare"]


def test_several_things_are_told_as_people_list_them() -> None:
    names = ("the oak", phrase("side.left"), "x")
    assert Speech().tell(phrase("measured.things", names=names)) == "the oak, left and x"
    assert Speech().tell(phrase("measured.things", names=("x",))) == "x"
    assert Speech().tell(phrase("measured.things", names=Row(names))) == "the oak, left, x"


@pytest.mark.parametrize("words", vocabularies())
def test_every_sentence_can_be_said_in_every_vocabulary(words: str) -> None:
    for text in sentences().values():
        assert not re.search(
            r"\[(?:face|hinge|strap|back cut|overcut)\]", Speech("metric", words).say(text), re.IGNORECASE
        )
