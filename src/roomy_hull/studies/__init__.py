"""Studies: pure functions from an Assembly to a result, and from the result to findings."""
