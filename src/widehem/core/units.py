"""One exact unit inside; centimetres and inches with fractions outside.

Stored lengths are whole *ticks*. A tick is an eighth of a micrometre: both 0.01 mm and 1/64 inch are whole numbers of
ticks, so neither the metric nor the imperial reading of a tape is ever rounded on its way in. Drafts calculate with
plain centimetres (float); ticks are for keeping.
"""

from __future__ import annotations

import math
import re
from fractions import Fraction
from typing import Literal

from widehem.core.values import record

Unit = Literal["cm", "in"]
UNITS: tuple[Unit, ...] = ("cm", "in")

TICKS_PER_CM = 80_000
TICKS_PER_INCH = 203_200
CM_PER_INCH = 2.54
MM_PER_CM = 10.0
LONGEST_CM = 1000
LONGEST_TEXT = 60  # signs

_VULGAR = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
    "⅓": "1/3", "⅔": "2/3", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5", "⅙": "1/6", "⅚": "5/6",
}  # fmt: skip
_UNIT_WORDS = {
    "cm": "cm", "centimetre": "cm", "centimetres": "cm", "centimeter": "cm", "centimeters": "cm",
    "mm": "mm", "m": "m",
    "in": "in", "ins": "in", "inch": "in", "inches": "in", '"': "in", "″": "in", "''": "in", "”": "in",
    "ft": "ft", "foot": "ft", "feet": "ft", "'": "ft", "′": "ft", "’": "ft",
}  # fmt: skip
_TICKS = {
    "cm": TICKS_PER_CM,
    "mm": TICKS_PER_CM // 10,
    "m": TICKS_PER_CM * 100,
    "in": TICKS_PER_INCH,
    "ft": TICKS_PER_INCH * 12,
}
_NUMBER = r"(?:\d+\s*-\s*\d+/\d+|\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
_PART = re.compile(rf"\s*(?P<number>{_NUMBER})\s*(?P<unit>[a-z]+|''|[\"″”'′’])?\s*")


class LengthError(ValueError):
    """What was typed is not a length; the message is a whole sentence for the person who typed it."""


@record(frozen=True)
class Length:
    """A length as it was typed and as it is kept.

    ticks: the exact value. typed: the words as given. unit: the unit they were read in.
    """

    ticks: int
    typed: str
    unit: Unit

    @property
    def cm(self) -> float:
        return cm_of(self.ticks)

    @property
    def as_typed(self) -> str:
        """The words as given, with the unit they were read in."""
        return with_unit(self.typed, self.unit)


def cm_of(ticks: int) -> float:
    """Ticks to centimetres."""
    return ticks / TICKS_PER_CM


def ticks_of(cm: float) -> int:
    """Centimetres to the nearest tick."""
    return round(cm * TICKS_PER_CM)


def as_unit(text: str) -> Unit:
    """'cm' or 'in' from a word; LengthError otherwise."""
    word = text.strip().lower()
    if word == "cm":
        return "cm"
    if word == "in":
        return "in"
    raise LengthError(f'The unit "{text}" is not known: write cm or in.')


def _number(text: str) -> Fraction:
    text = text.replace(",", ".")
    whole, _, rest = text.replace("-", " ").partition(" ")
    try:
        return Fraction(whole) + (Fraction(rest.strip()) if rest.strip() else 0)
    except ZeroDivisionError:
        raise LengthError(f'"{text}" divides by nothing: write the fraction again, like 16 3/4.') from None


