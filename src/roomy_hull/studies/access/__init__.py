"""Access: what is taken out of what, in how many moves, who reaches and sees it, what is lifted, how one lives with it."""
