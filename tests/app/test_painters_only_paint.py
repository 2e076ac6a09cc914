"""Painters and views compute nothing: what they show of the tree, the cut and the ground is made once a snapshot."""

from __future__ import annotations

import ast
import inspect
from collections.abc import Iterator
from importlib import import_module
from pathlib import Path

import pytest

import plain_compass.app
from plain_compass.app.drawing.shapes import ALONG, Shapes
from plain_compass.core.assess import awaiting_fall
from plain_compass.job.demo import demo_job
from plain_compass.job.document import assess_tree

APP = Path(plain_compass.app.__file__).parent
ALLOWED = ("base.frames", "base.paths", "base.frozen")
"""A pointer turned into a bearing, a value read by its path, and how a class is declared, are a view's own."""


def _painters() -> list[Path]:
    return sorted(path for path in APP.rglob("*.py") if "paint" in path.stem or path.stem == "views")


def _functions(path: Path, source: str) -> Iterator[str]:
    """Names of the core's functions that a module imports."""
    package = "plain_compass.app." + ".".join(path.relative_to(APP).parts[:-1])
    for node in ast.walk(ast.parse(source)):
        if not isinstance(node, ast.ImportFrom) or not node.level or "core" not in (node.module or "").split("."):
            continue
        base = package.rstrip(".").rsplit(".", node.level - 1)[0] if node.level > 1 else package
        module = import_module(f"{base}.{node.module}")
        for alias in node.names:
            is_allowed = module.__name__.endswith(ALLOWED)
            if inspect.isroutine(inspect.unwrap(getattr(module, alias.name))) and not is_allowed:
                yield alias.name


@pytest.mark.parametrize("path", _painters(), ids=lambda path: path.relative_to(APP).as_posix())
def test_a_painter_calls_no_function_of_the_core(path: Path) -> None:
    assert list(_functions(path, path.read_text())) == []


def test_the_search_would_see_one() -> None:
    path = APP / "drawing" / "ground" / "site_painter.py"
    assert list(_functions(path, "from ....core.plan.reach import lying")) == ["lying"]
    assert list(_functions(path, "from ....core.site.site import Cost, KINDS")) == []


def test_shapes_are_made_once_and_only_when_asked_for() -> None:
    shapes = Shapes(awaiting_fall(assess_tree(demo_job(), "WH-07")))
    assert "stump" not in vars(shapes) and "site" not in vars(shapes)
    assert shapes.stump is shapes.stump
    assert shapes.site is shapes.site
    assert shapes.tree(ALONG).crown is shapes.tree(ALONG).crown
