"""The tree as it stands: what was measured of it, its stem, crown, section and rot."""
