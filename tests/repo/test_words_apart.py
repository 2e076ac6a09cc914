"""Words stand apart from code: every text is asked of a language, and a language leaves none out and breaks no page."""

from __future__ import annotations

import ast
import json
import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

import plain_compass

ROOT = Path(__file__).parents[2]
PACKAGE = Path(plain_compass.__file__).parent
MARKS = ("tr", "tr_mark", "tr_count", "say")
DATA_CALLS = (
    "compile",
    "sub",
    "fullmatch",
    "match",
    "search",
    "findall",
    "split",
    "strftime",
    "execute",
    "setStyleSheet",
)
DATA_CALLS += (
    "kept",
    "cast",
    "TypeVar",
    "KeyError",
    "AssertionError",
    "RuntimeError",
    "removeprefix",
    "_read",
    "rows_of",
    "add_parser",
    "replace",
    "startswith",
    "endswith",
)
"""What is given to these is a pattern, a query, or a name for those who write the program."""
OF_FILES = {
    "app/drawing/palette.py": "names of fonts",
    "app/frame/style.py": "a style sheet",
    "commands/manual.py": "marks of man pages and completions, with the texts of the commands in them",
    "job/language.py": "said before any language is spoken",
    "job/language_files.py": "said to whoever writes a language, beside its keys",
    "job/geojson.py": "values that stand in files",
    "job/fan_geojson.py": "values that stand in files",
    "job/tree_list.py": "headings of tables",
    "job/readings_csv.py": "headings of tables",
    "job/schema.py": "descriptions in JSON Schema",
    "job/practice_case.py": "descriptions in JSON Schema",
    "job/practice_answers.py": "descriptions in JSON Schema",
    "job/practice_files.py": "values that stand in files",
    "job/practice_terms.py": "keys",
    "log/answers.py": "SQL",
    "log/schema.py": "SQL",
    "log/store.py": "SQL",
}
"""File -> what its bare texts are."""
NAMES = {"Plain Compass", "Withy Holm", "New job", "nothing new", "crown edge", "sound shell", "lean class", "up to"}
NAMES |= {" – Plain Compass", "30 min", "PRODID:-//Plain Compass//block//EN"}
"""Names, and keys of two words."""


def bare_texts(source: str) -> Iterator[tuple[int, str]]:
    """Texts of more than one word that are neither marked, nor a docstring, nor compared, nor a key."""
    tree = ast.parse(source)
    above = {child: node for node in ast.walk(tree) for child in ast.iter_child_nodes(node)}
    for node in ast.walk(tree):
        text = _text(node)
        if " " in text.strip() and re.search(r"[a-z]{3}", text) and not _is_data(node, above):
            yield node.lineno, text  # type: ignore[attr-defined]


def _text(node: ast.AST) -> str:
    """The words of a literal, without what is put in and without tags."""
    parts = node.values if isinstance(node, ast.JoinedStr) else [node]
    words = "".join(part.value for part in parts if isinstance(part, ast.Constant) and isinstance(part.value, str))
    return re.sub(r"<[^<>]*>", "", words)


def _is_data(node: ast.AST, above: dict[ast.AST, ast.AST]) -> bool:
    parent = above.get(node)
    if isinstance(parent, (ast.Expr, ast.Compare, ast.Subscript, ast.JoinedStr, ast.FormattedValue, ast.arg)):
        return True
    if isinstance(parent, ast.Dict) and node in parent.keys:
        return True
    while parent is not None and not isinstance(parent, ast.stmt):
        if isinstance(parent, ast.Call):
            name = parent.func.id if isinstance(parent.func, ast.Name) else getattr(parent.func, "attr", "")
            return name in MARKS or name in DATA_CALLS or (name == "map" and ast.unparse(parent.args[0]) in MARKS)
        if isinstance(parent, ast.Compare):
            return True
        parent = above.get(parent)
    return isinstance(parent, ast.AnnAssign) and node not in ast.walk(parent.value or ast.Pass())


@pytest.mark.parametrize("room", ["app", "commands", "job", "log", "instruments"])
def test_no_text_is_said_that_no_language_is_asked_for(room: str) -> None:
    found = [
        f"{path.relative_to(PACKAGE)}:{line}: {text}"
        for path in sorted((PACKAGE / room).rglob("*.py"))
        if str(path.relative_to(PACKAGE)) not in OF_FILES
        for line, text in bare_texts(path.read_text(encoding="utf-8"))
        if text not in NAMES
    ]
    assert found == []


def test_a_text_without_its_mark_is_noticed() -> None:
    source = 'label.setText("Two words")\nlabel.setText(tr("Two words"))\nlabel.setText(f"{count} of them")\n"a note"\n'
    assert [text for _, text in bare_texts(source)] == ["Two words", " of them"]


def test_the_list_of_texts_is_what_the_code_says() -> None:
    done = subprocess.run(
        [sys.executable, ROOT / "tools" / "make_texts.py", "--check"], capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stdout


def test_a_made_language_leaves_nothing_in_english_and_nothing_cut_off(tmp_path: Path) -> None:
    """Every text in brackets and a third longer: whatever stands outside of them was written past the catalogue."""
    done = subprocess.run(
        [sys.executable, ROOT / "tools" / "made_walk.py", tmp_path], capture_output=True, text=True, check=True
    )
    assert json.loads(done.stdout) == {"left out": {}, "tight": {}}
