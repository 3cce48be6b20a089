"""A design: a method with its settings and steps, without a wearer; and the one call that makes a garment of it."""
