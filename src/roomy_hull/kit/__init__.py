"""What can be built or placed, one file per kind: each expands its value into solids, masses,

keep-clear zones, parts to make and a elevation to draw, in the bay's own directions.
"""
