"""How things are shown: the unit of the maker, figures, dates, verdict marks."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any
from urllib.parse import parse_qsl, urlencode, urlsplit

from flask import Blueprint, Flask, g, redirect, request
from markupsafe import Markup, escape
from werkzeug.exceptions import HTTPException
from werkzeug.wrappers import Response

from widehem.core.days import day_words
from widehem.core.pattern.check import Check
from widehem.core.units import UNITS, Display, Saying, with_unit
from widehem.web.door import own_path, the_door
from widehem.web.here import day_of, zone

UNIT_COOKIE, FRACTION_COOKIE, KEYS_COOKIE, TWICE_COOKIE = "wh_unit", "wh_fraction", "wh_keys", "wh_twice"
YEAR = 365 * 24 * 3600
VERDICT_WORDS = {"true": "True", "look": "Look again", "not": "Not true", "open": "To come", "count": ""}

settings = Blueprint("settings", __name__)


def display() -> Display:
    """The maker's unit and inch fraction, from cookies; centimetres and eighths at first. A form is read in the unit it was
    shown in."""
    if "display" not in g:
        unit = _shown_in() or request.cookies.get(UNIT_COOKIE, "cm")
        fraction = 16 if request.cookies.get(FRACTION_COOKIE) == "16" else 8
        g.display = Display("in" if unit == "in" else "cm", fraction)
    found: Display = g.display
    return found


def _shown_in() -> str | None:
    """The unit in which a form was shown that is read now: what is typed into it is meant so."""
    try:
        found = request.values.get("shown_in")
    except HTTPException:  # what was sent cannot be read at all
        return None
    return found if found in UNITS else None


def here() -> str:
    """The address of the page the maker sees, to come back to; in which unit a form was shown is no part of it."""
    path, query = request.path, request.query_string.decode("utf-8", "replace")
    if request.method == "POST":  # what answers a form may be no page of its own
        seen = urlsplit(request.headers.get("HX-Current-URL") or request.referrer or "")
        path, query = own_path(seen.path or request.path), seen.query if seen.path else ""
    kept = [(name, value) for name, value in parse_qsl(query, keep_blank_values=True) if name != "shown_in"]
    return path + (f"?{urlencode(kept)}" if kept else "")


@settings.post("/settings")
def change() -> Response:
    """Change unit, fraction, the single-key commands or reading twice; goes back to where it was asked."""
    response = redirect(own_path(request.form.get("back")), 303)
    for field, cookie, known in (
        ("unit", UNIT_COOKIE, UNITS),
        ("fraction", FRACTION_COOKIE, ("8", "16")),
        ("keys", KEYS_COOKIE, ("on", "off")),
        ("twice", TWICE_COOKIE, ("on", "off")),
    ):
        value = request.form.get(field)
        if value in known:
            response.set_cookie(cookie, str(value), max_age=YEAR, samesite="Strict", httponly=True, secure=the_door().secure)
    return response


def day(value: date | datetime | str) -> str:
    """3 November 2026; of a moment, the day where the house stands; of a day kept as '2026-11-03' that day."""
    if isinstance(value, str):
        return day_words(date.fromisoformat(value))
    return day_words(day_of(value) if isinstance(value, datetime) else value)


def moment(value: datetime) -> str:
    """3 November 2026, 14:05, where the house stands."""
    return f"{day(value)}, {value.replace(tzinfo=UTC).astimezone(zone()):%H:%M}"


def figure(text: str) -> Markup:
    """A length as text, its fraction set as one: 38 5/8."""
    whole, _, part = text.rpartition(" ")
    if "/" in part:
        space = Markup("&#8239;") if whole else ""
        return Markup('{}<span class="frac">{}{}</span>').format(whole, space, part)
    return escape(text)


def length(cm: float, *, signed: bool = False) -> Markup:
    show = display()
    return figure(show.signed(cm) if signed else show.length(cm))


def other_length(cm: float) -> Markup:
    """The same in the other unit, with its unit."""
    show = display().other()
    return figure(show.length(cm)) + f" {show.unit}"


def said(saying: Saying) -> str:
    return saying.text(display())


def check_unit(check: Check) -> str:
    """What stands behind the figure of a check."""
    unit = display().unit if check.kind in ("length", "signed") else ""
    return f"{unit} {check.after}".strip()


def is_htmx() -> bool:
    return request.headers.get("HX-Request") == "true"


def set_up(app: Flask) -> None:
    """Make all this known to the templates."""
    app.register_blueprint(settings)

    @app.context_processor
    def helpers() -> dict[str, Any]:
        return {
            "show": display(),
            "worded": display().words,
            "length": length,
            "other_length": other_length,
            "said": said,
            "figure": figure,
            "check_unit": check_unit,
            "with_unit": with_unit,
            "day": day,
            "moment": moment,
            "verdict_words": VERDICT_WORDS,
            "whole": not is_htmx(),
            "keys_on": request.cookies.get(KEYS_COOKIE, "on") == "on",
            "here": here(),
        }
