"""What ships with the program: fonts, demo job, icon, schema."""
