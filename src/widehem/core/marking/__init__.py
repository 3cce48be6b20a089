"""From block to pattern: allowances, hems, notches, drill holes, grain, labels, cut list."""
