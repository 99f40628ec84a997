"""Models of the pages of Cut."""
