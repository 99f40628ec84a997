"""The stages and their pages."""
