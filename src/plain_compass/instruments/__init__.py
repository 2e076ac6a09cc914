"""Small simulated instruments and the open plain-text protocol they speak. Loopback only."""
