"""The Look step: the tree as measured, with the spread of every measurement."""
