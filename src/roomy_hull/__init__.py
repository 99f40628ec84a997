"""Roomy Hull: layout, fit, access and load checks for vehicle canopies, before metal is cut."""

__version__ = "0.2.0"
