"""A picture that came with a form, drawn anew and small; and gone with what it belongs to."""

from __future__ import annotations

from flask import request
from sqlalchemy.orm import Session

from widehem.core.output.photo import PhotoError, small_photo
from widehem.store.models import OnRail, Stock


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


def delete_pictured(session: Session, row: OnRail | Stock) -> None:
    """Delete what has a picture, with its picture, so that both can be put back."""
    if row.photo is not None:
        session.delete(row.photo)
        row.photo = None  # else it is told twice
        session.flush()
    session.delete(row)
