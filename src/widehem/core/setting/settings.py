"""Settings read once: from what was written, with its unit, to values."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import field

from widehem.core.setting.option import Option, OptionError, Value
from widehem.core.units import Unit
from widehem.core.values import record


@record(frozen=True)
class Settings:
    """Options and ease as values, lengths in cm: only what differs from the defaults."""

    options: Mapping[str, Value] = field(default_factory=dict)
    ease: Mapping[str, Value] = field(default_factory=dict)


def read_settings(
    options: Iterable[Option], ease: Iterable[Option], written: Mapping[str, str], eased: Mapping[str, str], unit: Unit = "cm"
) -> Settings:
    """Settings as they were written. Raises OptionError naming the option, the figure and what to do."""
    return Settings(_read(options, written, unit), _read(ease, eased, unit))


def _read(known: Iterable[Option], written: Mapping[str, str], unit: Unit) -> dict[str, Value]:
    by_code = {option.code: option for option in known}
    found: dict[str, Value] = {}
    for code, text in written.items():
        if code not in by_code:
            raise OptionError(f'There is no setting "{code}": there are {", ".join(by_code)}.')
        found[code] = by_code[code].read(text, unit)
    return found
