"""From lines of instruments to readings: what belongs together, and what does not."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.base.errors import InputError
from plain_compass.instruments.assemble import Assembler
from plain_compass.instruments.devices import DEVICES, Faults, Truth, lines
from plain_compass.instruments.protocol import Decoder, Sample, encode
from plain_compass.instruments.server import Instruments, PortError
from plain_compass.job.readings import SHELL, WIND, Taken

TRUTH = Truth(height_m=20.0, distance_m=25.0, girth_m=1.5, sound_shell_m=0.12, radius_m=0.24)
BY_NAME = {device.name: device for device in DEVICES}


def samples(device: str, count: int, faults: Faults) -> list[Sample]:
    found = Decoder().feed(b"".join(lines(BY_NAME[device], count, 3, TRUTH, faults)))
    return [each for each in found if isinstance(each, Sample)]


def readings(device: str, count: int, faults: Faults | None = None) -> list[Taken]:
    assembler = Assembler()
    taken = [assembler.add(sample) for sample in samples(device, count, faults or Faults())]
    return [each for each in taken if each is not None]


@pytest.mark.parametrize("order", list(itertools.permutations(("distance", "top", "base"))))
def test_a_height_wants_a_distance_and_two_angles_in_any_order(order: tuple[str, ...]) -> None:
    parts = {
        "distance": Sample("r", 0, "distance", 25.0, "d"),
        "top": Sample("r", 1, "angle", math.degrees(math.atan2(18.4, 25)), "t"),
        "base": Sample("r", 2, "angle", math.degrees(math.atan2(-1.6, 25)), "b"),
    }
    assembler = Assembler()
    *partial, whole = [assembler.add(parts[name]) for name in order]
    assert partial == [None, None]
    assert whole is not None
    assert whole.values[0] == pytest.approx(20.0)
    assert whole.note == "d\nt\nb"


@pytest.mark.parametrize(
    "faults", [Faults(), Faults(lost=0.2), Faults(other_unit=0.5), Faults(garbage=0.2), Faults(2.0, 0.1, 0.3, 0.1)]
)
def test_heights_come_out_near_the_truth_whatever_is_lost_or_in_other_units(faults: Faults) -> None:
    found = readings("rangefinder", 60, faults)
    assert len(found) >= 8
    within = [abs(each.values[0] - 20.0) <= 4 * each.spreads[0] for each in found]
    assert sum(within) >= 0.9 * len(within)


def test_each_instrument_measures_its_own_thing() -> None:
    (girth, *_), (wind, *_) = readings("tape", 4), readings("windmeter", 4)
    assert girth.what == "tree.trunk.diameter_m"
    assert girth.values[0] == pytest.approx(1.5 / math.pi, rel=0.03)
    assert wind.what == WIND


def test_a_probe_profile_finds_the_depth_of_sound_wood_at_the_bearing_it_was_drilled() -> None:
    assembler = Assembler()
    assembler.probe_bearing_deg = 140.0
    taken = assembler.add(samples("probe", 1, Faults())[0])
    assert taken is not None
    assert (taken.what, taken.values[0]) == (SHELL, 140.0)
    assert taken.values[1] == pytest.approx(0.12, abs=0.01)


@given(st.floats(0.03, 0.2), st.floats(0.0, 1.5))
def test_profiles_of_any_known_shell_give_that_shell_back(shell_m: float, noise: float) -> None:
    truth = Truth(sound_shell_m=shell_m, radius_m=0.25)
    line = lines(BY_NAME["probe"], 1, 5, truth, Faults(noise=noise))
    sample = next(each for each in Decoder().feed(line[0]) if isinstance(each, Sample))
    taken = Assembler().add(sample)
    assert taken is not None
    assert taken.values[1] == pytest.approx(shell_m, abs=0.012)


def test_parts_that_make_no_sense_together_are_dropped_with_a_sentence_and_the_next_ones_work() -> None:
    assembler = Assembler()
    assembler.add(Sample("r", 0, "distance", 25.0, ""))
    assembler.add(Sample("r", 1, "angle", 5.0, "", aim="top"))
    with pytest.raises(InputError):
        assembler.add(Sample("r", 2, "angle", 9.0, "", aim="base"))
    for sample in (Sample("r", 3, "distance", 25.0, ""), Sample("r", 4, "angle", 30.0, "")):
        assert assembler.add(sample) is None
    assert assembler.add(Sample("r", 5, "angle", -3.0, "")) is not None


def test_a_line_says_what_its_angle_was_aimed_at() -> None:
    line = encode("rangefinder", 1, "angle", "deg", value=-3.0, aim="base")
    other = encode("rangefinder", 2, "angle", "deg", value=-3.0, aim="the moon")
    found = Decoder().feed(line + other)
    assert [each.aim for each in found if isinstance(each, Sample)] == ["base", ""]


def test_a_half_line_of_a_broken_connection_spoils_nothing_that_comes_after_it() -> None:
    decoder = Decoder()
    whole = encode("tape", 1, "girth", "mm", value=1500)
    assert decoder.feed(whole[:20]) == []
    decoder.restart()
    assert [type(each) for each in decoder.feed(whole)] == [Sample]


def test_ports_that_are_taken_are_said_in_a_sentence() -> None:
    with Instruments(1, Faults(), count=1) as running:
        taken = running.ports["rangefinder"]
        with pytest.raises(PortError, match="are taken"):
            Instruments(1, Faults(), count=1, port=taken)
