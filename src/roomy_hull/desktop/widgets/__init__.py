"""Parts of the window that several stages share."""
