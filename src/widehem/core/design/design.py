"""What a design is: method, options, ease and steps; and how it stands in a file."""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import field
from typing import Any

import widehem.core.altering.operations
import widehem.core.style.operations  # noqa: F401
from widehem.core.drafting.method import METHODS, Method
from widehem.core.drafting.outlined_data import Outlined
from widehem.core.setting.option import OptionError, Value
from widehem.core.style.operation import OPERATIONS, Operation
from widehem.core.style.where import Where
from widehem.core.values import record, replace


@record(frozen=True)
class Step:
    """One change of a design. id: its own for good. code: of the operation. wheres, names: places and names it asks for. off:
    left out. maybe: done only on bodies on which its places are there: a dart that some do not have."""

    id: str
    code: str
    settings: Mapping[str, Value] = field(default_factory=dict)
    wheres: Mapping[str, Where] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict)
    off: bool = False
    maybe: bool = False

    @property
    def operation(self) -> Operation:
        """Raises OptionError when there is no such operation any more."""
        if self.code not in OPERATIONS:
            raise OptionError(f'There is no operation "{self.code}": there are {", ".join(OPERATIONS)}.')
        return OPERATIONS[self.code]

    def as_data(self) -> dict[str, Any]:
        return {
            "id": self.id,
            "code": self.code,
            "settings": dict(self.settings),
            "wheres": {name: where.as_data() for name, where in self.wheres.items()},
            "names": dict(self.names),
            "off": self.off,
            **({"maybe": True} if self.maybe else {}),
        }

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> Step:
        """Raises KeyError, ValueError for what is not a step."""
        wheres = {str(name): Where.from_data(where) for name, where in dict(data.get("wheres", {})).items()}
        names = {str(name): str(value) for name, value in dict(data.get("names", {})).items()}
        return Step(
            str(data["id"]),
            str(data["code"]),
            dict(data.get("settings", {})),
            wheres,
            names,
            bool(data.get("off", False)),
            bool(data.get("maybe", False)),
        )


@record(frozen=True)
class Design:
    """A garment without a wearer. rules: the version of the method's rules. options, ease: what differs from the defaults, cm.
    outlines: what it is made of, where no method draws it."""

    method: str
    rules: int | None = None
    options: Mapping[str, Value] = field(default_factory=dict)
    ease: Mapping[str, Value] = field(default_factory=dict)
    steps: tuple[Step, ...] = ()
    outlines: Outlined | None = None

    @property
    def drawn_by(self) -> Method:
        """Its method. Raises OptionError naming those there are."""
        if self.method not in METHODS:
            raise OptionError(f'There is no method "{self.method}": there are {", ".join(METHODS)}.')
        return METHODS[self.method]

    def with_settings(self, options: Mapping[str, Value], ease: Mapping[str, Value]) -> Design:
        """The design with a docket's own settings over its own."""
        return replace(self, options={**self.options, **options}, ease={**self.ease, **ease})

    def by_rules(self, rules: int | None) -> Design:
        """The design by another version of its method's rules; None: those of today."""
        return replace(self, rules=rules)

    @property
    def today(self) -> bool:
        """Whether it is drawn by the rules of today."""
        return self.rules is None or self.rules == self.drawn_by.rules

    def key(self) -> tuple[object, ...]:
        """What two designs that draw alike have in common."""
        return (*self.block_key(), repr(self.steps))

    def block_key(self) -> tuple[Hashable, ...]:
        """What two designs that begin with one block have in common."""
        return (self.method, self.rules, _key(self.options), _key(self.ease), self.outlines)


def _key(values: Mapping[str, Value]) -> tuple[tuple[str, Value], ...]:
    return tuple(sorted(values.items()))


def method_design(
    method: Method, options: Mapping[str, Value] | None = None, ease: Mapping[str, Value] | None = None
) -> Design:
    """A block by a method, by the rules of today."""
    return Design(method.code, method.rules, options or {}, ease or {})


def steps_from(data: Sequence[Mapping[str, Any]]) -> tuple[Step, ...]:
    """Steps as they are kept. Raises KeyError, ValueError."""
    return tuple(Step.from_data(entry) for entry in data)
