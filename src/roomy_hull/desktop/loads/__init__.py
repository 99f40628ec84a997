"""The pages of the stage Loads."""
