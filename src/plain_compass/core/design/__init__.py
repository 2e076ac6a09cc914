"""What is planned: the cut, the kit, a practice and what must hold together."""
