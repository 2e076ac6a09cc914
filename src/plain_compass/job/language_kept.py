"""The language a person chose, kept for the next start.

Apart from ``language``, which every other module speaks through and which therefore can call none of them.
"""

from __future__ import annotations

from .disk import JobFileError, write_atomically
from .language import LanguageError, choice_file, tr


def choose(code: str) -> None:
    """Speak this language from the next start on.

    Raises:
        LanguageError: the choice cannot be kept.
    """
    file = choice_file()
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        write_atomically(file, code + "\n")
    except OSError as error:
        raise LanguageError(
            tr("The language cannot be kept in {folder}: {reason}.", folder=file.parent, reason=error.strerror or error)
        ) from None
    except JobFileError as error:
        raise LanguageError(str(error)) from None
