"""What the numbers mean: findings by limit state."""
