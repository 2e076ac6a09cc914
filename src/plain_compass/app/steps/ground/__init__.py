"""The Ground step: choose the lay on the site plan, all bearings judged at once."""
