"""The steps of the work, a folder each."""