def parse_length(text: str, unit: Unit, *, least_cm: float = 0.0) -> Length:
    """Read a length in any of the ways people write it: 16 3/4, 16¾, 16.75 in, 42,5, 42.5 cm, 4' 2".

    text: as typed. unit: taken when the text names none. least_cm: smaller values are refused.
    Raises LengthError with a sentence that says what to write instead.
    """
    typed = text.strip()
    if not typed:
        raise LengthError("Nothing is written here: write a length like 42.5 cm or 16 3/4 in.")
    if len(typed) > LONGEST_TEXT:
        raise LengthError(f'"{typed[:20]}…" has {len(typed)} signs, no length has: write it like 42.5 cm or 16 3/4 in.')
    spelled = typed.lower().replace("\u00a0", " ").replace("\u202f", " ").replace("⁄", "/").replace("−", "-")
    for sign, plain in _VULGAR.items():
        spelled = spelled.replace(sign, f" {plain}")
    spelled = spelled.strip()
    if spelled.startswith("-"):
        raise LengthError(f'"{typed}" is less than nothing: write a length like 42.5 cm or 16 3/4 in.')
    ticks, at = Fraction(0), 0
    used: list[str] = []
    while at < len(spelled):
        part = _PART.match(spelled, at)
        word = part["unit"] if part else None
        if part is None or (word is not None and word not in _UNIT_WORDS):
            raise LengthError(f'"{typed}" is not a length: write it like 42.5 cm or 16 3/4 in.')
        named = _UNIT_WORDS[word] if word else ("in" if used == ["ft"] else unit)
        if used and used != ["ft"]:
            raise LengthError(f'"{typed}" names two lengths: write one, like 42.5 cm or 16 3/4 in.')
        used.append(named)
        ticks += _number(part["number"]) * _TICKS[named]
        at = part.end()
    value = round(ticks)
    if value > LONGEST_CM * TICKS_PER_CM:
        raise LengthError(f'"{typed}" is longer than {LONGEST_CM} cm: look at the figure and its unit again.')
    if value < ticks_of(least_cm):
        raise LengthError(f'"{typed}" is less than {Display().length(least_cm)} cm: look at the figure and its unit again.')
    return Length(value, typed, "in" if used[-1] in ("in", "ft") else "cm")


def length_of(value: float, *, least_cm: float = 0.0) -> Length:
    """A length in cm that is a number already. Raises LengthError as parse_length."""
    ticks = ticks_of(value) if math.isfinite(value) else 0
    if not ticks_of(least_cm) <= ticks <= LONGEST_CM * TICKS_PER_CM or not ticks:
        return parse_length(repr(value), "cm", least_cm=least_cm)  # it says why not
    return Length(ticks, repr(value), "cm")


def parse_signed(text: str, unit: Unit) -> float:
    """Read a difference, with or without a sign, in cm. Raises LengthError like parse_length."""
    sign, rest = _sign(text)
    return sign * parse_length(rest, unit).cm


def _sign(text: str) -> tuple[int, str]:
    """Plus or minus one, and what stands behind the sign."""
    text = text.strip()
    return (-1 if text[:1] in ("-", "−") else 1), text[1:] if text[:1] in ("-", "−", "+") else text


def with_unit(text: str, unit: Unit) -> str:
    """What was typed, with its unit made plain: '70' in cm to '70 cm', '5 ft' and a minus stay. Raises LengthError."""
    sign, text = _sign(text)
    if sign < 0:
        return f"-{with_unit(text, unit)}"
    read = parse_length(text, unit)
    try:
        names_unit = parse_length(text, "in" if unit == "cm" else "cm").ticks == read.ticks
    except LengthError:  # too long in the other unit: then it names none
        names_unit = False
    return read.typed if names_unit else f"{read.typed} {unit}"


