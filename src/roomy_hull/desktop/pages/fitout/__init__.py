"""The pages of the stage Fit-out."""
