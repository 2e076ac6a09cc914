"""The Cut step: shape face, hinge and back cut on the stump."""
