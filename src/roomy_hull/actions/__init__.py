"""Every user action, declared once: its words, key, place in the menu, and what it does."""
