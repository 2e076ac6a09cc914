"""Drawings of practice: trees and stumps as they look, without a number on them."""
