"""The stump log: what really happened to every tree, in one file of one's own, and what it teaches."""
