"""Beams, plates, sections and bolts: closed formulas of the handbooks."""
