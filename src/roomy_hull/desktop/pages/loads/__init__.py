"""The pages of the stage Loads, and the load sheet on paper."""
