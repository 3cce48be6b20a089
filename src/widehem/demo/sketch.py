"""Pencil sketches in place of pictures: a back that laces, a hem over a gangway, a smock, and the pinned back of its toile."""

from __future__ import annotations

from pathlib import Path

from widehem.store.notes import Drawn

_FOLDER = Path(__file__).with_name("sketches")


def sketches(*names: str) -> list[Drawn]:
    """The sketches of these names, each large and small."""
    return [Drawn((_FOLDER / f"{name}.jpg").read_bytes(), (_FOLDER / f"{name}-small.jpg").read_bytes()) for name in names]
