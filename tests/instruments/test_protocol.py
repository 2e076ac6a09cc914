"""The instruments' protocol: what is sent is received, and nothing that is sent can stop the reader."""

from __future__ import annotations

import json
import math
import socket
import time
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.cli import main
from plain_compass.core.base.errors import InputError
from plain_compass.core.measuring.estimate import Reading
from plain_compass.core.measuring.height import height_by_clinometer
from plain_compass.core.measuring.probe import sound_depth
from plain_compass.instruments.devices import DEVICES, Faults, Truth, lines
from plain_compass.instruments.protocol import LONGEST_LINE, Decoder, Rejected, Sample, encode
from plain_compass.instruments.server import LOOPBACK, Instruments

TAPE = encode("tape", 0, "girth", "mm", value=1634)


def samples(data: bytes) -> list[Sample]:
    return [each for each in Decoder().feed(data) if isinstance(each, Sample)]


@pytest.mark.parametrize(
    ("kind", "unit", "sent", "value"),
    [("girth", "in", 64.33, 1.634), ("distance", "ft", 65.6168, 20.0), ("angle", "deg", 41.2, 41.2),
     ("angle", "pct", 100.0, 45.0), ("wind", "km/h", 36.0, 10.0)],
)  # fmt: skip
def test_every_unit_arrives_in_si(kind: str, unit: str, sent: float, value: float) -> None:
    (found,) = samples(encode("x", 0, kind, unit, value=sent))
    assert found.value == pytest.approx(value, rel=1e-4)


@given(cuts=st.lists(st.integers(0, 400), max_size=12))
def test_lines_arrive_whole_however_they_are_cut(cuts: list[int]) -> None:
    data = b"".join(lines(DEVICES[1], 6, 1, Truth(), Faults()))
    decoder, found = Decoder(), []
    ends = sorted({min(cut, len(data)) for cut in cuts} | {0, len(data)})
    for start, end in pairwise(ends):
        found += decoder.feed(data[start:end])
    assert [each.seq for each in found if isinstance(each, Sample)] == list(range(6))
    assert len(found) == 6


@given(noise=st.binary(max_size=300))
def test_garbage_never_stops_the_reader_nor_loses_what_comes_after(noise: bytes) -> None:
    decoder = Decoder()
    decoder.feed(noise + b"\n")
    assert [s for s in decoder.feed(TAPE) if isinstance(s, Sample) and s.device == "tape"]


MEMBERS = st.sampled_from(["device", "seq", "kind", "unit", "value", "depth"])
PLAIN = st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=5)


@given(
    content=st.recursive(
        PLAIN, lambda inner: st.lists(inner, max_size=3) | st.dictionaries(MEMBERS, inner, max_size=6), max_leaves=12
    )
)
def test_any_json_is_a_sample_or_rejected_with_a_sentence(content: object) -> None:
    (found,) = Decoder().feed(json.dumps(content).encode() + b"\n")
    if isinstance(found, Rejected):
        assert found.why.endswith(".")
    else:
        assert math.isfinite(found.value)


def test_a_flood_without_line_ends_is_dropped_and_the_next_line_is_read() -> None:
    decoder = Decoder()
    found = []
    for _ in range(50):
        found += decoder.feed(b"x" * 5000)
    assert sum(isinstance(each, Rejected) for each in found) <= 1
    assert len(decoder._rest) <= LONGEST_LINE
    assert [type(each) for each in decoder.feed(b"tail\n" + TAPE)] == [Sample]


@pytest.mark.parametrize(
    ("line", "why"),
    [
        (b"not json\n", "not JSON"),
        (b'{"device": "x"}\n', "'seq' is missing"),
        (encode("x", 0, "girth", "furlong", value=1), "unit 'furlong'"),
        (encode("x", 0, "mass", "kg", value=1), "kind 'mass'"),
        (encode("x", 0, "girth", "m", value=1000), "outside"),
        (encode("x", 0, "girth", "m", value="wide"), "not a finite number"),
        (b'{"device": "x", "seq": 0, "kind": "girth", "unit": "m", "value": NaN}\n', "not a finite number"),
        (encode("x", 0, "profile", "mm", depth=[0, 5], value=[1]), "as many"),
        (encode("x", 0, "profile", "mm", depth=[5, 5], value=[1, 2]), "rise"),
    ],
)
def test_a_line_that_is_not_taken_says_why(line: bytes, why: str) -> None:
    (found,) = Decoder().feed(line)
    assert isinstance(found, Rejected)
    assert why in found.why


