"""The steps of the work, in their order, and what each is called."""

from __future__ import annotations

from .language import tr

STEP_NAMES = {
    "look": tr("Look"),
    "ground": tr("Ground"),
    "cut": tr("Cut"),
    "stages": tr("Stages"),
    "fall": tr("Fall"),
    "card": tr("Card"),
    "stump": tr("Stump"),
    "block": tr("Block"),
}
"""Step -> its name."""
