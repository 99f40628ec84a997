"""Planning: the survey of the vehicle, and later the schedule and log of the work."""
