"""Typed values: every way a person writes a measure, and a sentence for every way that is none."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.job.typed import TypedError, parse, parse_typed
from plain_compass.job.units import EXAMPLES, shown, tape_rounded

INCH, FOOT = 0.0254, 0.3048


@pytest.mark.parametrize(
    ("text", "kind", "metres"),
    [
        ("55", "length", 0.55),
        ("12.5 cm", "length", 0.125),
        ("12,5", "length", 0.125),
        ("125 mm", "length", 0.125),
        ("0.5 m", "length", 0.5),
        ("2 1/4 in", "length", 2.25 * INCH),
        ("3/8in", "length", 0.375 * INCH),
        ('6"', "length", 6 * INCH),
        ("½ in", "length", 0.5 * INCH),
        ("1 m 20 cm", "span", 1.2),
        ("5 ft 3 in", "span", 5 * FOOT + 3 * INCH),
        ("5' 3\"", "span", 5 * FOOT + 3 * INCH),
        ("17.5", "span", 17.5),
        ("10 %D", "length", 0.05),
        ("10%d", "length", 0.05),
        ("20 %", "length", 0.10),
        ("8", "fine_length", 0.008),
        ("52", "girth", 0.52),
        ("163.4 cm girth", "girth", 1.634 / math.pi),
        ("163.4 girth", "girth", 1.634 / math.pi),
        ("64 in girth", "girth", 64 * INCH / math.pi),
        ("-3", "length", -0.03),
        (" 7 ", "length", 0.07),
    ],
)
def test_lengths(text: str, kind: str, metres: float) -> None:
    assert parse(text, kind, "metric", depth_m=0.5) == pytest.approx(metres)


@pytest.mark.parametrize(
    ("text", "kind", "metres"),
    [
        ("2 1/4", "length", 2.25 * INCH),
        ("57", "span", 57 * FOOT),
        ("20 1/2", "girth", 20.5 * INCH),
        ("5 cm", "length", 0.05),
    ],
)
def test_a_bare_number_is_in_the_persons_own_units(text: str, kind: str, metres: float) -> None:
    assert parse(text, kind, "imperial") == pytest.approx(metres)


@pytest.mark.parametrize(
    ("text", "kind", "value"),
    [
        ("214", "bearing", 214.0), ("214°", "bearing", 214.0), ("sw", "bearing", 225.0), ("NNE", "bearing", 22.5),
        ("70 deg", "angle", 70.0), ("20 L", "offset_angle", 20.0), ("20° R", "offset_angle", -20.0),
        ("-20", "offset_angle", -20.0), ("250 %", "ratio", 2.5), ("2", "ratio", 2.0), ("3", "count", 3.0),
        ("80 J", "energy", 80.0), ("1.5 t", "mass", 1500.0),
    ],
)  # fmt: skip
def test_other_kinds(text: str, kind: str, value: float) -> None:
    assert parse(text, kind, "metric") == pytest.approx(value)


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("", "length"), ("abc", "length"), ("5 furlong", "length"), ("1/0 in", "length"), ("nan", "length"),
        ("inf", "length"), ("1e5", "length"), ("5 5 5", "angle"), ("70 cm", "angle"), ("2.5", "count"),
        ("50 girth", "length"), ("12 L", "angle"), ("--5", "length"), ("5 cm cm", "length"), ("%", "length"),
    ],
)  # fmt: skip
def test_what_cannot_be_read_gets_a_sentence_with_an_example(text: str, kind: str) -> None:
    with pytest.raises(TypedError) as caught:
        parse(text, kind, "metric", depth_m=0.5)
    sentence = str(caught.value)
    assert (text.strip() or "nothing") in sentence
    assert EXAMPLES[kind] in sentence


def test_a_percentage_means_nothing_without_a_diameter() -> None:
    with pytest.raises(TypedError, match="no diameter"):
        parse("10 %D", "span", "metric")


@given(text=st.text(max_size=12), kind=st.sampled_from(sorted(EXAMPLES)))
def test_any_text_is_read_or_refused_and_never_crashes(text: str, kind: str) -> None:
    try:
        assert math.isfinite(parse(text, kind, "metric", depth_m=0.5))
    except TypedError as error:
        assert str(error)


@given(
    value=st.floats(0.0, 3.0), units=st.sampled_from(["metric", "imperial"]), kind=st.sampled_from(["length", "girth"])
)
def test_what_is_shown_can_be_typed_back(value: float, units: str, kind: str) -> None:
    """Within the grain it is shown at: a millimetre, or a sixteenth of an inch either way."""
    grain = 0.0005 if units == "metric" else INCH / 16
    assert parse(shown(value, kind, units), kind, units) == pytest.approx(value, abs=grain + 1e-9)


@given(value=st.floats(-80.0, 80.0))
def test_sides_are_shown_as_words_and_typed_back(value: float) -> None:
    assert parse(shown(value, "offset_angle", "metric"), "offset_angle", "metric") == pytest.approx(value, abs=0.5001)


@pytest.mark.parametrize(
    ("value", "kind", "units", "text"),
    [
        (0.12, "length", "metric", "12 cm"),
        (0.125, "length", "metric", "12.5 cm"),
        (0.0151, "fine_length", "metric", "15.1 mm"),
        (17.5, "span", "metric", "17.5 m"),
        (0.12, "length", "imperial", "4 3/4 in"),
        (17.5, "span", "imperial", "57 ft 5 in"),
        (0.3048, "span", "imperial", "1 ft"),
        (0.0, "length", "imperial", "0 in"),
        (360.0, "bearing", "metric", "360°"),
        (0.2, "ratio", "metric", "20 %"),
        (22300.0, "force", "metric", "22.3 kN"),
        (1.74, "time", "metric", "1.7 s"),
        (None, "length", "metric", "–"),
        (math.inf, "count", "metric", "no limit"),
    ],
)
def test_every_number_carries_its_unit(value: float | None, kind: str, units: str, text: str) -> None:
    assert shown(value, kind, units) == text


def test_tape_marks_are_rounded_as_they_are_chalked() -> None:
    assert tape_rounded(0.2874, "metric") == pytest.approx(0.285)
    assert tape_rounded(0.2876, "metric") == pytest.approx(0.29)
    assert tape_rounded(0.2874, "imperial") / (INCH / 8) == pytest.approx(round(0.2874 / (INCH / 8)))


# Never guessed ---------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("5 5 5 m", "span"), ("3 3.5 m", "span"), ("1.2.3", "span"), ("1,234.5", "span"), ("1 000", "span"),
        ("17 5", "span"), ("40 cm 1 m", "span"), ("1 cm 40", "length"), ("5.5 ft 3 in", "span"), ("1 m 400", "span"),
        ("1 m 40 5", "span"), ("2 5/4 in", "length"), ("5 m 3 paces", "span"), ("5 m 10 %D", "length"),
        ("3 cm 5 cm", "length"), ("3 cm 2 in", "length"), ("1 in 10 mm 3 cm", "length"),
        ("9" * 400, "span"), ("N95E", "bearing"), ("north-nowhere", "bearing"), ("15 kms", "speed"), ("1.2.3", "angle"),
    ],
)  # fmt: skip
def test_what_could_mean_two_things_is_refused_with_what_would_be_taken(text: str, kind: str) -> None:
    with pytest.raises(TypedError) as refused:
        parse(text, kind, "metric", 0.5)
    assert EXAMPLES[kind] in str(refused.value)
    assert len(str(refused.value)) < 300


@pytest.mark.parametrize(
    ("text", "kind", "value"),
    [
        ("1.4 metres", "span", 1.4), ("140 centimetres", "span", 1.4), ("20 steps", "span", 15.0),
        ("20 yd", "span", 18.288), ("17.5 m.", "span", 17.5), ("1 m 40", "span", 1.4), ("5 ft 3", "span", 1.6002),
        ("5 ft 3 1/2 in", "span", 1.6129), ("5 ft. 3 in.", "span", 1.6002),
        ("17.5\u00a0m", "span", 17.5), ("17.5\u2009m", "span", 17.5), ("north-east", "bearing", 45.0),
        ("east", "bearing", 90.0), ("south south-west", "bearing", 202.5), ("N45E", "bearing", 45.0),
        ("S 30 W", "bearing", 210.0), ("n45°w", "bearing", 315.0), ("15 km/h", "speed", 15 / 3.6),
        ("15 kmh", "speed", 15 / 3.6), ("9 knots", "speed", 9 * 0.514444), ("L20", "offset_angle", 20.0),
        ("right 20", "offset_angle", -20.0),
    ],
)  # fmt: skip
def test_more_ways_in_which_people_write_a_measure(text: str, kind: str, value: float) -> None:
    assert parse(text, kind, "metric") == pytest.approx(value)


def test_a_bare_number_taken_for_the_next_smaller_unit_is_told() -> None:
    assert parse_typed("1 m 40", "span", "metric").guessed
    assert not parse_typed("1 m 40 cm", "span", "metric").guessed
    assert not parse_typed("140", "length", "metric").guessed
