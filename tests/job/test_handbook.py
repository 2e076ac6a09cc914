"""The handbook: every field, finding, form and term has its page, and no link leads nowhere."""

import re
from urllib.parse import unquote

import pytest

from plain_compass.core.assess import assess
from plain_compass.core.cuts import PARTS, forms_of
from plain_compass.core.judge.limits import LIMITS
from plain_compass.core.judge.places import where_of
from plain_compass.job import handbook
from plain_compass.job.demo import demo_job
from plain_compass.job.document import case_of
from plain_compass.job.tables import constants_explained, constants_in_force, disagreements
from plain_compass.job.words import Speech
from plain_compass.job.words.catalogue import glossary

LINK = re.compile(r"\[[^\]]+\]\(help:([^)]*)\)")
SPEECHES = [Speech(), Speech(units="imperial", words="gob")]


def links_of(text: str) -> list[str]:
    """Where a page leads. A link ends at a space, so that one in an id is written otherwise."""
    found = LINK.findall(text)
    assert not any(" " in link for link in found)
    return [unquote(link) for link in found]


@pytest.fixture(params=SPEECHES, ids=["metric", "imperial"], scope="module")
def pages(request: pytest.FixtureRequest) -> dict[str, str]:
    return {id: handbook.page(id, request.param) for id in handbook.page_ids()}


def test_every_link_leads_to_a_page(pages: dict[str, str]) -> None:
    lost = {(id, link) for id, text in pages.items() for link in links_of(text) if link not in pages}
    assert not lost


def test_every_page_can_be_reached_from_the_first(pages: dict[str, str]) -> None:
    reached, ahead = set[str](), ["index"]
    while ahead:
        id = ahead.pop()
        if id not in reached:
            reached.add(id)
            ahead += links_of(pages[id])
    assert reached == set(pages)


def test_every_page_has_a_title_and_something_below_it(pages: dict[str, str]) -> None:
    for id, text in pages.items():
        title, _, rest = text.partition("\n")
        assert title.startswith("# ") and len(title) > 3, id
        assert len(LINK.sub("", rest).split()) > 3, id


def test_no_term_is_left_in_brackets_and_no_hole_in_braces(pages: dict[str, str]) -> None:
    for id, text in pages.items():
        if id != "model":
            assert not re.search(r"[{}\[\]]", LINK.sub("", text)), id


def test_every_field_a_person_sets_has_a_page_with_what_is_accepted(pages: dict[str, str]) -> None:
    for path in handbook.field_paths():
        text = pages[handbook.field_page(path)]
        assert "Accepted:" in text or "One of:" in text, path


def test_a_field_in_a_row_of_a_list_is_the_field_of_every_row() -> None:
    assert handbook.field_page("tree.limbs.3.length_m") == handbook.field_page("tree.limbs.0.length_m")
    assert handbook.field_page("tree.height_m") == "field:tree.height_m"
    assert handbook.field_page("no.such.field") == "fields"


def test_every_finding_of_the_demo_has_a_page_of_its_own_kind() -> None:
    job = demo_job()
    for plan in job.trees:
        for finding in assess(case_of(job, plan.id)).findings:
            page = handbook.finding_page(finding.id)
            assert page.startswith("finding:"), finding.id
            assert page.split(":")[1].split(".")[0] == finding.id.split(".")[0]


def test_every_limit_state_form_term_question_and_constant_is_in_it(pages: dict[str, str]) -> None:
    assert {f"finding:{id}" for id in LIMITS} <= set(pages)
    assert {f"form:{part}.{form.key}" for part in PARTS for form in forms_of(part)} <= set(pages)
    assert {f"term:{term}" for term in glossary()["terms"]} <= set(pages)
    assert pages["schools"].count("Here: ") == len(disagreements())
    assert all(f"`{name}`" in pages["constants"] for name, *_ in constants_in_force())


def test_every_table_of_constants_says_what_it_is_and_whence_its_numbers(pages: dict[str, str]) -> None:
    tables = {name.partition(".")[0] for name, *_ in constants_in_force()}
    told = constants_explained()
    assert set(told) == tables
    for table, words in told.items():
        assert "Source:" in words and words in pages["constants"], table


def test_a_specialist_form_says_so(pages: dict[str, str]) -> None:
    for part in PARTS:
        for form in forms_of(part):
            assert ("**Specialist:**" in pages[f"form:{part}.{form.key}"]) == form.specialist


def test_the_cautions_stand_first_in_the_window_and_on_paper(pages: dict[str, str]) -> None:
    for text in Speech().cautions():
        assert text in handbook.page("index", Speech())
        assert text in handbook.whole(Speech())[:1500]


def test_there_are_ten_lessons_and_each_step_has_its_own() -> None:
    assert len(handbook.lessons()) == 10
    assert handbook.step_page("cut") == "lesson:4" and handbook.step_page("train") == "index"
    assert all(
        step in lesson for step, lesson in [("Look", handbook.lessons()[0][1]), ("Ground", handbook.lessons()[1][1])]
    )


def test_a_field_the_trade_disagrees_about_says_so_on_its_own_page(pages: dict[str, str]) -> None:
    for row in disagreements():
        for path in row["fields"]:
            assert "The trade on *" in pages[f"field:{path}"], path


def test_the_printed_book_holds_every_page_and_no_link() -> None:
    book = handbook.whole(Speech())
    assert "](help:" not in book
    for id in handbook.page_ids():
        if id not in ("index", *("lessons", "groups", "findings", "forms", "fields", "terms")):
            assert f"# {handbook.title_of(id, Speech())}\n" in book, id


def test_a_finding_and_the_field_that_settles_it_lead_to_one_another(pages: dict[str, str]) -> None:
    settled = [id for id in handbook.finding_ids() if handbook.field_page(where_of(id).field) != "fields"]
    assert len(settled) > 40
    for id in settled:
        field = handbook.field_page(where_of(id).field)
        assert f"(help:{field})" in pages[f"finding:{id}"], id
        assert f"(help:finding:{id})" in pages[field], id
