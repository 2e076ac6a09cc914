"""What would be better: other bearings, other designs, other measurements."""
