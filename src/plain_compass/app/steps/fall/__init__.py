"""The Fall step: see where it goes, what the hinge does on the way, and how sure that is."""
