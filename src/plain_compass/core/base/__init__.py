"""What everything stands on: quantities, errors, paths, frames, polygons, phrases."""
