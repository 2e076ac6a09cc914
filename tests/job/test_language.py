"""Another language: what it says is said, what it lacks is English, and what is wrong with its file is told."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.base.phrase import Phrase
from plain_compass.job import block_crew, block_kit, language, language_kept
from plain_compass.job.language import (
    Language,
    LanguageError,
    in_words,
    read_language,
    tr,
    tr_count,
    write_decimals_with,
)
from plain_compass.job.language_files import checked, english, made, template
from plain_compass.job.typed import parse
from plain_compass.job.units import shown
from plain_compass.job.words import Speech

GERMAN = {"left": "links", "right": "rechts", "beside": "daneben", "{count} trees": "{count} Bäume", "up to": "bis"}
GERMAN |= {"wedges": "Keile", "wedge": "Keil", "bar": "Schiene", "hard trees": "schwierige Bäume"}


@pytest.fixture
def german(monkeypatch: pytest.MonkeyPatch) -> Language:
    """A little of another language, spoken."""
    spoken = Language("de", "Deutsch", GERMAN)
    monkeypatch.setattr(language, "spoken", lambda: spoken)
    return spoken


@pytest.fixture
def comma() -> object:
    """A system that writes commas."""
    write_decimals_with(",")
    yield
    write_decimals_with(".")


def file_with(folder: Path, **changes: object) -> Path:
    """A language file that is right but for the changes."""
    content = {"format": "plain-compass-language", "version": 1, "code": "de", "name": "Deutsch", "texts": GERMAN}
    path = folder / "de.json"
    path.write_text(json.dumps(content | changes), encoding="utf-8")
    return path


def test_a_text_is_said_as_the_language_has_it_with_its_values_put_in(german: Language) -> None:
    assert tr("{count} trees", count=3) == "3 Bäume"


def test_what_the_language_lacks_is_said_in_english(german: Language) -> None:
    assert tr("Nobody wrote this one") == "Nobody wrote this one"


def test_one_thing_and_many_are_texts_of_their_own() -> None:
    assert [tr_count("{count} card", "{count} cards", n) for n in (0, 1, 2)] == ["0 cards", "1 card", "2 cards"]


def test_braces_in_what_is_put_in_stay_as_they_are() -> None:
    assert tr("{name} is broken", name="{0}{x}") == "{0}{x} is broken"


def test_values_put_in_have_the_comma_of_the_system_and_whole_numbers_none(comma: object) -> None:
    assert tr("{far:.1f} m of {count}", far=2.5, count=12) == "2,5 m of 12"
    assert tr("{count:,} falls", count=2048) == "2\N{NO-BREAK SPACE}048 falls"


@given(st.floats(0.05, 90.0), st.sampled_from(("span", "length", "fine_length", "beside", "force", "speed")))
def test_what_is_shown_with_a_comma_is_read_as_the_same(value: float, kind: str) -> None:
    plainly = parse(shown(value, kind, "metric"), kind, "metric")
    write_decimals_with(",")
    try:
        text = shown(value, kind, "metric")
        assert "." not in text
        assert parse(text, kind, "metric") == plainly
    finally:
        write_decimals_with(".")


def test_a_side_can_be_typed_in_the_language_in_which_it_is_shown(german: Language) -> None:
    assert shown(-2.5, "beside", "metric") == "2.5 m rechts"
    assert parse("2.5 m rechts", "beside", "metric") == -2.5


def test_crew_and_kit_can_be_typed_as_they_are_shown(german: Language) -> None:
    worker = block_crew.worker_of("Wren, hard trees, up to 60 cm", "metric")
    told = block_crew.worker_words(worker, Speech())
    assert told == "Wren, schwierige Bäume, bis 60 cm"
    assert block_crew.worker_of(told, "metric") == worker
    kit = block_kit.kit_set_of("big saw: 3 wedges 25 mm, bar 45 cm", "metric")
    told = block_kit.kit_set_words(kit, Speech())
    assert told == "big saw: 3 Keile 25 mm, Schiene 45 cm"
    assert block_kit.kit_set_of(told, "metric") == kit


def test_a_sentence_of_the_catalogue_is_said_by_its_key(monkeypatch: pytest.MonkeyPatch) -> None:
    from plain_compass.job.words import catalogue, speech

    key = "verdict.odds"
    spoken = Language("de", sentences={key: "Es misslingt {chance:chance}.", "glossary.levels.stop": "Halt"})
    for where in (language, catalogue):
        monkeypatch.setattr(where, "spoken", lambda: spoken)
    found = catalogue.sentences.__wrapped__()
    assert found[key] == "Es misslingt {chance:chance}."
    assert found["around.both"] == catalogue.sentences_in_english()["around.both"]
    monkeypatch.setattr(speech, "sentences", lambda: found)
    speech._filled.cache_clear()
    assert Speech().tell(Phrase(key, (("chance", 0.25),))).startswith("Es misslingt about 1 time in 4")
    speech._filled.cache_clear()
    assert catalogue.glossary.__wrapped__()["levels"]["stop"] == "Halt"


@pytest.mark.parametrize(
    ("changes", "told"),
    [
        ({"format": "else"}, "field “format” should say plain-compass-language"),
        ({"version": 2}, "field “version” is 2; this program reads up to 1"),
        ({"version": "1"}, "field “version” is '1'"),
        ({"texts": ["left"]}, "field “texts” is no table of texts"),
        ({"sentences": {"a": 1}}, "field “sentences” is no table of texts"),
    ],
)
def test_a_file_that_cannot_be_used_is_refused_with_its_field_and_value(
    tmp_path: Path, changes: dict[str, object], told: str
) -> None:
    with pytest.raises(LanguageError, match=r"de\.json") as caught:
        read_language(file_with(tmp_path, **changes))
    assert told in str(caught.value)


def test_a_broken_file_and_one_that_is_not_there_are_told(tmp_path: Path) -> None:
    (tmp_path / "de.json").write_text("{", encoding="utf-8")
    with pytest.raises(LanguageError, match="it is no JSON"):
        read_language(tmp_path / "de.json")
    with pytest.raises(LanguageError, match="could not be read"):
        read_language(tmp_path / "fr.json")


def test_a_language_that_is_not_there_is_english_and_says_so(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv(language.CHOICE, "zz")
    found = language.spoken.__wrapped__()
    assert found.code == "en"
    assert found.trouble == "There is no language “zz” here; accepted: en."


def test_a_language_is_chosen_for_the_next_start_and_the_systems_taken_where_none_is(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    monkeypatch.delenv(language.CHOICE, raising=False)
    for name in ("LC_ALL", "LC_MESSAGES"):
        monkeypatch.delenv(name, raising=False)
    monkeypatch.setenv("LANG", "de_AT.UTF-8")
    settled = language.spoken.__wrapped__
    assert settled().code == "en"  # there is no German yet
    language.own_folder().mkdir(parents=True)
    file_with(language.own_folder())
    assert settled().name == "Deutsch"
    language_kept.choose("en")
    assert settled().code == "en"
    language_kept.choose("de")
    assert settled().code == "de"


def test_an_empty_text_is_one_that_nobody_has_written_yet(tmp_path: Path) -> None:
    assert read_language(file_with(tmp_path, texts={"left": "", "right": "rechts"})).texts == {"right": "rechts"}


def test_a_made_language_that_says_everything_is_good_and_a_template_lacks_all(tmp_path: Path) -> None:
    file = tmp_path / "xx.json"
    file.write_text(made("xx", "Made", lambda text: text), encoding="utf-8")
    assert checked(read_language(file)).is_good
    file.write_text(template("xx", "Made"), encoding="utf-8")
    assert len(checked(read_language(file)).missing) == sum(map(len, english().values()))


def test_a_template_keeps_what_is_written_already(tmp_path: Path) -> None:
    content = json.loads(template("de", "Deutsch", Language("de", texts={"left": "links", "no text of ours": "x"})))
    assert content["texts"]["left"] == "links"
    assert content["texts"]["right"] == ""
    assert "no text of ours" not in content["texts"]


def test_what_is_missing_surplus_or_filled_otherwise_is_found() -> None:
    said = dict(english()["texts"])
    del said["left"]
    said["never said"] = "x"
    said["{count} trees to fell, {hours:.1f} h."] = "{count} Bäume"
    said["drag the left end of the [hinge]"] = "am [strap] ziehen"
    rest = {table: english()[table] for table in ("sentences", "pages")}
    found = checked(Language("de", texts=said, **rest))
    assert found.missing == ("texts: left",)
    assert found.surplus == ("texts: never said",)
    assert [each.partition(": it names")[0] for each in found.unfilled] == [
        "texts: {count} trees to fell, {hours:.1f} h."
    ]
    assert found.untaught == ("texts: drag the left end of the [hinge]",)
    assert not found.is_good


def test_numbers_in_files_keep_their_point_whatever_the_system_writes(comma: object) -> None:
    from plain_compass.job.demo import demo_job
    from plain_compass.job.tree_list import export_csv

    assert in_words("2.5") == "2,5"
    assert "17.5" in export_csv(demo_job())


def test_a_text_that_names_what_is_not_there_is_said_in_english(monkeypatch: pytest.MonkeyPatch) -> None:
    ill = {"{count} trees": "{zahl} Bäume", "{far:.1f} m": "{far:q} m", "{name} is gone": "{name.away} {0} {"}
    monkeypatch.setattr(language, "spoken", lambda: Language("de", texts=ill))
    assert tr("{count} trees", count=3) == "3 trees"
    assert tr("{far:.1f} m", far=2.5) == "2.5 m"
    assert tr("{name} is gone", name="oak") == "oak is gone"


def test_a_sentence_that_names_what_is_not_there_is_said_in_english(monkeypatch: pytest.MonkeyPatch) -> None:
    from plain_compass.job.words import speech

    monkeypatch.setattr(speech, "sentences", lambda: {"verdict.odds": "Es misslingt {wie:chance}."})
    speech._filled.cache_clear()
    told = Speech().tell(Phrase("verdict.odds", (("chance", 0.25),)))
    speech._filled.cache_clear()
    assert "misslingt" not in told and "about 1 time in 4" in told
