"""Values that are made quickly are as frozen, and as strict about their fields, as ``dataclasses`` makes them."""

from __future__ import annotations

from dataclasses import FrozenInstanceError, dataclass, field, replace
from functools import cached_property

import pytest

from plain_compass.core.base.frozen import changed, quickly_made


@quickly_made
@dataclass(frozen=True)
class Plank:
    length_m: float
    held: str
    wide_m: float = 0.2

    @cached_property
    def area_m2(self) -> float:
        return self.length_m * self.wide_m


def test_fields_are_taken_by_place_by_name_and_by_default() -> None:
    assert Plank(2.0, "dry") == Plank(held="dry", length_m=2.0) == Plank(2.0, "dry", 0.2)
    assert hash(Plank(2.0, "dry")) == hash(Plank(2.0, "dry", 0.2))
    assert repr(Plank(2.0, "dry")) == "Plank(length_m=2.0, held='dry', wide_m=0.2)".replace("Plank", Plank.__qualname__)


def test_a_missing_field_and_one_too_many_are_refused() -> None:
    with pytest.raises(TypeError, match="held"):
        Plank(2.0)  # type: ignore[call-arg]
    with pytest.raises(TypeError, match="thick"):
        Plank(2.0, "dry", thick=1)  # type: ignore[call-arg]


def test_it_is_as_frozen_as_before() -> None:
    plank = Plank(2.0, "dry")
    with pytest.raises(FrozenInstanceError):
        plank.wide_m = 0.3  # type: ignore[misc]
    with pytest.raises(FrozenInstanceError):
        del plank.wide_m  # type: ignore[misc]


def test_a_changed_value_is_a_new_one_and_works_out_anew_what_it_kept() -> None:
    plank = Plank(2.0, "dry")
    assert plank.area_m2 == pytest.approx(0.4)
    wider = changed(plank, wide_m=0.3)
    assert wider == replace(plank, wide_m=0.3) == Plank(2.0, "dry", 0.3)
    assert wider.area_m2 == pytest.approx(0.6)
    assert plank == Plank(2.0, "dry")


def test_what_is_no_field_cannot_be_changed() -> None:
    with pytest.raises(TypeError, match="no field thick"):
        changed(Plank(2.0, "dry"), thick=1)


def test_slots_and_defaults_made_anew_are_refused_where_the_class_is_written() -> None:
    with pytest.raises(TypeError, match="slots"):

        @quickly_made
        @dataclass(frozen=True, slots=True)
        class Slotted:
            length_m: float

    with pytest.raises(TypeError, match="made anew"):

        @quickly_made
        @dataclass(frozen=True)
        class Listed:
            names: list[str] = field(default_factory=list)
