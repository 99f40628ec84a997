"""Edits: pure functions from one Job to the next. What did not change is shared."""
