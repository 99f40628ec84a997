"""Drawings as scenes of strokes: what is seen from each place to stand, before anything paints it."""
