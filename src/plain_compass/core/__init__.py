"""The physics of felling one tree: pure functions over frozen data, every quantity in SI units."""
