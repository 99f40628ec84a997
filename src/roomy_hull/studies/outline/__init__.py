"""Outline: overall sizes, overhang, clearances, angles and the roof line, against the chosen rule."""
