"""A picture that came with a form, drawn anew and small."""

from __future__ import annotations

from flask import request

from widehem.core.output.photo import PhotoError, small_photo


def sent_picture(errors: dict[str, str], field: str = "photo") -> bytes | None:
    """The picture in a field of the form; None without one, or where it cannot be read: then why is in the errors."""
    sent = request.files.get(field)
    data = sent.read() if sent is not None else b""
    if not data:
        return None
    try:
        return small_photo(data)
    except PhotoError as error:
        errors[field] = str(error)
        return None
