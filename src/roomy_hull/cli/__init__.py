"""The command line: open, check, why, cut, sheet, shots, shop, schema. Without Qt; the desktop is handed in."""
