"""What a unit can be, one file a kind: its value, what it expands into, its parts, card and stores."""
