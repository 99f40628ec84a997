"""The pages of Access."""
