"""The kinds of check, in the order in which they stand: seams, shapes, girths on the body, movement."""

from widehem.core.pattern.checks import seams, shapes, upper, lower, body, whole  # isort: skip

__all__ = ["body", "lower", "seams", "shapes", "upper", "whole"]
