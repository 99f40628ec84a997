"""What the middle of the window shows in each stage other than Fit-out."""
