"""Outlines as masks of cells, and where a mask may lie on a field without touching what lies there."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from PIL import Image, ImageDraw
from shapely import Polygon

FINE = 4  # parts of a cell in which an outline is drawn
MOST_FREE = 0.5  # of a cell that may be touched by reckoning errors


def touched_cells(polygon: Polygon, cell: tuple[float, float], frame: Polygon | None = None) -> np.ndarray:
    """The cells (rows down, columns across) that an outline touches, from the upper left of what it takes, or of a frame round it.
    cell: its width and height, cm."""
    near, high, far, low = (frame or polygon).bounds
    across, down = (max(math.ceil((far - near) / cell[0]), 1), max(math.ceil((low - high) / cell[1]), 1))
    picture = Image.new("1", (across * FINE, down * FINE))
    fine = [((x - near) / cell[0] * FINE, (y - high) / cell[1] * FINE) for x, y in polygon.exterior.coords]
    ImageDraw.Draw(picture).polygon(fine, fill=1, outline=1)
    touched = np.asarray(picture).reshape(down, FINE, across, FINE).any(axis=(1, 3))
    return np.asarray(touched, dtype=np.float32)


def smooth_size(least: int) -> int:
    """The next size whose spectrum is quickly found."""
    while True:
        rest = least
        for prime in (2, 3, 5):
            while rest % prime == 0:
                rest //= prime
        if rest == 1:
            return least
        least += 1


def free_places(field: tuple[int, ...], spectrum: Any, size: tuple[int, int], cells: np.ndarray) -> np.ndarray:
    """Where a mask's upper left cell may lie: on nothing, and inside the field. spectrum: of the field, padded to this size."""
    h, w = cells.shape
    over = np.fft.irfft2(spectrum * np.conj(np.fft.rfft2(cells, s=size)), s=size)
    free: np.ndarray = over[: field[0] - h + 1, : field[1] - w + 1] < MOST_FREE
    return free
