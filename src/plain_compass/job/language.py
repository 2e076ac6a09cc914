"""The language the program speaks: English as written, or another from a file beside it.

English stands where it is said, so that code can be read; a language file gives each of those texts, and each sentence
of the catalogue, in another language. What a file does not have is said in English. The format, and how one is made
and checked, stand in ``docs/languages.md``.
"""

from __future__ import annotations

import locale
import os
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from string import Formatter
from typing import Any

from platformdirs import user_config_path

from .. import APP

FORMAT, VERSION = "plain-compass-language", 1
CHOICE = "PLAIN_COMPASS_LANGUAGE"
"""Variable that names the language: a code, or the path of a file."""
ENGLISH = "en"
NO_BREAK = "\N{NO-BREAK SPACE}"
"""Between thousands, where the comma stands before decimals."""
SHIPPED = Path(__file__).parents[1] / "data" / "languages"


class LanguageError(ValueError):
    """A language file that cannot be used."""


@dataclass(frozen=True, slots=True)
class Language:
    """What is said otherwise in a language.

    Attributes:
        code: as in ISO 639, such as ``de``.
        texts: English as it stands in the code -> what is said instead.
        sentences: key in the catalogue -> what is said instead; ``glossary.…`` for the terms.
        pages: name of a text that ships, such as ``lessons.md`` -> the whole of it.
        trouble: a sentence on why the language that was asked for is not spoken.
    """

    code: str = ENGLISH
    name: str = "English"
    texts: Mapping[str, str] = field(default_factory=dict)
    sentences: Mapping[str, str] = field(default_factory=dict)
    pages: Mapping[str, str] = field(default_factory=dict)
    trouble: str = ""


def tr(text: str, /, **values: object) -> str:
    """A text in the language spoken, with values put in where it names them, as in ``"{count} trees"``."""
    said = spoken().texts.get(text, text)
    if not values:
        return said
    try:
        return _IN_WORDS.vformat(said, (), values)
    except (LookupError, ValueError, AttributeError, TypeError):
        # A language that names what is not there is told of by its check, and must not end a day's work.
        return _IN_WORDS.vformat(text, (), values)


def tr_mark(text: str) -> str:
    """The text itself: marks one that is looked up where it is used, so that it is asked of who writes a language."""
    return text


def tr_count(one: str, many: str, count: float, /, **values: object) -> str:
    """One of two texts, as it is one thing or another number of them; both may name ``{count}``."""
    return tr(one if count == 1 else many, count=count, **values)


def in_english(text: str, words: Iterable[str]) -> str:
    """Typed text with some words of the language spoken put into English: what is shown can be typed again."""
    for word in words:
        if (said := tr(word)) != word:
            text = text.replace(said, word)
    return text


def in_words(number: str) -> str:
    """A number written with a point, as a person reads it: with the comma, where the person's system writes one."""
    return number.replace(".", _DECIMAL[-1]) if _DECIMAL[-1] != "." else number


def write_decimals_with(sign: str) -> None:
    """Show numbers with this sign, a point or a comma; what is read, and what is kept in files, does not change."""
    _DECIMAL[:] = [sign if sign in (".", ",") else "."]


def follow_system() -> None:
    """Write decimals, and the names of days and months, as the system's own settings say."""
    try:
        locale.setlocale(locale.LC_NUMERIC, "")
        write_decimals_with(str(locale.localeconv()["decimal_point"]))
        locale.setlocale(locale.LC_TIME, "")
    except locale.Error:
        pass  # settings that name what is not installed; points and English names then
    finally:
        # Libraries written in C read numbers by this setting; they are to go on reading points.
        locale.setlocale(locale.LC_NUMERIC, "C")


_DECIMAL = ["."]


class _InWords(Formatter):
    """Puts values into texts, with decimals as the person writes them."""

    def format_field(self, value: Any, format_spec: str) -> str:
        text = str(super().format_field(value, format_spec))
        if format_spec.endswith(",") and _DECIMAL[-1] == ",":
            text = text.replace(",", NO_BREAK)
        return in_words(text) if isinstance(value, float) else text


