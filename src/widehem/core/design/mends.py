"""What can be pressed to true a garment: the mends of its method that are not set already and that help as things stand."""

from __future__ import annotations

from widehem.core.design.make import Made
from widehem.core.pattern.check import Check
from widehem.core.setting.option import Mend, Value
from widehem.core.setting.quantity import Quantity


def mends_for(made: Made, check: Check) -> tuple[Mend, ...]:
    """What would true a check of a garment; nothing where it is true."""
    if check.verdict == "true":
        return ()
    return tuple(mend for mend in made.method.mends_of(check.name) if _helps(made, mend))


def _helps(made: Made, mend: Mend) -> bool:
    asked = (made.method.ease_at if mend.ease else made.method.option)(mend.option)
    now = (made.ease if mend.ease else made.options).get(mend.option)
    return asked.read(mend.value, "cm") != _value(now) and all(made.options.get(code) == value for code, value in mend.when)


def _value(setting: Quantity | Value | None) -> Value | None:
    return setting.value if isinstance(setting, Quantity) else setting


def pressed(made: Made, mend: Mend) -> tuple[dict[str, Value], dict[str, Value]]:
    """Options and ease of a garment's design once a mend is pressed, as values."""
    options, ease = dict(made.design.options), dict(made.design.ease)
    asked = (made.method.ease_at if mend.ease else made.method.option)(mend.option)
    (ease if mend.ease else options)[mend.option] = asked.read(mend.value, "cm")
    return options, ease
