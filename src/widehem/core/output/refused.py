"""A file that cannot be written."""

from __future__ import annotations


class CannotWriteError(ValueError):
    """Why a file of a garment cannot be, in a sentence for its maker."""
