"""Two pencil sketches in place of pictures of a costume: a back that laces, and a hem over a gangway."""

from __future__ import annotations

from pathlib import Path

from widehem.store.notes import Drawn

_FOLDER = Path(__file__).with_name("sketches")


def sketches() -> list[Drawn]:
    """The sketches, each large and small."""
    return [
        Drawn((_FOLDER / f"{name}.jpg").read_bytes(), (_FOLDER / f"{name}-small.jpg").read_bytes())
        for name in ("laced-back", "gangway")
    ]
