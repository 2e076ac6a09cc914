"""The fall: a thin rod turning about its hinge, many at once; what ends it, and how far to trust that."""
