"""What is done to a garment after it was drafted: operations that replay on any body."""
