"""One physical effect per file."""
