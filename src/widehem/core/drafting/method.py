"""Methods of drafting, their registry, and the one call that drafts."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable, Mapping
from dataclasses import field

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.body.doubts import doubts
from widehem.core.drafting.cap import LOWEST, Armhole
from widehem.core.drafting.common_options import COMMON, COMMON_MENDS, limits_of, wear_of
from widehem.core.drafting.sheet import Mark, Sheet
from widehem.core.drafting.table import Table
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Demand
from widehem.core.pattern.edge import PatternError
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.limits import Limits
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.walk import armhole_depth, armhole_level, underarm_curves
from widehem.core.pattern.wear import Wear
from widehem.core.setting.option import Mend, Option, OptionError, Value
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.setting.registry import Registry
from widehem.core.setting.step import Step
from widehem.core.units import Saying, say
from widehem.core.values import kept, record, replace


@record(frozen=True)
class Need:
    """A measure a method uses and what for.

    unless: an option that, once set, makes it unnecessary. instead: a measure that does as well.
    """

    measure: str
    why: str
    unless: str = ""
    instead: str = ""


@record(frozen=True)
class Method:
    """A way of drafting.

    rules: the version of its rules, kept with every saved draft. earlier: versions it can still be drawn by. body: makes
    the body that is drawn for from the chart. for_armhole: it is drawn for the armhole of a bodice. mends: by the name of a
    check, what would true it. allowances: the plan of allowances it is usually cut with. has_armhole: a sleeve can be drawn
    for it; arm_ease: with so much ease round the upper arm, cm, where that is not the usual. made_for: the method whose
    armhole a sleeve is meant for.
    """

    code: str
    name: str
    group: str
    summary: str
    needs: tuple[Need, ...]
    options: tuple[Option, ...]
    ease: tuple[Option, ...]
    draw: Callable[[Sheet], None]
    rules: int = 1
    earlier: tuple[int, ...] = ()
    body: Callable[[Chart], Chart] | None = None
    for_armhole: bool = False
    mends: Mapping[str, tuple[Mend, ...]] = field(default_factory=dict)
    allowances: str = "cloth"
    has_armhole: bool = False
    made_for: str = "bodice.measured"
    arm_ease: float | None = None

    def option(self, code: str) -> Option:
        for option in self.options:
            if option.code == code:
                return option
        known = ", ".join(option.code for option in self.options)
        raise OptionError(f'{self.name} has no option "{code}": it has {known}.')

    def ease_at(self, code: str) -> Option:
        for option in self.ease:
            if option.code == code:
                return option
        known = ", ".join(option.code for option in self.ease)
        raise OptionError(f'{self.name} has no ease at "{code}": it has {known}.')

    def mends_of(self, check: str) -> tuple[Mend, ...]:
        """What would true a check that is not true."""
        common = (mend for start, mends in COMMON_MENDS.items() if check.startswith(start) for mend in mends)
        return (*self.mends.get(check, ()), *common)

    def uses(self, options: Mapping[str, object] | None = None) -> tuple[str, ...]:
        """Codes of the measures it needs, given these settings."""
        chosen = options or {}
        return tuple(need.measure for need in self.needs if not (need.unless and need.unless in chosen))

    def reads(self, options: Mapping[str, object] | None = None) -> tuple[str, ...]:
        """Codes of the measures a draft may rest on, given these settings: what it needs and what does as well."""
        chosen = set(self.uses(options))
        instead = (need.instead for need in self.needs if need.instead and need.measure in chosen)
        return (*self.uses(options), *instead)

    def missing(self, chart: Chart, options: Mapping[str, object] | None = None) -> tuple[str, ...]:
        """Codes of the measures it needs and the chart lacks."""
        instead = {need.measure: need.instead for need in self.needs if need.instead}
        return tuple(code for code in chart.missing(self.uses(options)) if instead.get(code, "") not in chart)


LOG = logging.getLogger(__name__)
# what a default of ease may follow from, besides settings: the armhole a sleeve is drawn for, and the ease it asks for, cm
ARMHOLE, ARM_EASE = "armhole", "arm_ease"
USUAL_ARM = 5.0
METHODS: Registry[Method] = Registry("method")
WHOLE = "Whole garments"  # no schools of one thing, as the other groups are
PARTS = ("Bodices", "Sleeves", "Skirts", "Trousers", WHOLE)  # groups, in the order of the body


def by_part(methods: Iterable[Method]) -> dict[str, list[Method]]:
    """Methods by the part of the body they are for."""
    found: dict[str, list[Method]] = {}
    for method in sorted(methods, key=lambda method: PARTS.index(method.group)):
        found.setdefault(method.group, []).append(method)
    return found


def register(method: Method, *, listed: bool = True) -> Method:
    """Make a method known by its code, with the settings every method has. listed: makers choose among it and others."""
    own = {option.code for option in method.options}
    method = replace(method, options=(*method.options, *(option for option in COMMON if option.code not in own)))
    return METHODS.add(method.code, method, listed=listed)


def method_named(code: str) -> Method:
    """The method with this code. Raises OptionError naming those there are."""
    if code not in METHODS:
        raise OptionError(f'There is no method "{code}": there are {", ".join(METHODS)}.')
    return METHODS[code]


@record(frozen=True)
class Draft:
    """A finished drawing: what was put in, and everything that was drawn from it.

    garment: its pieces in frames of their own. table: where they lie on the sheet. demands: what the garment is held
    against. wear: what it is made of and worn over. limits: how near is true. notions: what is needed besides cloth, of its
    own kind.
    """

    method: Method
    rules: int
    chart: Chart
    options: Mapping[str, Quantity | Value]
    ease: Mapping[str, Quantity]
    marks: tuple[Mark, ...]
    steps: tuple[Step, ...]
    notes: tuple[Saying, ...]
    points: Mapping[str, Point]
    garment: Garment
    table: Table
    demands: tuple[Demand, ...]
    wear: Wear
    limits: Limits
    notions: tuple[Saying, ...]
    rubbed_out: Mapping[str, int]

    @kept
    def laid(self) -> tuple[Piece, ...]:
        """The pieces as they lie on the sheet."""
        return tuple(self.table.laid(piece) for piece in self.garment.pieces)

    @property
    def options_set(self) -> dict[str, object]:
        """Options that did not come from the chart."""
        return {code: value for code, value in self.options.items() if not isinstance(value, Quantity)}


def armhole_of(garment: Garment) -> Armhole | None:
    """The armhole of a bodice, on the stitching line; None when the pieces have none."""
    if garment.armholes is None:
        return None
    front, back = (garment.length_of(chain) for chain in garment.armholes)
    return Armhole(front, back, armhole_depth(garment), armhole_level(garment), underarm_curves(garment, LOWEST))


def draft(
    method: Method,
    chart: Chart,
    options: Mapping[str, Value] | None = None,
    ease: Mapping[str, Value] | None = None,
    armhole: Armhole | None = None,
    rules: int | None = None,
) -> Draft:
    """Draft by a method on a chart.

    options, ease: only what differs from the defaults, lengths in cm. armhole: what a sleeve is drawn for. rules: an
    earlier version of the method's rules. Raises OptionError for a setting out of range, CannotDraft when the measures do
    not make a garment: whatever a drawing breaks at is logged with all that was put in, and said as that.
    """
    try:
        return _draft(method, chart, options, ease, armhole, rules)
    except (CannotDraft, OptionError):
        raise
    except Exception as error:
        LOG.exception(
            "%s broke: rules %s, options %s, ease %s, armhole %s, measures %s",
            method.code, rules, dict(options or {}), dict(ease or {}), armhole, chart.values,
        )  # fmt: skip
        raise _broken(method, chart, options) from error


def _broken(method: Method, chart: Chart, options: Mapping[str, Value] | None, why: str = "") -> CannotDraft:
    """The refusal of a drawing that broke: the measures of this chart that are in doubt, or all it rests on, with their
    figures.
    why: what is wrong with the drawing, where that is known."""
    read = [code for code in method.reads(options) if code in chart]
    doubted = [code for code in dict.fromkeys(code for doubt in doubts(chart) for code in doubt.measures) if code in read]
    blamed = doubted or read
    figures = ", ".join(f"{names([code])} {{{number}}}" for number, code in enumerate(blamed))
    values = chart.values
    return CannotDraft(
        tuple(blamed),
        say(
            f"{why or method.name + ' cannot be drawn.'} These measures do not make a garment together: read "
            f"{'those in doubt' if doubted else 'what is furthest from the others'} again, {figures}.",
            *(values[code] for code in blamed),
        ),
    )


def _draft(
    method: Method,
    chart: Chart,
    options: Mapping[str, Value] | None = None,
    ease: Mapping[str, Value] | None = None,
    armhole: Armhole | None = None,
    rules: int | None = None,
) -> Draft:
    """As draft; raises whatever a drawing breaks at."""
    rules = method.rules if rules is None else rules
    if rules != method.rules and rules not in method.earlier:
        raise OptionError(f"{method.name} cannot be drawn by its rules of version {rules} any more: draw it by those of today.")
    if method.for_armhole and armhole is None:
        raise CannotDraft((), say(f"{method.name} is drawn for an armhole: draft a bodice for this wearer first."))
    given = {code: method.option(code).check(value) for code, value in (options or {}).items()}
    missing = method.missing(chart, given)
    if missing:
        needs = {need.measure: need.why for need in method.needs}
        why, them = "; ".join(needs[code] for code in missing), "it" if len(missing) == 1 else "them"
        raise CannotDraft(
            missing,
            say(
                f"{method.name} cannot be drawn without {names(missing)} ({why}): measure {them} and write {them} on the chart."
            ),
        )
    body = method.body(chart) if method.body else chart
    settings = resolved(method, body, given, rules)
    known = settings if armhole is None else {**settings, **_of_armhole(armhole)}
    plan = {}
    for option in method.ease:
        amount = (ease or {}).get(option.code)
        cm = option.check(amount) if amount is not None else option.by_rules(rules).default_on(body, known)
        assert isinstance(cm, float | int | Quantity)
        plan[option.code] = Quantity(float(cm), option.name.lower(), option.code, "ease")
    for code in ease or {}:
        method.ease_at(code)
    sheet = Sheet(
        body,
        settings,
        {option.code: option for option in method.options},
        plan,
        armhole=armhole,
        rules=rules,
        eased=frozenset(ease or {}),
        read=chart,
    )
    try:
        method.draw(sheet)
    except PatternError as error:
        raise _broken(method, body, given, str(error)) from None
    assert sheet.made is not None
    made = sheet.made
    return Draft(
        method, rules, chart, settings, plan, tuple(sheet.marks), tuple(sheet.steps), tuple(sheet.notes), sheet.points,
        made.garment, made.table, made.demands, wear_of(settings), limits_of(settings), made.notions, sheet.rubbed_out,
    )  # fmt: skip


def _of_armhole(armhole: Armhole) -> dict[str, Quantity]:
    """What the defaults of a sleeve may follow from."""
    arm = Quantity(USUAL_ARM if armhole.arm is None else armhole.arm, "upper arm ease", source="constant")
    return {ARMHOLE: drawn(armhole.whole, "armhole"), ARM_EASE: arm}


def resolved(method: Method, chart: Chart, given: Mapping[str, Value], rules: int | None = None) -> dict[str, Quantity | Value]:
    """Every option of a method: as given, or its default by these rules; 0 where that rests on a measure that is missing."""
    settings: dict[str, Quantity | Value] = {}
    for option in method.options:
        value = given.get(option.code)
        default = option.by_rules(rules or method.rules).default_on(chart, settings) if value is None else value
        settings[option.code] = 0.0 if default is None else default
    return settings
