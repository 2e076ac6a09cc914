"""A made language: every text in brackets and a third longer, to find what is not said through the catalogue, and what
does not fit when words are longer. Trade words, placeholders, links and marks stay what they are.
"""

from __future__ import annotations

import re
import sys
from pathlib import Path

OPEN, CLOSE = "«", "»"
KEPT = re.compile(
    r"(\{[^{}]*\}|\[[A-Za-z ]+\]|</?[a-zA-Z][^<>]*>|\(help:[^)]*\)|&[a-z]+;|\*\.\w+|`[^`]*`|\$[^$]*\$|%\([a-z]+\)s)"
)
"""What is not words: placeholders, terms, tags, links, kinds of files, code, formulas."""
LONGER = 1 / 3
WORD = 4
"""Letters by which one word grows; more are words of their own."""


def bracketed(text: str) -> str:
    """A text as the made language has it; a long one paragraph by paragraph."""
    return "\n".join(_line(line) for line in text.split("\n"))


def _line(line: str) -> str:
    if not any(map(str.isalpha, KEPT.sub("", line))) or re.fullmatch(r"\s*\|?[-| ]+\|?\s*", line):
        return line
    head, words, tail = re.fullmatch(r"(\s*(?:#+ |[-*] |\d+\. )?)(.*?)(\s*)", line, re.DOTALL).groups()  # type: ignore[union-attr]
    if "|" in words:
        return head + "|".join(_piece(cell) for cell in words.split("|")) + tail
    return head + _piece(words) + tail


def _piece(words: str) -> str:
    """Words in brackets, each tag left outside of them."""
    parts = re.split(r"(</?[a-zA-Z][^<>]*>|;;)", words)
    return "".join(part if not part or part[0] == "<" or part == ";;" else _worded(part) for part in parts)


def _worded(words: str) -> str:
    bare = KEPT.sub("", words)
    if not any(map(str.isalpha, bare)):
        return words
    front, inner, back = re.fullmatch(r"(\s*)(.*?)(\s*)", words, re.DOTALL).groups()  # type: ignore[union-attr]
    more = max(1, round(len(bare.strip()) * LONGER) - 2)
    # In words of three, since longer texts have more words and not one that is endless.
    padding = (" ~~~" * (more // 4 + 1))[:more] if more > WORD else "~" * more
    return f"{front}{OPEN}{inner}{padding}{CLOSE}{back}"


if __name__ == "__main__":
    from plain_compass.job.language_files import made

    Path(sys.argv[1]).write_text(made("xx", "Made", bracketed), encoding="utf-8")