@record(frozen=True)
class Display:
    """How lengths are shown: the unit, and the finest inch fraction (8 or 16)."""

    unit: Unit = "cm"
    fraction: int = 8

    @property
    def unit_words(self) -> str:
        """The unit in words, where 'in' would be read as a word."""
        return "cm" if self.unit == "cm" else "inches"

    def length(self, cm: float, places: int = 1) -> str:
        """A length without its unit: '98.0', or '38 5/8'. Minus is the true sign."""
        if self.unit == "cm":
            text = f"{abs(cm):.{places}f}"
            return f"−{text}" if cm < 0 and float(text) else text
        parts = round(abs(cm) / CM_PER_INCH * self.fraction)
        whole, rest = divmod(parts, self.fraction)
        sign = "−" if cm < 0 and parts else ""
        if not rest:
            return f"{sign}{whole}"
        part = Fraction(rest, self.fraction)
        return f"{sign}{whole} {part}" if whole else f"{sign}{part}"

    def signed(self, cm: float, places: int = 1) -> str:
        """The same with a plus in front of what is not negative."""
        text = self.length(cm, places)
        return text if text.startswith("−") else f"+{text}"

    def full(self, cm: float, places: int = 1) -> str:
        """With the unit: '98.0 cm', '38 5/8 in'."""
        return f"{self.length(cm, places)} {self.unit}"

    def stitch(self, cm: float) -> str:
        """The length of a stitch as a machine has it: '2.5 mm', '10 to the inch'."""
        return f"{cm * 10:g} mm" if self.unit == "cm" else f"{CM_PER_INCH / cm:.0f} to the inch"

    def other(self) -> Display:
        """The same manner in the other unit."""
        return Display("in" if self.unit == "cm" else "cm", self.fraction)

    def setting(self, cm: float) -> str:
        """A figure somebody chose: with a second place where it has one, '1.25' but '2.0'."""
        return self.length(cm, 1 if abs(cm * 10 - round(cm * 10)) < 1e-6 else 2)

    def constant(self, cm: float) -> str:
        """A method's own constant, with no more places than it has: '1.5', '4', '5/8'."""
        if self.unit == "in":
            return Display("in", 16).length(cm)
        text = f"{abs(cm):.3f}".rstrip("0").rstrip(".")
        return f"−{text}" if cm < 0 else text

    def words(self, text: str) -> str:
        """Words with lengths in them as '{2.5}', cm, written in this unit; '{2.5#}' without it."""
        return _IN_WORDS.sub(lambda found: self.constant(float(found[1])) + ("" if found[2] else f" {self.unit}"), text)


_IN_WORDS = re.compile(r"\{(-?\d+(?:\.\d+)?)(#?)\}")
METRIC = Display()


@record(frozen=True)
class Saying:
    """A sentence with lengths in it, that can be said in either unit.

    template: words with {0}, {1} ... for lengths in cm, {0u} for the length with its unit, {0s} for signed,
    {0f} for one that is chosen finely: a second place where it has one, sixty-fourths; {0m} for a stitch.
    """

    template: str
    lengths: tuple[float, ...] = ()

    def text(self, show: Display = METRIC) -> str:
        """The sentence with its lengths written in this unit."""

        def put(found: re.Match[str]) -> str:
            value, how = self.lengths[int(found[1])], found[2]
            if how == "u":
                return show.full(value)
            if how == "f":
                return Display(show.unit, 64).setting(value)
            if how == "m":
                return show.stitch(value)
            return show.signed(value) if how == "s" else show.length(value)

        return re.sub(r"\{(\d+)([usfm]?)\}", put, self.template)

    def __str__(self) -> str:
        return self.text()

    def followed(self, other: Saying) -> Saying:
        """This sentence and another after it."""
        count = len(self.lengths)
        after = re.sub(r"\{(\d+)([usfm]?)\}", lambda found: f"{{{int(found[1]) + count}{found[2]}}}", other.template)
        return Saying(f"{self.template} {after}", (*self.lengths, *other.lengths))

    @property
    def stopped(self) -> Saying:
        """The same words with a full stop."""
        return Saying(f"{self.template}.", self.lengths)

    def __add__(self, other: Saying) -> Saying:
        moved = other.template
        if self.lengths and other.lengths:
            moved = re.sub(r"\{(\d+)", lambda m: "{" + str(int(m[1]) + len(self.lengths)), moved)
        return Saying(f"{self.template} {moved}", self.lengths + other.lengths)


def say(template: str, *lengths: float) -> Saying:
    """Short for Saying."""
    return Saying(template, tuple(map(float, lengths)))
