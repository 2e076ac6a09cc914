"""Drawings of many trees: the map with their lays and order, the day strip."""
