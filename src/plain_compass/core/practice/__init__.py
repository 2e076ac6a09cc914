"""Practice: made-up trees, stumps and moments with a known truth, and what answers to them show of an eye."""
