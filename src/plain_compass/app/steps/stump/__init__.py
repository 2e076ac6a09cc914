"""The Stump step: what was really cut, where the tree lies, why, and what one's own stumps teach."""
