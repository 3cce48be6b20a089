"""The commands about sizes: a design graded over a chart, and a cast dressed in few of them."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import Any

from widehem.cli_designs import named_design
from widehem.cli_house import FINE, REFUSED, UsageError, hand_over
from widehem.cli_paper import add_paper, paper_of, wanted
from widehem.core.units import Display

FORMATS = ("text", "json", "svg", "pdf", "dxf")


def add_commands(commands: Any) -> None:
    """`sizes`, `grade` and `cast`."""
    listed = commands.add_parser("sizes", help="the size charts that ship, or one of them as CSV")
    listed.add_argument("chart", nargs="?", metavar="CHART")
    listed.add_argument("--unit", choices=("cm", "in"), default="cm")
    listed.add_argument("--out", type=Path, metavar="FILE")
    listed.set_defaults(run=_sizes)

    one = commands.add_parser("grade", help="a design in every size of a chart, judged in each")
    one.add_argument("design", metavar="DESIGN", help="a design file, or the name of one that ships")
    one.add_argument("--sizes", required=True, metavar="CHART", help="a size chart that ships, or a CSV file of one")
    one.add_argument("--way", choices=("rules", "redraft", "proposed", "own"), default="rules")
    one.add_argument("--rules", type=Path, metavar="FILE.json", help="a table of shift rules in place of the one that ships")
    one.add_argument("--size", metavar="NAME", help="one size only")
    one.add_argument("--unit", choices=("cm", "in"), default="cm")
    one.add_argument("--format", choices=FORMATS, default="text")
    add_paper(one)
    one.set_defaults(run=_grade)

    cast = commands.add_parser("cast", help="who of a cast wears which size after which alteration")
    cast.add_argument("charts", type=Path, metavar="FILE", help="charts of the wearers, CSV or JSON")
    cast.add_argument("--sizes", required=True, metavar="CHART", help="a size chart that ships, or a CSV file of one")
    cast.add_argument("--let-out", type=float, default=2.0, metavar="CM")
    cast.add_argument("--take-in", type=float, default=4.0, metavar="CM")
    cast.add_argument("--most", type=int, metavar="N", help="at most so many sizes")
    cast.add_argument("--unit", choices=("cm", "in"), default="cm")
    cast.add_argument("--format", choices=("text", "json", "pdf"), default="text")
    cast.add_argument("--out", type=Path, metavar="FILE")
    cast.set_defaults(run=_cast)


def _chart(text: str) -> Any:
    """A size chart that ships, or of a file. Raises UsageError."""
    from widehem.core.grading.house_charts import HOUSE
    from widehem.core.grading.size_chart import SizeChartError
    from widehem.core.output.sizes_csv import sizes_from_csv

    if text in HOUSE:
        return HOUSE[text]
    try:
        return sizes_from_csv(Path(text).read_bytes())
    except OSError as error:
        raise UsageError(
            f"The size chart {text} cannot be read: {error.strerror}. Charts that ship: {', '.join(HOUSE)}."
        ) from None
    except SizeChartError as error:
        raise UsageError(f"{text}: {error}") from None


def _sizes(arguments: argparse.Namespace) -> int:
    from widehem.core.grading.house_charts import HOUSE
    from widehem.core.output.sizes_csv import sizes_csv

    if arguments.chart:
        return hand_over(sizes_csv(_chart(arguments.chart), Display(arguments.unit)), arguments.out)
    for chart in HOUSE.values():
        print(f"{chart.code:10} {chart.name}: {len(chart)} sizes, base {chart.called(chart.base)}, {len(chart.rows)} measures")
    return FINE


def _grade(arguments: argparse.Namespace) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.grading.drift import drifts
    from widehem.core.grading.nest import Grading, grade, ways_of

    named, chart = named_design(arguments.design), _chart(arguments.sizes)
    if arguments.way not in ways_of(named.design):
        raise UsageError(f"{named.name} cannot be graded by {arguments.way}: by {', '.join(ways_of(named.design))} it can.")
    nest = grade(Grading(named.design, chart, arguments.way, _table(arguments.rules)))
    for words in (*nest.cautions, *drifts(nest)):
        print(words.text(Display(arguments.unit)), file=sys.stderr)
    if not nest.sizes:
        return REFUSED
    if arguments.size is not None and (arguments.size not in nest.names or nest.names.index(arguments.size) not in nest.sizes):
        raise UsageError(
            f"Size {arguments.size} cannot be drawn: {', '.join(nest.names[size] for size in sorted(nest.sizes))} can."
        )
    return hand_over(_written(arguments, named, nest), arguments.out)


def _table(path: Path | None) -> Any:
    """The table of rules: the one that ships, or of a file. Raises UsageError."""
    from widehem.core.grading.first_table import FIRST
    from widehem.core.grading.table_file import rules_from_json
    from widehem.core.grading.tables import TableError

    if path is None:
        return FIRST
    try:
        return rules_from_json(path.read_bytes(), called=path.stem)
    except OSError as error:
        raise UsageError(f"The table of rules {path} cannot be read: {error.strerror}.") from None
    except TableError as error:
        raise UsageError(f"{path}: {error}") from None


def _written(arguments: argparse.Namespace, named: Any, nest: Any) -> bytes:
    from widehem.core.grading.views import Anchor
    from widehem.core.marking.labels import Heading
    from widehem.core.output.nested import NEST_WRITERS, order_of_nest
    from widehem.core.output.refused import CannotWriteError
    from widehem.core.output.sheets import PaperError, scale_named
    from widehem.core.output.writers import WRITERS, Order

    show = Display(arguments.unit)
    if arguments.format == "text":
        return _told(nest, show).encode()
    try:
        asked, paper, scale = (
            wanted(arguments, named.design.drawn_by.allowances, arguments.unit),
            paper_of(arguments),
            scale_named(arguments.scale),
        )
        if arguments.size is not None:
            head = Heading(costume=named.name, version=f"size {arguments.size}")
            return WRITERS[arguments.format].write(
                Order(nest.sizes[nest.names.index(arguments.size)].made, head, asked, paper, scale, show)
            )
        if nest.base not in nest.sizes:
            raise UsageError("The base of this design cannot be drawn: name one size with --size.")
        return NEST_WRITERS[arguments.format].write(
            order_of_nest(nest, Anchor(), Heading(costume=named.name), asked, paper, scale, show)
        )
    except (PaperError, CannotWriteError) as error:
        raise UsageError(str(error)) from None


def _told(nest: Any, show: Display) -> str:
    """Every size in a line: girths, and what is not true."""
    from widehem.core.grading.increments import increments

    rows = [row for row in increments(nest) if row.group == "Girths"]
    lines = []
    for size in sorted(nest.sizes):
        one = nest.sizes[size]
        girths = ", ".join(
            f"{row.name.lower()} {show.length(row.values[size])}" for row in rows if row.values[size] is not None
        )
        wrong = "; ".join([words.text(show) for words in one.refused] + [check.message.text(show) for check in one.untrue])
        lines.append(
            f"{nest.names[size]:8} {girths}{'  base' if size == nest.base else ''}{f'  NOT TRUE: {wrong}' if wrong else ''}"
        )
    return "\n".join(lines) + "\n"


def _cast(arguments: argparse.Namespace) -> int:
    from widehem.core.body.chart import Chart
    from widehem.core.body.figure_tables import CURVED, TABLES
    from widehem.core.grading.cast import Person, Tolerances, plan, sizes_of_chart
    from widehem.core.output.charts_in import read_charts
    from widehem.core.output.pdf_cast import cast_pdf, told
    from widehem.core.output.sheets import PAPERS

    chart, show = _chart(arguments.sizes), Display(arguments.unit)
    try:
        found = read_charts(arguments.charts.read_bytes(), arguments.charts.stem)
    except OSError as error:
        raise UsageError(f"The charts {arguments.charts} cannot be read: {error.strerror}.") from None
    if found.problems:
        raise UsageError(f"{arguments.charts}: {found.problems[0]}")
    if arguments.most is not None and arguments.most < 1:
        raise UsageError(f"--most {arguments.most} is no number of sizes: one at least.")
    people = [
        Person(number, entry.wearer, Chart(entry.readings, table=TABLES.get(entry.figure, CURVED)))
        for number, entry in enumerate(found.charts)
    ]
    made = plan(people, sizes_of_chart(chart), Tolerances(arguments.let_out, arguments.take_in), most=arguments.most)
    if arguments.format == "pdf":
        about = f"{made.dressed} of {len(people)} in {len(made.sizes)} sizes of {chart.name}."
        return hand_over(cast_pdf(f"Cast of {arguments.charts.stem}", about, made, PAPERS["a4"], show), arguments.out)
    if arguments.format == "json":
        data = {
            "sizes": list(made.sizes), "proven": made.proven, "hours": dict(made.hours), "best": [list(row) for row in made.best],
            "who": [
                {"wearer": w.person.name, "size": w.size, "alterations": {one.code: round(one.by, 2) for one in w.fit.alterations} if w.fit else {}, "says": told(w, show)}
                for w in made.who
            ],
        }  # fmt: skip
        return hand_over((json.dumps(data, indent=2, ensure_ascii=False) + "\n").encode(), arguments.out)
    lines = [
        f"{size}: {', '.join(f'{w.person.name} ({told(w, show)[:-1].lower()})' for w in made.wearing(size))}"
        for size in made.sizes
    ]
    lines += [f"own draft: {w.person.name}. {told(w, show)}" for w in made.own]
    lines.append("Nothing better can be." if made.proven else "The best found in the time; it is not proven.")
    return hand_over(("\n".join(lines) + "\n").encode(), arguments.out)
