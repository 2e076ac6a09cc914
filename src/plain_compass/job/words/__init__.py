"""Every word the program says: the catalogue, and a person's speech that puts units and vocabulary into it."""

from .catalogue import glossary, sentences, vocabularies
from .speech import Speech

__all__ = ["Speech", "glossary", "sentences", "vocabularies"]
