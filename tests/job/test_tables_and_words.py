"""Shipped tables: species with sources, practices, indicative constants, glossary."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest

from plain_compass.core.base.errors import InputError
from plain_compass.core.base.levels import GROUPS
from plain_compass.core.base.phrase import phrase
from plain_compass.core.base.quantity import KINDS
from plain_compass.core.tree.wood import GROUPS as WOOD_GROUPS
from plain_compass.core.tree.wood import SPLITTING_CLASSES, SUPPLENESS_CLASSES, Indicative, working_strength
from plain_compass.job import tables
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree
from plain_compass.job.typed import TypedError
from plain_compass.job.words import Speech, glossary, vocabularies

PACKAGE = Path(tables.__file__).parent.parent


def test_at_least_forty_species_and_the_two_unknowns() -> None:
    found = tables.species_table()
    assert len(found) >= 42
    assert {"unknown-broadleaf", "unknown-conifer"} <= set(found)


@pytest.mark.parametrize("wood", tables.species_table().values(), ids=lambda w: w.key)
def test_every_species_is_plausible_green_wood_with_a_source(wood: object) -> None:
    assert wood.group in WOOD_GROUPS  # type: ignore[attr-defined]
    assert wood.splitting in SPLITTING_CLASSES  # type: ignore[attr-defined]
    assert wood.suppleness in SUPPLENESS_CLASSES  # type: ignore[attr-defined]
    assert 25e6 <= wood.rupture_Pa <= 110e6  # type: ignore[attr-defined]
    assert 4e9 <= wood.elasticity_Pa <= 15e9  # type: ignore[attr-defined]
    assert 3e6 <= wood.shear_Pa <= 14e6  # type: ignore[attr-defined]
    assert 1e6 <= wood.across_Pa <= 8e6  # type: ignore[attr-defined]
    assert 450 <= wood.density_kg_m3 <= 1200  # type: ignore[attr-defined]
    assert wood.source  # type: ignore[attr-defined]
    assert all(hasattr(wood, name) for name in wood.estimated)  # type: ignore[attr-defined]


def test_the_unknowns_are_no_stronger_than_any_of_their_kind() -> None:
    """A species nobody could name must never look better than one that was named."""
    found = tables.species_table().values()
    for key, is_conifer in (("unknown-broadleaf", False), ("unknown-conifer", True)):
        unknown = tables.wood_of(key)
        kin = [w for w in found if (w.group == "conifer") == is_conifer and not w.key.startswith("unknown")]
        assert unknown.density_kg_m3 >= max(w.density_kg_m3 for w in kin)
        assert unknown.splitting == "very ready"
        assert unknown.suppleness == "brittle"
        assert unknown.shear_Pa <= min(w.shear_Pa for w in kin)
        assert unknown.rupture_Pa <= sorted(w.rupture_Pa for w in kin)[len(kin) // 4]


def test_a_species_that_is_not_in_the_table_is_refused_with_a_way_out() -> None:
    with pytest.raises(InputError, match="unknown-broadleaf"):
        tables.wood_of("quercus")


def test_a_practice_that_does_not_ship_is_refused() -> None:
    with pytest.raises(InputError, match="fifth-and-tenth"):
        tables.practice_of("mine")


def test_a_persons_own_constants_overlay_the_shipped_ones(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    own = tmp_path / "plain-compass"
    own.mkdir()
    (own / "indicative.toml").write_text("[wedges]\nblow_efficiency = 0.5\nnew_key = 1\n")
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    tables.forget_tables()
    try:
        found = tables.indicative()
        assert found.blow_efficiency == 0.5
        assert found.wedge_friction == 0.25
    finally:
        monkeypatch.undo()
        tables.forget_tables()
    assert tables.indicative().blow_efficiency == 0.6


def test_dead_wood_is_reduced_and_live_wood_is_not() -> None:
    oak, constants = tables.wood_of("oak"), tables.indicative()
    assert isinstance(constants, Indicative)
    assert working_strength(oak, "live", constants).rupture_Pa == oak.rupture_Pa
    assert working_strength(oak, "dead", constants).rupture_Pa < oak.rupture_Pa


def test_two_vocabularies_name_the_same_things_differently() -> None:
    assert len(vocabularies()) >= 2
    one, other = (Speech("metric", words) for words in vocabularies())
    assert one.say("The [hinge] and the [back cut]") != other.say("The [hinge] and the [back cut]")
    assert one.say("[Face] roof").startswith("Face")


def test_every_bracketed_word_in_the_program_is_in_the_glossary() -> None:
    terms = set(glossary()["terms"])
    used: set[str] = set()
    for file in (PACKAGE / "core").rglob("*.py"):
        for text in re.findall(r'"([^"\n]*)"', file.read_text()):
            used.update(word.lower() for word in re.findall(r"\[([A-Za-z ]+)\]", text))
    assert used
    assert used <= terms | {"d"}


def test_every_term_has_every_vocabulary_and_a_meaning() -> None:
    for name, term in glossary()["terms"].items():
        assert term["meaning"].endswith("."), name
        assert set(vocabularies()) <= set(term), name


def test_a_label_can_say_what_its_words_mean_in_either_vocabulary() -> None:
    (hinge,) = Speech("metric", "hinge").meanings("[hinge] left")
    (wood,) = Speech("metric", "gob").meanings("[hinge] left")
    assert hinge.startswith("Hinge: The strip of wood left standing")
    assert wood.startswith("Holding wood: ")
    assert Speech().meanings("roof") == []


def test_every_group_has_a_name_and_the_cautions_defer_to_the_person_on_the_spot() -> None:
    assert set(glossary()["groups"]) == set(GROUPS)
    cautions = " ".join(glossary()["cautions"]).lower()
    for word in ("local law", "competent person", "never alone", "two ways out", "kept away", "split", "protection"):
        assert word in cautions
    assert "safe" not in cautions


@pytest.mark.parametrize("units", ["metric", "imperial"])
@pytest.mark.parametrize("words", list(vocabularies()))
def test_every_sentence_of_the_demo_reads_in_every_speech(units: str, words: str) -> None:
    speech, job = Speech(units, words), demo_job()
    result = assess_tree(job, "WH-07")
    texts = [speech.phrase(p) for f in result.findings for p in (f.sentence, f.change)]
    texts += [speech.verdict(result.verdict), *(speech.compared(f) for f in result.findings)]
    for text in texts:
        assert "{" not in text and "[" not in text
    if units == "imperial":
        assert not any(" cm" in text or " mm" in text for text in texts)


def test_a_refusal_is_told_in_the_persons_own_units() -> None:
    error = InputError("cut.face.depth_m", 0.3, kind="length", low=0.005, high=0.199, reason="past the pith")
    assert (
        Speech("metric").error(error, "[face] depth") == "Face depth 30 cm: past the pith; accepted: 0.5 cm to 19.9 cm."
    )
    assert "11 3/4 in" in Speech("imperial").error(error, "[face] depth")


def test_a_refusal_of_what_is_no_number_quotes_it() -> None:
    error = InputError("tree id", "", reason="a tree wants an id of its own")
    assert Speech().error(error) == "Tree id “”: a tree wants an id of its own; accepted: something else."
    assert Speech().error(TypedError("x", "length")).startswith("“x”")


def test_a_phrase_shows_quantities_in_the_persons_units() -> None:
    found = phrase("bar.bore_room.between_hinge_strap", room=0.05, bar=0.1)
    assert "there is 5 cm for" in Speech("metric").phrase(found)
    assert "there is 2 in for" in Speech("imperial").phrase(found)
    assert set(KINDS) >= {"length", "angle", "ratio"}
    assert json.dumps(glossary())
