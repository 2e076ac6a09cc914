"""Stages: the cut as standing states."""
