"""Tables out and in: numbers that are none, lines in a note, cells a spreadsheet would run, and names."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from plain_compass.core.base.errors import InputError
from plain_compass.core.base.quantity import NAME_LENGTH, check_name
from plain_compass.job.csv_rows import TableError, as_written, csv_rows, harmless, number_in
from plain_compass.job.demo import demo_job
from plain_compass.job.edits import rename_tree
from plain_compass.job.files import JobFileError, job_text, parse_job
from plain_compass.job.tree_list import export_csv, import_csv


@pytest.mark.parametrize("cell", ["4_0", "nan", "inf", "1e999", "4 0", "", "0x10", "१२", "1,2,3", "9" * 400])
def test_a_cell_that_is_no_number_is_not_made_one(cell: str) -> None:
    with pytest.raises(ValueError, match="no number"):
        number_in(cell)


def test_a_comma_or_a_point_is_the_decimal_sign() -> None:
    assert number_in("12,5") == number_in(" 12.5 ") == number_in("1.25e1") == 12.5


def test_a_nul_inside_a_number_is_refused_by_its_line() -> None:
    with pytest.raises(TableError, match="line 2"):
        csv_rows("id,diameter\nA,4\0 0\n", "list.csv", 10)


NOTES = ["two\nlines", "=SUM(A1)", "+1", "-2", "@x", "'=before", "'plain", 'a "b"; c, d']


@pytest.mark.parametrize("note", NOTES)
def test_a_note_comes_back_from_a_table_as_it_was(note: str) -> None:
    job = demo_job()
    plan = replace(job.trees[0], notes=note)
    table = export_csv(replace(job, trees=(plan,)))
    assert import_csv(table, "list.csv", job.practice)[0].notes == note


@given(st.text(max_size=20))
def test_no_cell_goes_out_that_a_spreadsheet_would_run(text: str) -> None:
    assert not harmless(text).startswith(("=", "+", "-", "@", "\t", "\r"))
    assert as_written(harmless(text)) == text


@pytest.mark.parametrize("name", ["a\nb", "a\x00b", "x" * (NAME_LENGTH + 1), "a\u2028b", "\x9b31m"])
def test_a_name_is_one_line_without_control_characters(name: str) -> None:
    with pytest.raises(InputError, match="a name of one line"):
        check_name("tree id", name)
    with pytest.raises(InputError):
        rename_tree(demo_job(), "WH-07", name)
    with pytest.raises(JobFileError, match=r"trees\[0\]\.id"):
        parse_job(job_text(rename(name)), "job.json")


def rename(name: str) -> object:
    job = demo_job()
    return replace(job, trees=(replace(job.trees[0], id=name), *job.trees[1:]))
