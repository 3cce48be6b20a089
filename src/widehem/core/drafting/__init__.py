"""The sheet on which a method draws: points, lines, steps, and the working of every number."""
