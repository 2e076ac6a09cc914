"""The site goes out as GeoJSON and comes back; what cannot be taken is named and skipped."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.cli import main
from plain_compass.core.errors import PlainCompassError
from plain_compass.job.demo import demo_job
from plain_compass.job.files import read_job, write_job
from plain_compass.job.geojson import GeoJsonError, import_geojson, site_geojson
from plain_compass.job.site_edits import MOST_OBSTACLES


def collection(*features: Any) -> str:
    return json.dumps({"plain_compass": {"coordinates": "local metres"}, "features": list(features)})


def feature(geometry: str, coordinates: Any, **properties: Any) -> dict[str, Any]:
    return {"type": "Feature", "properties": properties, "geometry": {"type": geometry, "coordinates": coordinates}}


def test_the_demo_site_goes_out_and_comes_back_as_it_was() -> None:
    found = import_geojson(site_geojson(demo_job()), "site")
    assert found.obstacles == demo_job().site.obstacles
    assert found.skipped == ()


@pytest.mark.parametrize(
    ("bad", "words"),
    [
        (feature("Point", [0, 0], kind="dragon"), "kind 'dragon'"),
        (feature("Point", [0, 0], cost="dear"), "cost 'dear'"),
        (feature("Point", [0, "far"]), "north is 'far'"),
        (feature("Point", [0, 9e9]), "north_m"),
        (feature("MultiPolygon", []), "geometry 'MultiPolygon'"),
        (feature("LineString", [[0, 0]]), "make no line"),
        (feature("Polygon", [[[0, 0], [4, 4], [4, 0], [0, 4], [0, 0]]]), "crosses itself"),
        (feature("Point", [0, 0], height_m=-3), "height_m"),
        ({"type": "Feature"}, "no feature with a geometry"),
        ("rubbish", "no feature with a geometry"),
        ({"geometry": {"type": "Point"}}, "has no coordinates"),
    ],
)
def test_a_feature_that_cannot_be_taken_is_skipped_by_its_number(bad: Any, words: str) -> None:
    found = import_geojson(collection(feature("Point", [1, 2], kind="rock"), bad), "site")
    assert len(found.obstacles) == 1
    assert found.skipped[0].startswith("Feature 2: ")
    assert words in found.skipped[0]


def test_longitude_and_latitude_are_refused_rather_than_taken_for_metres() -> None:
    with pytest.raises(GeoJsonError, match="Longitude and latitude are not read"):
        import_geojson(json.dumps({"features": [feature("Point", [-3.2, 55.9])]}), "lonlat.geojson")


def test_a_hundred_thousand_features_are_cut_off_with_a_sentence() -> None:
    found = import_geojson(collection(*[feature("Point", [1, 2])] * 100_000), "big")
    assert len(found.obstacles) == MOST_OBSTACLES
    assert "features from number 201 on" in found.skipped[-1]


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(),
        lambda inner: st.lists(inner) | st.dictionaries(st.text(), inner),
        max_leaves=12,
    )
)
def test_anything_at_all_is_taken_or_refused_in_a_sentence(content: Any) -> None:
    for text in (json.dumps(content), collection(content)):
        try:
            import_geojson(text, "odd")
        except PlainCompassError as error:
            assert str(error).endswith(".")


def test_the_command_takes_a_site_out_and_puts_it_back(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    job, site = tmp_path / "job.pcjob.json", tmp_path / "site.geojson"
    write_job(job, demo_job())
    assert main(["site", "export", str(job), "-o", str(site)]) == 0
    content = json.loads(site.read_text())
    content["features"] = [*content["features"][:2], feature("Circle", [])]
    site.write_text(json.dumps(content))
    assert main(["site", "import", str(site), "-o", str(job)]) == 0
    assert "Feature 3" in capsys.readouterr().err
    assert len(read_job(job).job.site.obstacles) == 2


def test_the_rose_command_tells_every_bearing_in_json(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["rose", "demo", "--every", "90", "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)["rose"]
    assert [row["bearing_deg"] for row in rows] == [0, 90, 180, 270]
    assert set(rows[0]) >= {"margin", "ruled_by", "help", "targets", "pull_N", "refused"}
    assert main(["rose", "demo", "--every", "90"]) == 0
    assert "decay.shell" in capsys.readouterr().out
