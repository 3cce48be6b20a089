"""What is measured on a body: the catalogue, the chart, the doubts, the figure on which the tape is shown."""
