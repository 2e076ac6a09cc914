"""Practice: a mode of its own, apart from the jobs."""
