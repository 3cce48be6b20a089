"""Points, lines, cubic curves and paths in centimetres, y downwards."""
