"""Plain Compass: design the face, hinge and back cut of a tree before the saw starts."""

__version__ = "0.1.0"
APP = "plain-compass"
"""What its folders are called on this desktop."""
