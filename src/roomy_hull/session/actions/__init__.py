"""Every action, declared once, area by area."""
