"""Many trees: which lay for each, in which order, why, in how many minutes and with what."""
