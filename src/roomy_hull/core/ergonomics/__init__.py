"""People in figures: body segments, lifting, dogs."""
