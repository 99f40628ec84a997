"""Stages and pages: the table of them, and what each page says, free of any widget."""
