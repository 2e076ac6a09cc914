"""Evenly spread numbers: the same sequence as a well-kept library's, and normal once transformed."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.stats import kstest, norm, qmc

from plain_compass.core.fall.sobol import BITS, MOST, normals, sobol_points


def test_the_points_are_sobols_own() -> None:
    wanted = qmc.Sobol(MOST, scramble=False).random(1024)
    assert np.array_equal(sobol_points(1024, MOST) / 2**BITS, wanted)


def test_every_dimension_fills_its_range_evenly() -> None:
    points = sobol_points(256, MOST) >> (BITS - 8)
    assert all(len(set(points[:, column].tolist())) == 256 for column in range(MOST))


def test_deviates_are_normal_and_uncorrelated() -> None:
    deviates = normals(2048, 12, 5)
    assert np.abs(np.corrcoef(deviates.T) - np.eye(12)).max() < 0.05
    for column in deviates.T:
        assert kstest(column, "norm").statistic < 0.01


def test_a_straight_line_between_quantiles_is_close_enough() -> None:
    deviates = np.sort(normals(512, 1, 3)[:, 0])
    shares = norm.cdf(deviates)
    assert np.diff(shares) == pytest.approx(1 / 512, rel=1e-3)


def test_a_seed_gives_the_same_numbers_and_another_gives_others() -> None:
    assert np.array_equal(normals(64, 5, 1), normals(64, 5, 1).copy())
    assert not np.array_equal(normals(64, 5, 1), normals(64, 5, 2))


def test_every_input_has_a_shift_of_its_own() -> None:
    # The first point of the sequence is nothing at all: what is left of it is the shift.
    assert len(set(normals(1, 12, 1)[0].tolist())) == 12


def test_an_inputs_numbers_do_not_depend_on_how_many_others_there_are() -> None:
    assert np.array_equal(normals(64, 3, 1), normals(64, 9, 1)[:, :3])


def test_more_dimensions_than_there_are_numbers_for_are_refused() -> None:
    with pytest.raises(ValueError, match=str(MOST)):
        sobol_points(8, MOST + 1)
