"""The site goes out as GeoJSON and comes back; what cannot be taken is named and skipped."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.cli import main
from plain_compass.core.base.errors import PlainCompassError
from plain_compass.core.base.paths import with_value
from plain_compass.job.demo import demo_job
from plain_compass.job.document import Job
from plain_compass.job.files import read_job, write_job
from plain_compass.job.geojson import GeoJsonError, import_geojson, site_geojson, with_imported
from plain_compass.job.site_edits import MOST_OBSTACLES


def collection(*features: Any) -> str:
    return json.dumps({"plain_compass": {"coordinates": "local metres"}, "features": list(features)})


def feature(geometry: str, coordinates: Any, **properties: Any) -> dict[str, Any]:
    return {"type": "Feature", "properties": properties, "geometry": {"type": geometry, "coordinates": coordinates}}


def test_the_demo_site_goes_out_and_comes_back_as_it_was() -> None:
    found = import_geojson(site_geojson(demo_job()), "site", demo_job())
    assert found.obstacles == demo_job().site.obstacles
    assert found.spots == demo_job().site.spots
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
    found = import_geojson(collection(feature("Point", [1, 2], kind="rock"), bad), "site", demo_job())
    assert len(found.obstacles) == 1
    assert found.skipped[0].startswith("Feature 2: ")
    assert words in found.skipped[0]


ORIGIN = (-2.3, 54.0)


def placed() -> Job:
    return with_value(with_value(demo_job(), "site.origin_east_deg", ORIGIN[0]), "site.origin_north_deg", ORIGIN[1])


def test_longitude_and_latitude_want_an_origin() -> None:
    text = json.dumps({"features": [feature("Point", [-2.3, 54.001])]})
    with pytest.raises(GeoJsonError, match="neither it nor the job states an origin"):
        import_geojson(text, "lonlat.geojson", demo_job())
    (found,) = import_geojson(text, "lonlat.geojson", placed()).obstacles
    # A minute of latitude is about a nautical mile: a thousandth of a degree 111.3 m at 54 degrees north.
    assert (found.points[0].east_m, found.points[0].north_m) == (0.0, pytest.approx(111.305, abs=0.01))


def test_positions_go_out_and_come_back_to_a_few_millimetres() -> None:
    job = placed()
    found = import_geojson(site_geojson(job, positions=True), "site", demo_job())
    assert found.origin is not None and found.skipped == ()
    for one, other in zip(found.obstacles, job.site.obstacles, strict=True):
        for at, wanted in zip(one.points, other.points, strict=True):
            assert (at.east_m, at.north_m) == pytest.approx((wanted.east_m, wanted.north_m), abs=0.002)
    assert with_imported(demo_job(), found).site.origin_east_deg == ORIGIN[0]
    with pytest.raises(GeoJsonError, match="states no origin"):
        site_geojson(demo_job(), positions=True)


def test_swapped_longitude_and_latitude_are_named() -> None:
    text = json.dumps({"features": [feature("Point", [54.0005, -2.3]), feature("Point", [123.0, 456.0])]})
    found = import_geojson(text, "swapped", placed())
    assert found.obstacles == ()
    assert "look swapped" in found.skipped[0]
    assert "longitude comes first" in found.skipped[1]


def test_a_spot_height_without_height_and_a_rock_on_a_stem_are_skipped() -> None:
    on_stem = demo_job().trees[1].at
    found = import_geojson(
        collection(
            feature("Point", [5, 5], kind="spot height"),
            feature("Point", [5, 5, 1.25], kind="spot height"),
            feature("Point", [on_stem.east_m, on_stem.north_m + 0.1], kind="rock"),
        ),
        "site",
        demo_job(),
    )
    assert [spot.height_m for spot in found.spots] == [1.25]
    assert "no height_m" in found.skipped[0]
    assert "on the stem of WH-12" in found.skipped[1]


def test_a_tree_without_height_is_taken_with_the_usual_one_and_said_so() -> None:
    content = collection(feature("Point", [9, 9], kind="tree"), feature("Point", [5, 9], kind="stump"))
    found = import_geojson(content, "site", demo_job())
    assert [o.height_m for o in found.obstacles] == [15.0, 0.4]
    assert found.assumed == ("Feature 1: neighbour tree without height_m, taken as 15 m high; measure it.",)


@pytest.mark.parametrize("origin", ["here", [1], [200, 0], [0, "x"], {}])
def test_an_origin_that_is_none_is_refused(origin: Any) -> None:
    with pytest.raises(GeoJsonError, match="states the origin"):
        import_geojson(json.dumps({"plain_compass": {"origin": origin}, "features": []}), "odd", demo_job())


def test_a_hundred_thousand_features_are_cut_off_with_a_sentence() -> None:
    found = import_geojson(collection(*[feature("Point", [1, 2])] * 100_000), "big", demo_job())
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
            import_geojson(text, "odd", demo_job())
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
    table = capsys.readouterr().out
    assert "what rules" in table
    # Words, not the names that findings have inside.
    assert not re.search(r"[a-z_]+\.[a-z_]+", table)


@pytest.mark.parametrize(
    "bad",
    [
        {"type": "Feature", "properties": [1], "geometry": {"type": "Point", "coordinates": [1, 2]}},
        {"type": "Feature", "properties": {"kind": [1]}, "geometry": {"type": "Point", "coordinates": [1, 2]}},
        {"type": "Feature", "properties": {"cost": {}}, "geometry": {"type": "Point", "coordinates": [1, 2]}},
        {"type": "Feature", "properties": {}, "geometry": {"type": "Point", "coordinates": [10**400, 2]}},
    ],
)  # fmt: skip
def test_properties_that_are_none_and_numbers_without_end_are_skipped_with_a_sentence(bad: Any) -> None:
    found = import_geojson(collection(bad), "site", demo_job())
    assert not found.obstacles and found.skipped[0].startswith("Feature 1: ")
