"""Books of costumes in the store."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.making.book import BookError, CostumeBook
from widehem.store.models import Book


def book_row(session: Session, wearer_id: int, costume: str) -> Book | None:
    """The book of a costume; None where nobody has written in it yet."""
    return session.scalars(select(Book).where(Book.wearer_id == wearer_id, Book.costume == costume)).first()


def book_of(row: Book | None) -> CostumeBook:
    """What stands in a book; an empty one where what is kept cannot be read."""
    try:
        return CostumeBook.from_data(row.data) if row is not None else CostumeBook()
    except BookError:
        return CostumeBook()


def keep_book(session: Session, wearer_id: int, costume: str, book: CostumeBook) -> None:
    """Keep what stands in a book."""
    row = book_row(session, wearer_id, costume)
    if row is None:
        session.add(Book(wearer_id=wearer_id, costume=costume, data=book.as_data()))
    else:
        row.data = book.as_data()
    session.flush()


def pictures_in_books(session: Session) -> set[int]:
    """The numbers of all pictures that a book shows."""
    return {shot.picture for row in session.scalars(select(Book)) for shot in book_of(row).shots}
