"""The kinds of check, in the order in which they stand on the board."""

from widehem.core.pattern.checks import body, seams, darts, shapes, joints, curves, upper, sleeve, lower, whole, held  # noqa: F401, I001 - each registers its own
