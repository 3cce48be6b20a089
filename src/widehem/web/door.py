"""Who may come in: by which names the house answers, from which pages its forms may come, and the one password of a house that
can
be reached from elsewhere."""

from __future__ import annotations

import hashlib
import hmac
import secrets
from collections.abc import Collection
from dataclasses import dataclass
from typing import Any
from urllib.parse import unquote, urlsplit

from flask import Blueprint, Flask, current_app, g, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from widehem.web.guesses import Guesses

LOOPBACK = frozenset({"127.0.0.1", "localhost", "::1"})
SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
OPEN = frozenset({"static", "door.knock", "door.enter", "health.look"})  # endpoints before the door
LEAST_PASSWORD = 8
PASSWORDS = Guesses("password")  # wrong ones, from whomever
HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), display-capture=(), geolocation=(), microphone=(), payment=(), usb=()",
}

pages = Blueprint("door", __name__)


@dataclass
class Door:
    """names: the host names the house answers to, in small letters, without a port. password: of the house; None asks for none.
    secure: it is reached over TLS only."""

    names: Collection[str] = LOOPBACK
    password: str | None = None
    secure: bool = False

    def opens_for(self, words: str) -> bool:
        """Whether this is the password."""
        return self.password is not None and hmac.compare_digest(_digest(words), _digest(self.password))

    def ticket(self, key: str) -> str:
        """What a browser carries that has said the password; another password makes it worthless."""
        return hmac.new(key.encode(), _digest(self.password or ""), hashlib.sha256).hexdigest()


def _digest(words: str) -> bytes:
    return hashlib.sha256(words.encode("utf-8", "surrogatepass")).digest()


def set_up(app: Flask, door: Door) -> None:
    """Put the door before every page."""
    app.extensions["widehem.door"] = door
    app.config.update(SESSION_COOKIE_SECURE=door.secure)
    app.register_blueprint(pages)
    app.before_request(_look)


def the_door() -> Door:
    found: Door = current_app.extensions["widehem.door"]
    return found


def hostname(netloc: str) -> str:
    """The name in a Host or an Origin, without its port, in small letters; '' for what is none."""
    try:
        found = urlsplit(f"//{netloc}")
        _ = found.port
        return (found.hostname or "").rstrip(".") if not (found.username or found.password or found.path) else ""
    except ValueError:
        return ""


def _look() -> Any:
    """Refuse what was sent to another name, or by a page of another house; ask for the password."""
    door = the_door()
    if hostname(request.headers.get("Host", "")) not in door.names:
        return _refused("The address in your browser is none of this house: open it by the address it was started with.")
    if request.method not in SAFE and not _from_here(door):
        return _refused("This was sent by a page of another house: open the page here and send it once more.")
    if door.password is None or request.endpoint in OPEN or request.blueprint == "device":
        return None
    key = str(current_app.config["SECRET_KEY"])
    if hmac.compare_digest(str(session.get("door", "")), door.ticket(key)):
        return None
    if request.method in SAFE and not request.headers.get("HX-Request"):
        return redirect(url_for("door.knock", to=request.full_path.rstrip("?")), 303)
    return _refused("Say the password of the house first: open this page again.")


def _from_here(door: Door) -> bool:
    """Whether a form comes from a page of this house, as far as the browser says."""
    site = request.headers.get("Sec-Fetch-Site")
    if site is not None and site not in ("same-origin", "none"):
        return False
    origin = request.headers.get("Origin")
    if origin is None:
        return True
    try:
        parts = urlsplit(origin)
    except ValueError:
        return False
    return parts.scheme in ("http", "https") and hostname(parts.netloc) in door.names and parts.netloc == request.host


def _refused(words: str) -> tuple[Any, int]:
    g.pop("station", None)
    if request.blueprint == "device" or request.mimetype == "application/json":
        return {"error": words}, 403
    return render_template("error.html", title="Not this house", words=words, status=403), 403


def own_path(wanted: str | None) -> str:
    """A path of this house to go to, or its front page: never another house, however it is written."""
    path, before = wanted or "/", None
    while path != before:  # %252F and its kin
        path, before = unquote(path), path
    plain = all(" " < sign != "\x7f" for sign in path) and "\\" not in path
    return (wanted or "/") if plain and path.startswith("/") and not path.startswith("//") else "/"


@pages.get("/door")
def knock() -> Any:
    """Ask for the password of the house."""
    if the_door().password is None:
        return redirect("/", 303)
    return _page("")


def _page(wrong: str) -> str:
    return render_template("door.html", wrong=wrong, to=own_path(request.values.get("to")))


@pages.post("/door")
def enter() -> Any:
    """Let in who says the password."""
    door = the_door()
    if PASSWORDS.waits():
        return _page("Too many wrong passwords were said: wait a minute."), 429
    if not door.opens_for(request.form.get("password", "")):
        PASSWORDS.note()
        return _page("That is not the password of this house: ask whoever keeps it."), 403
    session.clear()
    session["door"], session["mark"] = door.ticket(str(current_app.config["SECRET_KEY"])), secrets.token_hex(4)
    return redirect(own_path(request.form.get("to")), 303)


def sealed(response: Response) -> None:
    """The headers by which browsers keep others out."""
    for name, value in HEADERS.items():
        response.headers[name] = value
    if the_door().secure:
        response.headers["Strict-Transport-Security"] = "max-age=31536000"
