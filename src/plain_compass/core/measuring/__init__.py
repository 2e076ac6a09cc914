"""Measuring a standing tree: every method a pure formula, every result with its spread."""
