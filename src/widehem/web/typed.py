"""What is typed, as it is kept: without the signs that no paper, no file and no page can show."""

from __future__ import annotations

import re

from flask import Request
from werkzeug.datastructures import ImmutableMultiDict
from werkzeug.utils import cached_property

# what an XML file may not hold: control signs but tab and line ends, half signs, and two that are none
UNSHOWN = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f\ud800-\udfff\ufffe\uffff]")


def shown(text: str) -> str:
    """A text without what cannot be shown."""
    return UNSHOWN.sub("", text)


class Typed(Request):
    """A request whose fields hold only what can be shown; nothing else of it is changed."""

    @cached_property
    def form(self) -> ImmutableMultiDict[str, str]:
        return ImmutableMultiDict((name, shown(value)) for name, value in super().form.items(multi=True))
