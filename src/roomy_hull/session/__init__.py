"""The job in hand, what is selected, how it is looked at, and every action of the user."""