_IN_WORDS = _InWords()


@cache
def spoken() -> Language:
    """The language this run speaks, settled once: as the variable or the person's choice says, or the system.

    A language that is not there, or cannot be read, is English, with the reason in ``trouble``.
    """
    asked = os.environ.get(CHOICE) or _kept_choice()
    if not asked:
        asked = _of_system()
        if file_of(asked) is None:
            return Language()
    if asked == ENGLISH:
        return Language()
    file = Path(asked) if os.sep in asked else file_of(asked)
    if file is None:
        return Language(trouble=f"There is no language “{asked}” here; accepted: {', '.join(sorted(languages()))}.")
    try:
        return read_language(file)
    except LanguageError as error:
        return Language(trouble=str(error))


def read_language(file: Path) -> Language:
    """A language from its file.

    Raises:
        LanguageError: a file that cannot be read, of another format, or of a newer version.
    """
    import json  # only those who speak another language wait for it

    # Said in English: no other language is spoken before its file is read.
    try:
        found = json.loads(file.read_text(encoding="utf-8"))
    except OSError as error:
        raise LanguageError(f"{file.name} could not be read: {error.strerror or error}.") from None
    except ValueError:
        raise LanguageError(f"{file.name} is broken: it is no JSON.") from None
    if not isinstance(found, dict) or found.get("format") != FORMAT:
        raise LanguageError(f"{file.name} is no language: its field “format” should say {FORMAT}.")
    version = found.get("version")
    if not isinstance(version, int) or not 1 <= version <= VERSION:
        raise LanguageError(f"{file.name}: field “version” is {version!r}; this program reads up to {VERSION}.")
    texts, said, pages = (_texts(file, name, found.get(name, {})) for name in ("texts", "sentences", "pages"))
    return Language(str(found.get("code") or file.stem), str(found.get("name") or file.stem), texts, said, pages)


def _texts(file: Path, name: str, table: object) -> dict[str, str]:
    if not isinstance(table, dict) or not all(isinstance(text, str) for text in table.values()):
        raise LanguageError(f"{file.name}: field “{name}” is no table of texts; accepted: English to what is said.")
    # An empty text is one that nobody has written yet.
    return {key: text for key, text in table.items() if text}


def languages() -> dict[str, Path | None]:
    """Every language there is: code -> its file, none for English. One's own stands before one that ships."""
    found: dict[str, Path | None] = {ENGLISH: None}
    for folder in (SHIPPED, own_folder()):
        if folder.is_dir():
            found |= {file.stem: file for file in sorted(folder.glob("*.json"))}
    return found


def named_languages() -> tuple[dict[str, str], tuple[str, ...]]:
    """(code -> name of every language that can be read, a sentence for every one that cannot)."""
    names, troubles = {}, []
    for code, file in languages().items():
        try:
            names[code] = "English" if file is None else read_language(file).name
        except LanguageError as error:
            troubles.append(str(error))
    return names, tuple(troubles)


def file_of(code: str) -> Path | None:
    """The file of a language, if it is there."""
    return languages().get(code) if code else None


def own_folder() -> Path:
    """Where a person puts languages of their own."""
    return _settings() / "languages"


def choice_file() -> Path:
    """Where the language a person chose is kept."""
    return _settings() / "language"


def _kept_choice() -> str:
    try:
        return choice_file().read_text(encoding="utf-8").strip()
    except (OSError, ValueError):
        return ""


def _of_system() -> str:
    """The language of the system's messages: the letters before the country."""
    names = ("LC_ALL", "LC_MESSAGES", "LANG")
    named = next((value for name in names if (value := os.environ.get(name))), "")
    return named.replace("-", "_").partition("_")[0].partition(".")[0].lower()


def _settings() -> Path:
    return user_config_path(APP)
