"""Pages of Cut."""
