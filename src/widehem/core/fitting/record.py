"""A fitting as it was noted: events that are only ever added, folded into what was seen, pinned and judged."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any, Literal

from widehem.core.fitting.causes import LOOK_AT, SIGNS
from widehem.core.units import LengthError, Unit, parse_length
from widehem.core.values import record

Verdict = Literal["good", "see", "alter"]
VERDICTS: Mapping[str, str] = {"good": "good", "see": "see again", "alter": "alter"}
WAYS: Mapping[str, str] = {
    "out": "let out", "in": "taken in", "longer": "lengthened", "shorter": "shortened", "up": "raised", "down": "lowered",
}  # fmt: skip
HANDS: Mapping[str, str] = {"": "both sides", "left": "left", "right": "right"}
MOVEMENTS: Mapping[str, str] = {
    "sit": "Sit down", "reach": "Reach forward", "bow": "Bow", "stairs": "Climb stairs", "dance": "A dance step", "sword": "Raise the sword arm",
}  # fmt: skip
LONGEST, MOST_PIN, CLIENT = 300, 20.0, 40
KINDS = ("verdict", "sign", "movement", "note", "struck")


class RecordError(ValueError):
    """An event that cannot be kept: one sentence naming the field and what to do."""


@record(frozen=True)
class Seen:
    """A sign, with what was pinned there. id: of its event; code: of a sign, '' for one in the maker's words; pinned: cm, 0 for nothing;
    typed: as it was written; x, y: where on the figure, 0 to 1, less than nothing where it was not tapped; figure: front or back."""

    id: str
    code: str
    words: str
    hand: str = ""
    way: str = ""
    pinned: float = 0.0
    typed: str = ""
    figure: str = ""
    x: float = -1.0
    y: float = -1.0

    @property
    def title(self) -> str:
        return SIGNS[self.code].words if self.code in SIGNS else self.words


@record(frozen=True)
class Round:
    """What a fitting came to. verdicts: by what was looked at, the last that was said; seen: in order; moved: by movement, good or not, with
    words; notes: in order."""

    verdicts: Mapping[str, str]
    seen: tuple[Seen, ...]
    moved: Mapping[str, tuple[str, str]]
    notes: tuple[tuple[str, str], ...]

    @property
    def good(self) -> frozenset[str]:
        return frozenset(look for look, verdict in self.verdicts.items() if verdict == "good")

    @property
    def codes(self) -> tuple[str, ...]:
        """The signs that were seen, those of the list."""
        return tuple(dict.fromkeys(one.code for one in self.seen if one.code))


def checked(what: str, data: Mapping[str, Any], unit: Unit = "cm") -> dict[str, Any]:
    """An event as it is kept. unit: in which a pin was read where it names none. Raises RecordError."""
    if what not in KINDS:
        raise RecordError(f'"{what[:20]}" is nothing that is noted at a fitting: {", ".join(KINDS)} are.')
    words = str(data.get("words", "")).strip()[:LONGEST]
    if what == "verdict":
        return {"look": _one_of(data, "look", LOOK_AT), "verdict": _one_of(data, "verdict", VERDICTS)}
    if what == "movement":
        return {"test": _one_of(data, "test", MOVEMENTS), "verdict": _one_of(data, "verdict", VERDICTS), "words": words}
    if what == "struck":
        return {"of": str(data.get("of", ""))[:CLIENT]}
    if what == "note":
        if not words:
            raise RecordError("The note is empty: write something, then keep it.")
        return {"words": words}
    return _sign(data, words, unit)


def _sign(data: Mapping[str, Any], words: str, unit: Unit) -> dict[str, Any]:
    code = str(data.get("sign", ""))
    if code and code not in SIGNS:
        raise RecordError(f'"{code[:40]}" is no sign of the list: choose one, or write it in your own words.')
    if not code and not words:
        raise RecordError("Say what is seen: choose it from the list, or write it.")
    typed = str(data.get("pinned", "")).strip()
    pinned = 0.0
    if typed:
        try:
            pinned = parse_length(typed, unit).cm
        except LengthError as error:
            raise RecordError(f"Pinned: {error}") from None
        if pinned > MOST_PIN:
            raise RecordError(f"Pinned: {typed} is more than a pin takes; {MOST_PIN:g} cm is the most.")
    found = {
        "sign": code, "words": words, "hand": _one_of(data, "hand", HANDS, ""), "way": _one_of(data, "way", {**WAYS, "": ""}, ""),
        "pinned": pinned, "typed": typed[:60],
    }  # fmt: skip
    if str(data.get("figure", "")) in ("front", "back"):
        found |= {"figure": str(data["figure"]), "x": _share(data.get("x")), "y": _share(data.get("y"))}
    return found


def _one_of(data: Mapping[str, Any], name: str, known: Mapping[str, str], default: str | None = None) -> str:
    value = str(data.get(name, default if default is not None else ""))
    if value not in known:
        raise RecordError(f'{name}: "{value[:40]}" is none of {", ".join(filter(None, known))}.')
    return value


def _share(value: Any) -> float:
    try:
        return min(max(float(value), 0.0), 1.0)
    except (TypeError, ValueError):
        return -1.0


def folded(events: Iterable[tuple[str, str, Mapping[str, Any]]]) -> Round:
    """What events come to, in their order: id, kind and what each says. What was struck out is left out."""
    rows = list(events)
    struck = {str(data.get("of")) for _, what, data in rows if what == "struck"}
    verdicts: dict[str, str] = {}
    moved: dict[str, tuple[str, str]] = {}
    seen: list[Seen] = []
    notes: list[tuple[str, str]] = []
    for number, what, data in rows:
        if number in struck:
            continue
        if what == "verdict":
            verdicts[data["look"]] = data["verdict"]
        elif what == "movement":
            moved[data["test"]] = data["verdict"], data.get("words", "")
        elif what == "note":
            notes.append((number, data["words"]))
        elif what == "sign":
            seen.append(
                Seen(
                    number, data["sign"], data["words"], data["hand"], data["way"], data["pinned"], data["typed"], data.get("figure", ""),
                    data.get("x", -1.0), data.get("y", -1.0),
                )
            )  # fmt: skip
    return Round(verdicts, tuple(seen), moved, tuple(notes))
