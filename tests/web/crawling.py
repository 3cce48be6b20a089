"""Every page of a house by its links, and what it says in words."""

import html
import re
from collections import Counter
from html.parser import HTMLParser

from tests.some import EVERYTHING

APART = {"p", "li", "td", "th", "div", "h1", "h2", "h3", "dt", "dd", "label", "option", "tr", "section", "summary", "legend", "small", "button", "span", "a"}  # fmt: skip
UNSEEN = {"script", "style", "svg", "kbd", "textarea"}
LEFT_OUT = ("drop=1", ".pdf", ".csv", ".json", ".svg", ".jpg", ".dxf", ".plt", "/ruler", "/guide", "/static", "/unit")
MINDS_OWN = {"other", "also", "past", "note-words", "note-slip", "guide"}  # the other unit on purpose, or words a maker wrote
MOST_ALIKE, EACH = 3, re.compile(r"^/dockets/\d+/draft")  # of a kind, but of garments every one where all is looked at
ONE_OF = re.compile(r"^/wearers/8/(measure|tape)\?(?=.*list=full)")


class _Words(HTMLParser):
    def __init__(self):
        super().__init__()
        self.out, self.unseen, self.open = [], 0, []

    def handle_starttag(self, tag, attrs):
        given = dict(attrs)
        own = bool(MINDS_OWN & set((given.get("class") or "").split()))
        if tag not in ("input", "br", "img", "meta", "link", "hr"):
            self.open.append((tag, tag in UNSEEN or own))
            self.unseen += tag in UNSEEN or own
        if tag in APART:
            self.out.append("\n")
        if not self.unseen:
            self.out += [f"\n{given[name]}\n" for name in ("aria-label", "title", "placeholder", "alt") if given.get(name)]

    def handle_endtag(self, tag):
        while self.open:
            name, hidden = self.open.pop()
            self.unseen -= hidden
            if name == tag:
                break
        if tag in APART:
            self.out.append("\n")

    def handle_data(self, data):
        if not self.unseen:
            self.out.append(data)


def lines(page):
    """What a page says, line by line."""
    reader = _Words()
    reader.feed(page)
    return [words for line in "".join(reader.out).split("\n") if (words := re.sub(r"\s+", " ", line).strip())]


def crawl(client, begin="/", *, alone=False):
    """Pages by their addresses: three of each kind, of a garment for each part of its slip, of the measures those of one wearer; with
    EVERYTHING set every garment. alone: of each kind one page only."""
    found, todo, alike = {}, [begin], Counter()
    while todo:
        path = todo.pop()
        kind = re.sub(r"\d+", "0", re.sub(r"(piece|edge|spot|along|at\.\w+)=[^&]+", "", path))
        if path in found or (
            alike[kind] >= (1 if alone else MOST_ALIKE) and not (EVERYTHING and not alone and EACH.match(path))
        ):
            continue
        alike[kind] += 1
        answer = client.get(path)
        page = answer.get_data(as_text=True) if answer.mimetype == "text/html" else ""
        found[path] = (answer.status_code, page)
        for link in re.findall(r'href="(/[^"#]*)', page):
            link = html.unescape(link)
            if any(part in link for part in LEFT_OUT) or re.search(
                r"/(walk|compare)\?|/(style|fit)\?.*\b(s\.|p\.|step=)", link
            ):
                continue
            if "/draft?" in link and not re.fullmatch(r"/dockets/\d+/draft\?slip=(settings|checks|garment)", link):
                continue
            if re.search(r"[?&]at=", link) and not ONE_OF.match(link):
                continue
            todo.append(link)
    return found
