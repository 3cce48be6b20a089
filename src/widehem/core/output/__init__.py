"""One writer per format: board, pattern and sheet map as SVG, paper and method card as PDF, drafts as JSON."""
