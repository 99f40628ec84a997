"""Arrange: a bay, a place and a height for everything that has to go in, and a proof of how good that is."""
