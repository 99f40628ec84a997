"""The ground: drawing, slice, walkabout and handles."""
