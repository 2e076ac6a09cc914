"""Drawings of the standing tree: elevations, crown, butt, rot against height."""
