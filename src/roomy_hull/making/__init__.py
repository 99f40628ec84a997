"""Making: parts to flat blanks, blanks to sheets, bar parts to bars."""
