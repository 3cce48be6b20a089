"""The kinds of check, in the order in which they stand on the board: sewing first, then shapes, then the body."""

# ruff: noqa: F401, I001 - each registers its own, in this order
from widehem.core.pattern.checks import (
    seams,
    darts,
    shapes,
    joints,
    curves,
    upper,
    sleeve,
    lower,
    through,
    held,
    fold,
    whole,
    body,
    belly,
)
