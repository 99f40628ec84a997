"""Files in and out: job file, verdict, part lists, DXF."""
