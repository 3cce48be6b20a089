"""A stand-in for a digital tape on the command line: sends readings to a chart that listens, over HTTP."""

from __future__ import annotations

import json
import urllib.error
import urllib.request
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import quote

SECONDS = 10.0


class TapeError(Exception):
    """The chart took no message, or nobody answered; one sentence."""


@dataclass
class Tape:
    """One tape, paired with one chart. number: the count of its last message."""

    address: str
    pair: str
    device: str = "command"
    unit: str = "cm"
    number: int = field(default=0)
    taken: list[int] = field(default_factory=list)  # counts of its messages that stand

    def send(self, value: str) -> dict[str, Any]:
        """Send a reading; returns the answer. Raises TapeError."""
        self.number += 1
        message = {"device": self.device, "number": self.number, "value": value, "unit": self.unit}
        answer = self._speak("readings", message)
        self.taken.append(self.number)
        return answer

    def take_back(self) -> dict[str, Any]:
        """Take the last reading of this tape back. Raises TapeError."""
        if not self.taken:
            raise TapeError("Nothing this tape sent is left to take back: take it back on the chart's page.")
        answer = self._speak("undo", {"device": self.device, "number": self.taken[-1]})
        self.taken.pop()
        return answer

    def _speak(self, act: str, message: dict[str, Any]) -> dict[str, Any]:
        url = f"{self.address.rstrip('/')}/tape/{quote(self.pair, safe='')}/{act}"
        if not url.startswith(("http://", "https://")):
            raise TapeError(f"{self.address} is not an address: write it like http://127.0.0.1:8420.")
        request = urllib.request.Request(url, json.dumps(message).encode(), {"Content-Type": "application/json"}, method="POST")
        try:
            with urllib.request.urlopen(request, timeout=SECONDS) as answer:
                found: dict[str, Any] = json.load(answer)
                return found
        except urllib.error.HTTPError as refused:
            raise TapeError(_refusal(refused)) from None
        except (OSError, ValueError) as error:
            raise TapeError(f"Nobody answers at {self.address}: {getattr(error, 'reason', error)}.") from None


def _refusal(refused: urllib.error.HTTPError) -> str:
    try:
        return str(json.load(refused)["error"])
    except (ValueError, KeyError, TypeError):
        return f"The workroom refused the message ({refused.code})."


def told(tape: Tape, values: Iterable[str]) -> Iterator[str]:
    """Send readings one after another; '-' takes the last one back. Yields a line for each. Raises TapeError."""
    for value in values:
        words = value.strip()
        if not words:
            continue
        if words == "-":
            answer = tape.take_back()
            yield f"Taken back.{_waits(answer)}"
            continue
        answer = tape.send(words)
        taken = answer["taken"]
        turn = ", second reading" if taken["turn"] == 2 else ""
        look = "".join(f"\n  Look again: {sentence}" for sentence in answer["look_again"])
        yield f"{taken['name']}{turn}: {taken['said']}.{_waits(answer)}{look}"


def _waits(answer: dict[str, Any]) -> str:
    waits = answer["waits_for"]
    return f" Next: {waits['name'].lower()}." if waits else " The list is full."
