"""Scenes: what is drawn, as strokes in millimetres."""
