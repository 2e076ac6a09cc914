"""Set text: numbers stay with their units."""

from __future__ import annotations

import pytest

from plain_compass.app.drawing.text import NO_BREAK, unbroken


@pytest.mark.parametrize("text", ["20 % and", "3.4 mm a", "57 ft 5 in", "2 1/4 in thick", "25 L of", "22.3 kN ~"])
def test_a_number_never_parts_from_its_unit(text: str) -> None:
    number = text.split()[0]
    assert unbroken(text).startswith(f"{number}{NO_BREAK}")
    assert unbroken(text).replace(NO_BREAK, " ") == text


def test_other_spaces_stay() -> None:
    assert unbroken("About 51 blows to tip it") == "About 51 blows to tip it"
