"""Check the shape of the code: sizes, annotations, import cycles, and the share of tests.

Limits: no file over 500 lines, no class over 300 lines or 20 methods, functions with a median of at most 8
code lines, 95 % of them at most 30, none over 60; at most 6 arguments; every public function annotated; every number
that is given a name says why it is what it is; tests between a quarter and a third of all code.
"""

from __future__ import annotations

import ast
import statistics
import sys
from collections.abc import Iterator
from pathlib import Path

import grimp

ROOT = Path(__file__).resolve().parent.parent
CODE = ("src", "bench", "tools")
MOST_FILE, MOST_CLASS, MOST_METHODS, MOST_FUNCTION = 500, 300, 20, 60
MEDIAN_FUNCTION, MOST_AT_95 = 8, 30
MOST_ARGUMENTS, ARGUMENTS_AT_95 = 6, 5
TEST_SHARE = (0.25, 1 / 3 + 0.005)
"""A quarter to a third; the last digit is for rounding."""

Function = ast.FunctionDef | ast.AsyncFunctionDef


def files_of(*folders: str) -> list[Path]:
    """Every Python file under the folders."""
    return sorted(path for folder in folders for path in (ROOT / folder).rglob("*.py"))


def code_lines(node: ast.AST, source: list[str]) -> int:
    """Lines of a body that are neither blank, comment nor docstring, signature excluded."""
    assert isinstance(node, Function)
    body = node.body
    if (
        isinstance(body[0], ast.Expr)
        and isinstance(body[0].value, ast.Constant)
        and isinstance(body[0].value.value, str)
    ):
        body = body[1:]
    if not body:
        return 0
    lines = source[body[0].lineno - 1 : node.end_lineno]
    return sum(1 for line in lines if line.strip() and not line.strip().startswith("#"))


def count_code(path: Path) -> int:
    """Lines of a file that are neither blank nor comment nor docstring."""
    text = path.read_text()
    docs: set[int] = set()
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str):
            docs.update(range(node.lineno, (node.end_lineno or node.lineno) + 1))
    lines = enumerate(text.splitlines(), start=1)
    return sum(1 for number, line in lines if number not in docs and line.strip() and not line.strip().startswith("#"))


def unannotated(node: Function) -> bool:
    """Whether a public function lacks an annotation."""
    if node.name.startswith("_"):
        return False
    arguments = [*node.args.posonlyargs, *node.args.args, *node.args.kwonlyargs]
    named = [a for a in arguments if a.arg not in ("self", "cls")]
    return node.returns is None or any(a.annotation is None for a in named)


def arguments(node: Function) -> int:
    """How many arguments a function takes, itself left out."""
    named = [*node.args.posonlyargs, *node.args.args, *node.args.kwonlyargs]
    return sum(each.arg not in ("self", "cls") for each in named)


def is_number(node: ast.AST | None) -> bool:
    """Whether an expression is a number, or several, written out."""
    if isinstance(node, ast.Tuple):
        return bool(node.elts) and all(is_number(each) for each in node.elts)
    if isinstance(node, ast.BinOp):
        return is_number(node.left) and is_number(node.right)
    return isinstance(node, ast.Constant) and isinstance(node.value, int | float) and not isinstance(node.value, bool)


def unexplained(module: ast.Module, source: list[str]) -> Iterator[tuple[int, str]]:
    """(line, name) of every named number without a text after it or a comment beside it.

    One text may serve a group of names that follow one another.
    """
    waiting: list[tuple[int, str]] = []
    for node in module.body:
        is_named = isinstance(node, ast.Assign) and isinstance(node.targets[0], ast.Name) and is_number(node.value)
        if is_named and "#" not in source[node.lineno - 1]:
            waiting.append((node.lineno, ast.unparse(node).split(" =")[0]))
        elif isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            waiting.clear()
        elif not is_named:
            yield from waiting
            waiting.clear()
    yield from waiting


def complaints() -> Iterator[str]:
    """One sentence for every limit that is broken."""
    sizes: list[int] = []
    taken: list[int] = []
    for path in files_of(*CODE):
        text = path.read_text()
        lines, name = text.splitlines(), path.relative_to(ROOT)
        if len(lines) > MOST_FILE:
            yield f"{name} has {len(lines)} lines; at most {MOST_FILE}."
        module = ast.parse(text)
        for line, which in unexplained(module, lines):
            yield f"{name}:{line}: {which} does not say why it is what it is."
        for node in ast.walk(module):
            if isinstance(node, ast.ClassDef):
                yield from _class(node, str(name))
            elif isinstance(node, Function):
                size = code_lines(node, lines)
                sizes.append(size)
                count = arguments(node)
                taken.append(count)
                if count > MOST_ARGUMENTS:
                    yield f"{name}: {node.name} takes {count} arguments; at most {MOST_ARGUMENTS}."
                if size > MOST_FUNCTION:
                    yield f"{name}: {node.name} has {size} code lines; at most {MOST_FUNCTION}."
                if unannotated(node):
                    yield f"{name}: {node.name} is public and not annotated throughout."
    yield from _functions(sizes)
    at_95 = statistics.quantiles(taken, n=20)[-1]
    print(f"Arguments: 95 % of the functions take at most {at_95:g}, none over {max(taken)}.")
    if at_95 > ARGUMENTS_AT_95:
        yield f"5 % of the functions take more than {at_95:g} arguments; at most {ARGUMENTS_AT_95}."
    yield from _cycles()
    yield from _tests()


def _class(node: ast.ClassDef, name: str) -> Iterator[str]:
    size = (node.end_lineno or node.lineno) - node.lineno + 1
    methods = sum(isinstance(item, Function) for item in node.body)
    if size > MOST_CLASS:
        yield f"{name}: class {node.name} has {size} lines; at most {MOST_CLASS}."
    if methods > MOST_METHODS:
        yield f"{name}: class {node.name} has {methods} methods; at most {MOST_METHODS}."


def _functions(sizes: list[int]) -> Iterator[str]:
    median, high = statistics.median(sizes), statistics.quantiles(sizes, n=20)[-1]
    print(f"{len(sizes)} functions: median {median:g} code lines, 95 % at most {high:g}.")
    if median > MEDIAN_FUNCTION:
        yield f"The median function has {median:g} code lines; at most {MEDIAN_FUNCTION}."
    if high > MOST_AT_95:
        yield f"5 % of the functions have more than {high:g} code lines; at most {MOST_AT_95}."


def _cycles() -> Iterator[str]:
    """Import cycles between modules; an import for type checkers alone ties two rooms as well, and counts."""
    graph = grimp.build_graph("plain_compass")
    below: dict[str, set[str]] = {name: graph.find_modules_directly_imported_by(name) for name in graph.modules}
    while ready := [name for name, wanted in below.items() if not wanted & below.keys()]:
        for name in ready:
            del below[name]
    if below:
        yield f"Modules import each other in a circle: {', '.join(sorted(below))}."


def _tests() -> Iterator[str]:
    code, tests = (sum(map(count_code, files_of(*folders))) for folders in (CODE, ("tests",)))
    share = tests / (code + tests)
    print(f"{code} lines of code, {tests} lines of tests: tests are {share:.0%} of all.")
    if not TEST_SHARE[0] <= share <= TEST_SHARE[1]:
        yield f"Tests are {share:.1%} of all code; between a quarter and a third is wanted."


def main() -> int:
    """Print every complaint; exit status 1 when there is one."""
    found = list(complaints())
    for sentence in found:
        print(sentence)
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
