"""Drawing shared by screen, PDF and SVG: palette, scale, labels, handles, painters."""
