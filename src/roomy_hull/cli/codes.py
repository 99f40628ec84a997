"""What commands end with, and the words that stand for shipped files."""

FINE, STOPS, UNUSABLE, FAULT = 0, 1, 2, 3
DEMO = "demo"
"""The word that stands for the shipped demo job wherever a job file is wanted."""
SHOP_SUFFIX = ".shop.json"
SHIPPED = "shipped"
"""The word that stands for the shipped shop, where the user keeps another."""
