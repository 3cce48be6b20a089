"""What the style station shows, as it stands in the address: what is pointed at, and the step that is tried."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from urllib.parse import urlencode

from widehem.core.design.design import Step
from widehem.core.setting.option import Option, OptionError, Value
from widehem.core.style.operation import OPERATIONS, Operation
from widehem.core.style.suggest import Pointed
from widehem.core.style.where import Where
from widehem.core.units import Display, Unit
from widehem.core.values import replace
from widehem.web.board_state import Field
from widehem.web.numbers import is_number

SETTING, PLACE, NAME = "s.", "p.", "n."
LONGEST = 160
LONG_NAMES = {"moves": 600}  # those that are more than a name


@dataclass(frozen=True)
class StyleState:
    """at: what was pointed at. code: the operation that is tried; step: of which step of the recipe, '' a new one. settings: as
    they were written; wheres: the places, as far as they are named."""

    at: Pointed | None = None
    code: str = ""
    step: str = ""
    settings: Mapping[str, str] = field(default_factory=dict)
    wheres: Mapping[str, Where] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict)

    @property
    def operation(self) -> Operation | None:
        found: Operation | None = OPERATIONS.get(self.code)
        return found

    def query(self, **changes: object) -> str:
        """The address of this state, or of one that differs."""
        state = replace(self, **changes)  # type: ignore[arg-type]
        words: list[tuple[str, str]] = []
        if state.at is not None:
            words.append(("at", pointed_words(state.at)))
        words += [(name, value) for name, value in (("do", state.code), ("step", state.step)) if value]
        words += [(SETTING + code, text) for code, text in sorted(state.settings.items())]
        words += [(PLACE + code, where_words(where)) for code, where in sorted(state.wheres.items())]
        words += [(NAME + code, text) for code, text in sorted(state.names.items())]
        return urlencode(words)

    def values(self, show: Display, errors: dict[str, str], kept: Mapping[str, Value] | None = None) -> dict[str, Value]:
        """The settings as values; what cannot be is told in errors and left out. kept: those of the step as it stands: a figure that is
        left as it was shown stays what it was, to the last digit."""
        found: dict[str, Value] = {}
        asked = self.operation
        for code, text in self.settings.items():
            if asked is None:
                break
            try:
                option = asked.option(code)
                was = (kept or {}).get(code, option.default)
                if isinstance(was, float | int) and text.strip() in (written(option, was, show), show.setting(was)):
                    if code in (kept or {}):
                        found[code] = was
                    continue
                found[code] = read_amount(option, text, show.unit)
            except KeyError:
                continue
            except OptionError as error:
                errors[code] = str(error)
        return found


def read_amount(option: Option, text: str, unit: Unit) -> Value:
    """A setting of a step as it was typed; a formula of measures is kept as it is. Raises OptionError."""
    text = text.strip()
    letters = "".join(sign for sign in text.lower() if sign.isalpha())
    if option.kind == "length" and letters not in ("", "cm", "mm", "in", "m"):
        return text[:LONGEST]
    return option.read(text, unit)


def pointed_words(at: Pointed) -> str:
    if at.inside:
        return "~".join((at.piece, "", at.inside, "inside"))
    return "~".join((at.piece, at.edge, at.dart or f"{at.along:.2f}", "dart" if at.dart else "edge"))


def read_pointed(text: str) -> Pointed | None:
    """What was pointed at; None where that cannot be read."""
    parts = text.split("~")
    if len(parts) != 4:
        return None
    piece, edge, place, kind = parts
    if kind == "inside":
        return Pointed(piece, "", inside=place)
    if kind == "dart":
        return Pointed(piece, edge, 0.0, place)
    return Pointed(piece, edge, float(place)) if is_figure(place) else None


def is_figure(text: str) -> bool:
    return len(text) < 12 and is_number(text.replace(".", "", 1).replace("-", "", 1)) if text else False


def where_words(where: Where) -> str:
    """A place in the address; one it falls back on follows it."""
    place = where.place if isinstance(where.place, str) else f"{where.place:.4f}"
    own = "~".join((where.piece, where.edge, where.kind, str(place), where.end))
    return f"{own}|{where_words(where.otherwise)}" if where.otherwise is not None else own


def read_where(text: str) -> Where | None:
    """A place from the address; None where that cannot be read."""
    own, _, rest = text.partition("|")
    parts = own.split("~")
    if len(parts) != 5 or len(text) > 900:
        return None
    piece, edge, kind, place, end = parts
    figure = kind in ("part", "cm")
    if figure and not is_figure(place):
        return None
    try:
        found = Where.from_data(
            {"piece": piece, "edge": edge, "kind": kind, "place": float(place) if figure else place, "end": end}
        )
    except (ValueError, KeyError):
        return None
    return replace(found, otherwise=read_where(rest)) if rest else found


def read_style(given: Mapping[str, str]) -> StyleState:
    """The state an address names; what cannot be understood is left out."""
    code = given.get("do", "")
    wheres = {
        key[2:]: where for key, text in given.items() if key.startswith(PLACE) and (where := read_where(text)) is not None
    }
    settings = {key[2:]: text[:LONGEST] for key, text in given.items() if key.startswith(SETTING) and text.strip()}
    names = {
        key[2:]: text[: LONG_NAMES.get(key[2:], 60)] for key, text in given.items() if key.startswith(NAME) and text.strip()
    }
    return StyleState(
        read_pointed(given.get("at", "")),
        code if code in OPERATIONS else "",
        given.get("step", "")[:40],
        settings,
        wheres,
        names,
    )


def of_step(step: Step, show: Display) -> StyleState:
    """The state in which a step of the recipe is looked at again."""
    settings = {}
    for option in step.operation.options:
        value = step.settings.get(option.code)
        if value is not None:
            settings[option.code] = value if isinstance(value, str) else written(option, float(value), show)
    return StyleState(None, step.code, step.id, settings, step.wheres, step.names)


def written(option: Option, value: float, show: Display) -> str:
    return f"{show.setting(value)} {show.unit}" if option.kind == "length" else f"{value:g}"


def fields_of(state: StyleState, values: Mapping[str, Value], show: Display, errors: Mapping[str, str]) -> list[Field]:
    """The settings of the step that is tried, as fields."""
    asked = state.operation
    if asked is None:
        return []
    chosen = {o.code: values.get(o.code, o.default) for o in asked.options}
    in_force = {code: value for code, value in chosen.items() if value is not None}
    return [
        _field(option, state, chosen[option.code], show, errors.get(option.code, ""))
        for option in asked.options
        if option.applies(in_force)
    ]


def _field(option: Option, state: StyleState, value: Value | None, show: Display, error: str) -> Field:
    key, text = SETTING + option.code, state.settings.get(option.code, "")
    if option.kind == "choice":
        ways = tuple((choice.code, choice.name, choice.why) for choice in option.choices)
        return Field(key, option.name, option.why, "choice", str(value), choices=ways, set=bool(text), error=error)
    span = (
        f"{show.length(option.low)} to {show.full(option.high)}"
        if option.kind == "length"
        else f"{option.low:g} to {option.high:g}"
    )
    unit = show.unit if option.kind == "length" else ""
    if error or isinstance(value, str) or value is None:
        return Field(
            key,
            option.name,
            option.why,
            option.kind,
            text or str(value or ""),
            hint=span,
            set=bool(text),
            error=error,
            unit=unit,
        )
    stride = option.step
    if option.kind == "length" and show.unit == "in":
        stride = max(1, round(option.step / 2.54 * 8)) / 8 * 2.54
    less, more = (
        written(option, value + by, show) if option.low - 1e-6 <= value + by <= option.high + 1e-6 else ""
        for by in (-stride, stride)
    )
    shown = show.setting(value) if option.kind == "length" else f"{value:g}"
    return Field(key, option.name, option.why, option.kind, shown, "", span, less, more, bool(text), bool(text), unit=unit)
