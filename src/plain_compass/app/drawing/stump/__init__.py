"""Drawings of what really happened: the stump over its plan, where the tree lies, what a miss is made of."""
