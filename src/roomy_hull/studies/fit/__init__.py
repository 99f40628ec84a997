"""Fit: does everything stand clear of everything else, inside its bay, behind its opening?"""
