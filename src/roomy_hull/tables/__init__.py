"""Tables: what is told of each kind of entry, column by column; read by the window, CSV, JSON and papers alike."""
