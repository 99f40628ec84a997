"""Backends: the same scenes as files of several kinds; the painter on the screen is in the desktop."""
