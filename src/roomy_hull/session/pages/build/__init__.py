"""Page models of the stage Build, and of the brief."""
