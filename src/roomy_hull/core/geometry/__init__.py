"""Frames, solids, motions, gaps and regions: what can be said of shapes alone."""
