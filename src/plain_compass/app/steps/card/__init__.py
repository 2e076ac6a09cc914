"""The Card step: the page as it prints."""
