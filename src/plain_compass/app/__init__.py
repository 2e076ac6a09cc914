"""The window: frame, drawings and steps. Views ask commands; nothing here computes physics."""
