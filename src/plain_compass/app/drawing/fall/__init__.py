"""Painters of the Fall step: the strobe, the fan over the site, the hinge against tilt."""
