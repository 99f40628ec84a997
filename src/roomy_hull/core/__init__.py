"""Numbers, units, frames, solids, tables of the trade, errors and findings. Knows of nothing else."""
