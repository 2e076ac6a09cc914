"""The handbook: a page for every field, finding, form of cut, limit state and term; lessons and the model."""

from __future__ import annotations

from .pages import page, title_in, title_of, whole
from .places import field_page, field_paths, finding_ids, finding_page, form_page, lessons, page_ids, step_page

__all__ = [
    "field_page",
    "field_paths",
    "finding_ids",
    "finding_page",
    "form_page",
    "lessons",
    "page",
    "page_ids",
    "step_page",
    "title_in",
    "title_of",
    "whole",
]
