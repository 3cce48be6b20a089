"""What a browser carries from page to page, signed; it holds as long as the browser keeps it, whatever the clock of the house
does."""

from __future__ import annotations

from flask import Flask, Request
from flask.sessions import SecureCookieSession, SecureCookieSessionInterface
from itsdangerous import BadSignature


class Sessions(SecureCookieSessionInterface):
    """Sessions without an age: a clock that was put back would make them come from the future, and what is typed be refused.
    Of a
    house with a password another password ends them."""

    def open_session(self, app: Flask, request: Request) -> SecureCookieSession | None:
        """As it is called at the start of every request."""
        signing = self.get_signing_serializer(app)
        carried = request.cookies.get(self.get_cookie_name(app))
        if signing is None or not carried:
            return self.session_class() if signing is not None else None
        try:
            return self.session_class(signing.loads(carried))
        except BadSignature:
            return self.session_class()
