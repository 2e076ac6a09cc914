"""The physics of felling one tree: pure functions over frozen data, every quantity in SI units."""

# The table of cuts is read first: a cut knows its forms by key, and each form registers itself.
from . import cuts as cuts
