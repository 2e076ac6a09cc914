"""The window's frame: document and undo, commands, trail, verdict, findings, margin band, side sheet."""
