"""What a maker may set, and numbers that carry their working: options, quantities, steps, refusals, registries."""
