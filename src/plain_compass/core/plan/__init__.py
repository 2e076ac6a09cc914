"""A case and all that is reckoned of it before anything is judged."""
