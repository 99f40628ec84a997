"""The pages of Services."""
