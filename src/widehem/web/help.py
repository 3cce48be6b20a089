"""Help over every screen, and the guide."""

from __future__ import annotations

import re
from functools import cache
from pathlib import Path

from flask import Blueprint, Flask, render_template, request, url_for
from markupsafe import Markup

from widehem.web.help_words import ANYWHERE, HELP, Help
from widehem.web.hem import Next, Slot
from widehem.web.selvedge import Selvedge

pages = Blueprint("help", __name__)
GUIDE = Path(__file__).with_name("guide.md")


@pages.get("/help")
def over() -> str:
    """Help for a screen, to lie over it."""
    found = HELP.get(request.args.get("of", ""), ANYWHERE)
    return render_template("_help.html", help=found, anchor=slug(found.guide))


@pages.get("/guide")
def guide() -> str:
    """The whole guide."""
    text, heads = written()
    slots = [Slot("Chapters", "count", str(len(heads)), "", "in the order of the work")]
    return render_template(
        "guide.html", text=Markup(text), heads=heads, selvedge=Selvedge(), slots=slots, tally="",
        next=Next("To the productions", url_for("desk.index")),
    )  # fmt: skip


def slug(heading: str) -> str:
    """What a heading is called in an address."""
    return re.sub(r"[^a-z0-9]+", "-", heading.lower()).strip("-")


@cache
def written() -> tuple[str, tuple[tuple[str, str], ...]]:
    """The guide as it is shown, and its headings: address and words."""
    from markdown_it import MarkdownIt  # loaded with the first help, not at the start

    reader = MarkdownIt("commonmark").enable("table")
    tokens = reader.parse(GUIDE.read_text(encoding="utf-8"))
    heads = []
    for at, token in enumerate(tokens):
        if token.type == "heading_open":
            words = tokens[at + 1].content
            token.attrSet("id", slug(words))
            if token.tag == "h2":
                heads.append((slug(words), words))
    return reader.renderer.render(tokens, reader.options, {}), tuple(heads)


def helped_by(words: list[str]) -> list[Help]:
    """Help in which all of these words stand. words: without case."""
    return [
        entry for entry in HELP.values() if all(word in " ".join((entry.title, *entry.lines)).lower() for word in words)
    ] if words else []  # fmt: skip


def set_up(app: Flask) -> None:
    """Make it known to the templates."""
    app.jinja_env.globals["slug"] = slug
