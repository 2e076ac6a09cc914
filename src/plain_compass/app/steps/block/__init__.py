"""The Block: all trees of a job on one map, in an order with its reasons, by days."""
