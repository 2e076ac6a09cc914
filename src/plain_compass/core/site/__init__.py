"""Where it stands: ground, wind, ropes, what lies round it and the ways out."""
