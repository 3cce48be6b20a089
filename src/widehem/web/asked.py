"""The number of a request: in every line of the log that was written for it, in its answer, and on the page when something
broke."""

from __future__ import annotations

import logging
import secrets

from flask import Flask, Response, g, has_request_context

HEADER, NONE = "X-Request-ID", "-"


def number() -> str:
    """The number of the request that is being answered; '-' outside of one."""
    if not has_request_context():
        return NONE
    if "asked" not in g:
        g.asked = secrets.token_hex(4)
    return str(g.asked)


class Numbered(logging.Filter):
    """Gives every line of the log the number of its request."""

    def filter(self, record: logging.LogRecord) -> bool:
        """As it is called for every line."""
        record.asked = number()
        return True


def log_with_numbers() -> None:
    """Write the log of this process to stderr, warnings and worse, every line with its number."""
    handler = logging.StreamHandler()
    handler.addFilter(Numbered())
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(process)d %(asked)s %(message)s"))
    logging.basicConfig(level=logging.WARNING, handlers=[handler])


def set_up(app: Flask) -> None:
    """Let every answer carry its number."""

    @app.after_request
    def carry(response: Response) -> Response:
        response.headers[HEADER] = number()
        return response
