"""Species of one's own: taken in with the checks of those that ship, and kept for every job."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from builders import assessed, case, plain_cut, round_tree
from plain_compass.cli import main
from plain_compass.core.assess import assess
from plain_compass.core.base.errors import PlainCompassError
from plain_compass.job.own_species import read_rows, rows_text
from plain_compass.job.spreads import spreads, wood_spreads
from plain_compass.job.tables import forget_tables, own_species, species_table, table_troubles, take_species_in, wood_of

ROW = {
    "key": "withy-bog-oak",
    "name": "bog oak of the Holm",
    "group": "broadleaf",
    "rupture_MPa": "70",
    "elasticity_GPa": "9",
    "shear_MPa": "9",
    "across_MPa": "4",
    "density_kg_m3": "1150",
    "basic_density_kg_m3": "650",
    "splitting": "ready",
    "suppleness": "brittle",
    "source": "tested in the yard",
    "estimated": "",
}


@pytest.fixture(autouse=True)
def own_folder(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    forget_tables()
    yield
    forget_tables()


def written(tmp_path: Path, **changes: str) -> Path:
    row = ROW | changes
    path = tmp_path / "mine.csv"
    path.write_text(",".join(row) + "\n" + ",".join(row.values()) + "\n", encoding="utf-8")
    return path


def test_a_row_of_ones_own_is_taken_in_and_reckoned_with(tmp_path: Path) -> None:
    (taken,) = take_species_in(written(tmp_path))
    assert wood_of("withy-bog-oak") == taken
    assert taken.rupture_Pa == 70e6 and taken.moisture == pytest.approx(1150 / 650 - 1)
    assert list(species_table())[-2:] == ["unknown-broadleaf", "unknown-conifer"]
    # Once more with another value: the row is replaced, not doubled.
    take_species_in(written(tmp_path, rupture_MPa="80"))
    assert wood_of("withy-bog-oak").rupture_Pa == 80e6
    assert own_species().read_text(encoding="utf-8").count("withy-bog-oak") == 1


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"rupture_MPa": "900"}, "rupture_MPa is 900"),
        ({"rupture_MPa": "strong"}, "not a number"),
        ({"rupture_MPa": "nan"}, "rupture_MPa"),
        ({"splitting": "often"}, "one of very ready, ready, middling, reluctant"),
        ({"suppleness": ""}, "suppleness"),
        ({"basic_density_kg_m3": "1100"}, ""),
        ({"density_kg_m3": "600"}, "green wood is wet"),
        ({"key": "two words"}, "name a species"),
        ({"source": ""}, "where its values come from"),
        ({"key": "oak"}, "a species that ships"),
    ],
)
def test_a_row_that_does_not_hold_together_is_one_sentence(
    changes: dict[str, str], says: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    status = main(["species", "--add", str(written(tmp_path, **changes))])
    said = capsys.readouterr()
    assert status == (2 if says else 0)
    assert says in said.err and "Traceback" not in said.err
    assert said.err.count("\n") <= 1


def test_a_file_without_its_columns_or_rows_is_refused(tmp_path: Path) -> None:
    for text in ("key,name\noak,oak\n", ",".join(ROW) + "\n", ""):
        with pytest.raises(PlainCompassError):
            read_rows(text, "mine.csv")
    twice = ",".join(ROW) + "\n" + 2 * (",".join(ROW.values()) + "\n")
    with pytest.raises(PlainCompassError, match="second time"):
        read_rows(twice, "mine.csv")


def test_a_kept_file_that_was_broken_by_hand_is_told_and_not_written_over(tmp_path: Path) -> None:
    own_species().parent.mkdir(parents=True)
    own_species().write_text("spoilt", encoding="utf-8")
    forget_tables()
    assert any("Species of your own are not used" in each for each in table_troubles())
    with pytest.raises(PlainCompassError, match="not used"):
        take_species_in(written(tmp_path))
    assert own_species().read_text(encoding="utf-8") == "spoilt"


def test_what_ships_goes_to_text_and_back() -> None:
    woods = {key: wood for key, wood in species_table().items() if wood.holding_Pa is None}
    assert read_rows(rows_text(woods.values()), "all.csv") == woods


def test_the_list_names_every_row_with_its_source(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["species", "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)["species"]
    assert len(rows) == len(species_table()) and all(row["source"] for row in rows)
    assert main(["species"]) == 0
    assert len(capsys.readouterr().out.splitlines()) == len(rows)


def test_what_practice_says_of_single_species_stands_in_the_table() -> None:
    table = species_table()
    assert {table[key].splitting for key in ("alder", "alder-red")} == {"very ready"}
    assert {table[key].splitting for key in ("cottonwood", "poplar-hybrid")} == {"ready"}
    assert {table[key].suppleness for key in ("aspen", "aspen-quaking", "poplar-hybrid")} == {"average"}
    british = table["spruce-sitka-british"]
    assert (british.rupture_Pa, british.elasticity_Pa, british.density_kg_m3) == (34e6, 5.9e9, 900.0)
    douglas = table["douglas-fir-british"]
    assert (douglas.elasticity_Pa, douglas.density_kg_m3) == pytest.approx((8.3e9, 870.0))
    assert table["spruce-norway"].density_kg_m3 == 900.0


@pytest.mark.parametrize("kind", ["broadleaf", "conifer"])
def test_an_unknown_species_is_the_worst_of_its_kind_for_every_limit(kind: str) -> None:
    """Weak where it must carry, strong where holding long or splitting is the worse."""
    unknown = wood_of(f"unknown-{kind}")
    own = [w for w in species_table().values() if (w.group == "conifer") == (kind == "conifer") and w != unknown]
    assert unknown.rupture_Pa <= min(w.rupture_Pa for w in own)
    assert unknown.holding_Pa == max(w.rupture_Pa for w in own)
    cut = plain_cut(hinge__left_m=0.03, hinge__right_m=0.03)
    back = {"lean__angle_deg": 1.0, "lean__bearing_deg": 180.0}
    worst = assessed(round_tree(species=unknown.key, **back), cut).parts
    for wood in own:
        if wood.suppleness == "brittle":
            parts = assessed(round_tree(species=wood.key, **back), cut).parts
            same = assess(replace(case(round_tree(species=unknown.key, **back), cut), wood=replace(unknown, key="x")))
            assert same.parts.wedging.lift_m == worst.wedging.lift_m
            assert parts.splitting.split_index_bored <= worst.splitting.split_index_bored * 1.001, wood.key


def test_an_unknown_species_spreads_as_far_as_the_species_it_may_be() -> None:
    known, unknown = wood_spreads("oak"), wood_spreads("unknown-broadleaf")
    assert known == spreads()["wood"]
    rows = [w.rupture_Pa for w in species_table().values() if w.group != "conifer" and not w.key.startswith("unknown")]
    between = float(np.std(np.log(rows)))
    assert between > 0.1
    assert unknown["rupture"] == pytest.approx((known["rupture"] ** 2 + between**2) ** 0.5)
    assert unknown["fibre"] == known["fibre"]
    assert all(unknown[name] >= known[name] for name in known)
