"""Published tables of the trade, as data files that name their sources; `read` reads them."""
