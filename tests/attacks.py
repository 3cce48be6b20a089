"""What nobody should be able to send: addresses, queries and forms gone wrong, made at random from a seed; and how long to go on
(`make hold` goes on for long)."""

from __future__ import annotations

import os
import random
from collections.abc import Iterator
from typing import Any
from urllib.parse import quote, urlencode

from flask import Flask

BAD = (
    "²", "9" * 5000, "-1", "0", "99999999999999999999", "1e400", "nan", "inf", "\x00", "\ud800", "<script>", "a" * 3000, "½", "٣",
    "../../etc/passwd", "{", "[[[[", "%", "\u202e", "1/0", "--", "on", "=", "&&", "🧵", "\x0b\x07", "",
)  # fmt: skip
PLAIN = ("1", "2", "8", "svg", "settings", "checks", "front", "0.5", "cm", "yes", "on", "bust", "waist")
NUMBERS = (*map(str, range(1, 20)), "99999999999999999999", "9" * 300, "0")
QUERY = (
    "step", "slip", "o.length", "o.neck_depth", "e.bust", "e.waist", "o.dart_place", "with", "at", "lit", "view", "show", "unit",
    "scale", "paper", "measure", "side", "told", "docket", "chart", "code", "turn", "stamp", "q", "of", "open", "to", "seam",
    "list", "rules", "plan", "a.side", "folded", "pair", "back", "front", "depth", "good", "good=", "zzz",
)  # fmt: skip
FIELDS = (
    "name", "company", "part", "method", "wearer", "for", "chart", "measure", "first", "second", "value", "figure", "allergies",
    "movement", "o.length", "e.bust", "plan", "paper", "scale", "a.side", "act", "what", "to", "open", "codes", "codes", "seen",
    "rules", "sure", "front", "back", "depth", "unit", "doubt", "why", "who", "check", "word", "file", "data", "steps", "version",
)  # fmt: skip


def times(count: int) -> int:
    """So many tries of an attack in an ordinary run; HOLD times as many when that is set."""
    return count * int(os.environ.get("HOLD", "1"))


def addresses(app: Flask, chance: random.Random, method: str) -> Iterator[tuple[str, str]]:
    """Endless: a rule that takes this method, and an address for it, its parts right or wrong."""
    rules = [rule for rule in app.url_map.iter_rules() if method in (rule.methods or ()) and rule.endpoint != "static"]
    while True:
        rule = chance.choice(rules)
        url = rule.rule
        for name in rule.arguments:
            number = f"<int:{name}>" in url
            part = chance.choice(NUMBERS if number else (*PLAIN, *BAD))
            url = url.replace(f"<int:{name}>" if number else f"<{name}>", quote(part, safe="", errors="surrogatepass") or "x")
        yield rule.rule, url


def query(chance: random.Random) -> str:
    """A few queries, most of them wrong."""
    found = {chance.choice(QUERY): chance.choice((*BAD, *PLAIN)) for _ in range(chance.randint(0, 4))}
    return "?" + urlencode(found, errors="surrogatepass") if found else ""


def form(chance: random.Random) -> dict[str, str]:
    """Some fields, most of them wrong."""
    return {
        chance.choice(FIELDS): chance.choice((*BAD, *PLAIN)).encode("utf-8", "replace").decode()
        for _ in range(chance.randint(0, 8))
    }


def message(chance: random.Random) -> Any:
    """A message of a tape, as no tape sends it."""
    deep: Any = 1
    for _ in range(chance.choice((0, 3, 400))):
        deep = [deep]
    return chance.choice(
        (
            deep, None, 5, "x", [], {}, {"device": deep}, {"device": "t", "number": 2**70, "value": "70"},
            {"device": "t", "number": 1, "value": chance.choice((*BAD, *PLAIN)).encode("utf-8", "replace").decode()},
            {"device": "x" * 500, "number": True, "value": 1e300, "unit": ["cm"]},
        )
    )  # fmt: skip
