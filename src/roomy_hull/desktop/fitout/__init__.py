"""The pages of the stage Fit-out beside its drawing."""
