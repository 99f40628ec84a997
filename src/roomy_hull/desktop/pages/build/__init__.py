"""Pages of the stage Build, and the brief."""
