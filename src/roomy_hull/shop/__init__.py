"""A workshop's metals, stock, prices and rules: a value that is handed down."""
