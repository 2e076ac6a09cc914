"""After the fall: the stump as it was cut, and why the tree came to lie where it lies."""
