"""What is kept: productions, wearers, readings, dockets, in one SQLite file. Rows in, core values out."""
