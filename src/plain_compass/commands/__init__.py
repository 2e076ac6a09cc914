"""Commands of the command line that are a matter of their own."""