def test_a_line_that_comes_twice_counts_once_and_lost_lines_are_noticed() -> None:
    decoder = Decoder()
    assert [type(each) for each in decoder.feed(TAPE + TAPE)] == [Sample, Rejected]
    (later,) = decoder.feed(encode("tape", 4, "girth", "mm", value=1634))
    assert isinstance(later, Sample)
    assert later.missed == 3


def test_the_same_seed_gives_the_same_lines_and_another_seed_others() -> None:
    for device in DEVICES:
        assert lines(device, 9, 7, Truth(), Faults()) == lines(device, 9, 7, Truth(), Faults())
        assert lines(device, 9, 7, Truth(), Faults()) != lines(device, 9, 8, Truth(), Faults())


def test_with_everything_going_wrong_the_good_lines_still_arrive() -> None:
    faults = Faults(noise=1.0, lost=0.2, other_unit=0.5, garbage=0.2)
    found = samples(b"".join(lines(DEVICES[1], 300, 3, Truth(), faults)))
    assert 150 < len(found) < 210
    assert all(sample.value == pytest.approx(1.634, abs=0.03) for sample in found)


def test_a_rangefinder_measures_the_made_up_tree() -> None:
    """Angles and distances off the wire, averaged, give the height that was put in."""
    found = samples(b"".join(lines(DEVICES[0], 300, 1, Truth(), Faults(other_unit=0.3))))
    tops, bases, distances = ([s.value for s in found if s.seq % 3 == turn] for turn in range(3))
    means = [Reading(sum(v) / len(v), 0.05) for v in (distances, tops, bases)]
    assert height_by_clinometer(*means, Reading(0.0, 0.0)).value == pytest.approx(17.5, abs=0.15)


@pytest.mark.parametrize("shell", [0.04, 0.08, 0.11, 0.2])
def test_a_probe_finds_the_rot_it_was_given(shell: float) -> None:
    for sample in samples(b"".join(lines(DEVICES[2], 20, 5, Truth(sound_shell_m=shell), Faults()))):
        assert sound_depth(sample.depths_m, sample.resistance).value == pytest.approx(shell, abs=0.007)


def test_a_probe_in_sound_wood_finds_no_rot_and_a_soft_ring_is_none() -> None:
    depths = tuple(0.002 * i for i in range(100))
    sound = tuple(60.0 if i != 40 else 5.0 for i in range(100))
    assert sound_depth(depths, sound).value == pytest.approx(depths[-1])
    with pytest.raises(InputError):
        sound_depth(depths[:4], sound[:4])


def test_instruments_run_on_loopback_and_survive_a_reader_that_leaves() -> None:
    with Instruments(1, Faults(), count=50, every_s=0.001) as running:
        with socket.create_connection((LOOPBACK, running.ports["tape"]), timeout=5) as first:
            assert first.recv(10)
        with socket.create_connection((LOOPBACK, running.ports["tape"]), timeout=5) as second:
            decoder, found, until = Decoder(), [], time.monotonic() + 20
            while len(found) < 50 and time.monotonic() < until:
                found += decoder.feed(second.recv(4096))
    assert [each.seq for each in found if isinstance(each, Sample)] == list(range(50))


def test_the_command_says_where_each_instrument_listens(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["instruments", "--for", "0.05", "--count", "3", "--port", "0"]) == 0
    told = capsys.readouterr().out.splitlines()
    assert [line.split()[0] for line in told] == [device.name for device in DEVICES]
    assert all(line.split()[1].startswith("127.0.0.1:") for line in told)
