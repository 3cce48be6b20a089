"""Handing a file over."""

from __future__ import annotations

import re

from flask import Response


def handed(data: bytes | str, name: str, mimetype: str) -> Response:
    """A file to take."""
    response = Response(data, mimetype=mimetype)
    stem, _, ending = name.rpartition(".")
    safe = re.sub(r"[^A-Za-z0-9]+", "-", stem).strip("-").lower() or "file"
    response.headers["Content-Disposition"] = f'attachment; filename="{safe}.{ending}"'
    return response
