"""Drawings of the site: plan and lay rose."""
