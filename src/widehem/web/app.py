"""The Flask application: blueprints, content policy, CSRF, error pages."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from flask import Flask, Response, current_app, g, make_response, render_template, request
from flask_wtf.csrf import CSRFError, CSRFProtect
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException
from werkzeug.routing import IntegerConverter, ValidationError

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem import __version__
from widehem.core.output.photo import LARGEST_FILE
from widehem.jobs.works import Works
from widehem.store.database import Store
from widehem.store.keeping import StoreError
from widehem.web import (
    accept,
    archives,
    armhole,
    asked,
    at_work,
    board,
    book,
    cast,
    cast_files,
    charts,
    company,
    compare,
    copy_docket,
    costumes,
    designs,
    desk,
    door,
    drawn_by,
    ease,
    edges,
    events,
    files,
    find,
    first,
    fit,
    fit_stand,
    grading,
    grading_rules,
    health,
    help,
    house,
    house_cloths,
    lay,
    lay_files,
    listen,
    lists,
    make,
    make_care,
    materials,
    measure,
    nest_files,
    notes,
    outlines,
    paper,
    people,
    planning,
    printers,
    rail,
    rounds,
    rules,
    schools,
    sheet,
    shopping,
    show,
    sizes,
    stands,
    stock,
    style,
    tables,
    tracing,
    training,
    tries,
    walk,
    wearer,
    writing,
)
from widehem.web.door import Door
from widehem.web.numbers import is_number
from widehem.web.sessions import Sessions
from widehem.web.stood import stamp
from widehem.web.typed import Typed

POLICY = "; ".join(
    (
        "default-src 'none'", "script-src 'self'", "style-src 'self'", "img-src 'self' data:", "font-src 'self'",
        "connect-src 'self'", "form-action 'self'", "base-uri 'none'", "frame-ancestors 'none'", "manifest-src 'self'",
    )
)  # fmt: skip
LARGEST_REQUEST = 2 * 1024 * 1024
STATIC_AGE = 3600

_WORDS = {
    400: (
        "That did not arrive whole",
        "The page sent something that cannot be read. Go back, look at the fields, and send it again.",
    ),
    403: ("Not from this page", "The form was too old or came from elsewhere. Open the page again and send it once more."),
    404: (
        "Nothing lies here",
        "The page you asked for does not exist, or was deleted. Go back to the productions and take it from there.",
    ),
    405: ("Not this way", "This address takes no such request. Go back and use the buttons of the page."),
    413: ("Too large to lay on the table", "What was sent is over 2 MB, or a photo over 8 MB. Send less at once."),
    415: ("Not a message that is understood", "Send it as application/json."),
    503: (
        "Not kept yet",
        "Somebody else is writing much at once. Go back: what you typed is still there; send it again in a moment.",
    ),
    500: (
        "Something broke in the workroom",
        "The work is kept as it was. Go back and try again; if it happens twice, write down what you did.",
    ),
}
NOT_KEPT = {
    "full": "The disk of the workroom is full: nothing was kept. Make room on it, go back, and send what you typed again.",
    "readonly": "The data folder cannot be written to: nothing was kept. Give Wide Hem leave to, go back, and send it again.",
    "disk i/o": "The disk of the workroom does not answer: nothing was kept. Look at it, go back, and send what you typed again.",
}


class Number(IntegerConverter):
    """A number in an address: no more than the database can hold, or there is no such page."""

    def to_python(self, value: str) -> int:
        if not is_number(value):
            raise ValidationError
        return int(value)


def create_app(store: Store, at: Door | None = None, copies: Path | None = None, works: Works | None = None) -> Flask:
    """The application on this store. at: the door it stands behind; loopback without a password unless another is named.
    copies: where its daily copies are kept. works: who does the work that lasts; without them it is done by whoever asks."""
    app = Flask(__name__)
    app.request_class = Typed
    app.session_interface = Sessions()
    app.config.update(
        SECRET_KEY=store.secret(),
        SESSION_COOKIE_SAMESITE="Strict",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_NAME="wh_session",
        MAX_CONTENT_LENGTH=LARGEST_REQUEST,
        SEND_FILE_MAX_AGE_DEFAULT=STATIC_AGE,
        WTF_CSRF_TIME_LIMIT=None,
        TEMPLATES_AUTO_RELOAD=False,
    )
    app.url_map.converters["int"] = Number
    app.jinja_env.globals["stamp"] = stamp
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    app.extensions["widehem.store"] = store
    app.extensions["widehem.copies"] = copies
    app.extensions["widehem.works"] = works or Works(store, inline=True)
    door.set_up(app, at or Door())
    app.before_request(_room_for_photos)
    CSRFProtect(app).exempt(listen.device)
    asked.set_up(app)
    writing.set_up(app)
    tries.set_up(app)
    notes.set_up(app)
    help.set_up(app)
    show.set_up(app)
    at_work.set_up(app)
    for station in (
        desk,
        first,
        people,
        stands,
        wearer,
        schools,
        measure,
        sheet,
        charts,
        listen,
        lists,
        tables,
        ease,
        events,
        house,
        health,
        accept,
        armhole,
        at_work,
        board,
        drawn_by,
        compare,
        walk,
        paper,
        edges,
        printers,
        materials,
        cast_files,
        archives,
        outlines,
        tracing,
        files,
        find,
        help,
        copy_docket,
        style,
        costumes,
        designs,
        sizes,
        rules,
        grading,
        grading_rules,
        nest_files,
        cast,
        rail,
        company,
        notes,
        fit,
        fit_stand,
        rounds,
        lay,
        lay_files,
        make,
        make_care,
        house_cloths,
        planning,
        book,
        training,
        stock,
        shopping,
    ):
        app.register_blueprint(station.pages)
    app.register_blueprint(listen.device)
    app.register_error_handler(CSRFError, _csrf)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(OperationalError, _refused)
    app.register_error_handler(StoreError, lambda error: _page(409, "Not kept", str(error)))
    app.register_error_handler(Exception, _unexpected)
    app.after_request(_policy)
    app.url_defaults(_static_version)
    return app


def _static_version(endpoint: str, values: dict[str, Any]) -> None:
    """Static files carry the version in their address, so that a new one is never mixed with an old."""
    if endpoint == "static":
        values.setdefault("v", __version__)


def _room_for_photos() -> None:
    """Photos may be larger than anything else that is sent."""
    if request.endpoint in (
        "wearer.keep_photo",
        *notes.WITH_PICTURES,
        *book.WITH_PICTURES,
        *outlines.WITH_FILES,
        *tracing.WITH_FILES,
        *archives.WITH_FILES,
        *rail.WITH_FILES,
        *stock.WITH_FILES,
    ):
        request.max_content_length = LARGEST_FILE + LARGEST_REQUEST


def _policy(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    door.sealed(response)
    if request.endpoint != "static":
        response.headers.setdefault("Cache-Control", "no-store")
        response.headers.add("Vary", "HX-Request")
    return response


def _page(status: int, title: str, words: str) -> tuple[str | dict[str, str], int]:
    g.pop("station", None)
    if request.blueprint == "device":  # a tape reads no pages
        return {"error": words}, status
    return render_template("error.html", title=title, words=words, status=status), status


def _http(error: HTTPException) -> Any:
    status = error.code or 500
    if status < 400:
        return error
    title, words = _WORDS.get(status, (error.name, error.description or ""))
    return _page(status, title, words)


def _csrf(_error: CSRFError) -> Any:
    return _page(403, *_WORDS[403])


def _refused(error: OperationalError) -> Any:
    """The database takes nothing now: busy, or no room, or no leave to write."""
    said = str(error.orig).lower()
    if "locked" in said or "busy" in said:
        answer = make_response(_page(503, *_WORDS[503]))
        answer.headers["Retry-After"] = "2"
        return answer
    for sign, words in NOT_KEPT.items():
        if sign in said:
            current_app.logger.error("not kept: %s", said)
            return _page(507, "Not kept", words)
    return _unexpected(error)


def _unexpected(error: Exception) -> Any:
    current_app.logger.exception("unexpected, %s: %s %s: %s", asked.number(), request.method, request.path, error)
    title, words = _WORDS[500]
    return _page(500, title, f"{words} In the log it has the number {asked.number()}.")
