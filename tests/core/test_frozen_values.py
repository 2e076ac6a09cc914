"""Classes that are quick to declare are as frozen, and as strict about their fields, as ``dataclasses`` makes them."""

from __future__ import annotations

import copy
import dataclasses
import pickle
from collections.abc import Callable
from dataclasses import FrozenInstanceError, asdict, field, fields, replace
from functools import cached_property
from typing import Any

import pytest

from plain_compass.core.base.frozen import changed, dataclass


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


@dataclass(frozen=True, slots=True)
class Board:
    length_m: float
    names: list[str] = field(default_factory=list, hash=False)
    told: str = field(default="", compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Painted(Board):
    colour: str = "white"

    def __post_init__(self) -> None:
        object.__setattr__(self, "told", f"a {self.colour} board")


@dataclass(frozen=True, eq=False)
class Drawn(Board):
    """Without slots, over a class that has them."""

    scale: float = 1.0


def test_a_class_with_slots_holds_its_fields_and_nothing_else() -> None:
    board = Board(2.0)
    assert not hasattr(board, "__dict__")
    assert Board.__slots__ == ("length_m", "names", "told") and Painted.__slots__ == ("colour",)  # type: ignore[attr-defined]
    with pytest.raises(FrozenInstanceError, match="length_m"):
        board.length_m = 3.0  # type: ignore[misc]


def test_a_default_made_anew_is_each_values_own() -> None:
    one, other = Board(2.0), Board(2.0)
    one.names.append("oak")
    assert other.names == [] and Board(2.0, ["ash"]).names == ["ash"]


def test_what_takes_no_part_in_comparing_hashing_or_showing_does_not() -> None:
    assert Board(2.0, told="x") == Board(2.0, told="y")
    assert Board(2.0, ["oak"]) != Board(2.0, ["ash"]) and hash(Board(2.0, ["oak"])) == hash(Board(2.0, ["ash"]))
    assert repr(Board(2.0, told="x")) == "Board(length_m=2.0, names=[])"


def test_a_class_over_another_has_the_fields_of_both_and_settles_what_follows_from_them() -> None:
    painted = Painted(2.0, colour="red")
    assert [item.name for item in fields(painted)] == ["length_m", "names", "told", "colour"]
    assert painted.told == "a red board" and replace(painted, colour="blue").told == "a blue board"
    assert painted != Board(2.0), "another class is never the same"


def test_a_class_without_slots_over_one_with_them_holds_every_field_where_it_is_looked_for() -> None:
    drawn = Drawn(2.0, ["oak"], scale=0.5)
    assert (drawn.length_m, drawn.names, drawn.scale) == (2.0, ["oak"], 0.5)


def test_values_are_copied_and_kept_like_any_other() -> None:
    for value in (Board(2.0, ["oak"]), Painted(2.0), Plank(2.0, "dry")):
        assert pickle.loads(pickle.dumps(value)) == copy.deepcopy(value) == value
        assert asdict(value)["length_m"] == 2.0


def test_a_class_that_is_not_frozen_is_not_made_here() -> None:
    with pytest.raises(TypeError, match="only frozen"):
        dataclass(frozen=False)(Plank)


def test_methods_of_its_own_are_kept() -> None:
    @dataclass(frozen=True)
    class Named:
        name: str

        def __repr__(self) -> str:
            return self.name

        def __hash__(self) -> int:
            return 7

    assert repr(Named("oak")) == "oak" and hash(Named("oak")) == 7 and Named("oak") == Named("oak")


@pytest.mark.parametrize("slots", [False, True])
def test_it_is_declared_as_the_standard_one_declares_it(slots: bool) -> None:
    def declared(by: Callable[..., Any]) -> Any:
        class Beam:
            length_m: float
            names: tuple[str, ...] = ("oak",)

        return by(frozen=True, slots=slots)(Beam)

    ours, theirs = declared(dataclass), declared(dataclasses.dataclass)
    assert ours.__match_args__ == theirs.__match_args__ and ours.__qualname__ == theirs.__qualname__
    assert repr(ours(2.0)) == repr(theirs(2.0)) and hash(ours(2.0)) == hash(theirs(2.0))
    assert [(item.name, item.type, item.default) for item in fields(ours)] == [
        (item.name, item.type, item.default) for item in fields(theirs)
    ]
    assert dataclasses.is_dataclass(ours) and asdict(ours(2.0)) == asdict(theirs(2.0))
