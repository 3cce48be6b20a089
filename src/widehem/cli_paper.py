"""The commands about paper: garments of a data folder as files, a whole cast as one, plot files and the plotter they go to."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path
from typing import Any

from widehem.cli_house import FINE, REFUSED, UsageError, hand_over
from widehem.core.units import Display, Unit

FORMATS = ("json", "svg", "pdf", "dxf", "plot", "card", "dummies")


def add_paper(command: Any) -> None:
    """What every command takes that writes a pattern."""
    command.add_argument("--out", type=Path, metavar="FILE")
    command.add_argument(
        "--allowance", metavar="PLAN", help="a plan of allowances; the usual one of the method unless another is named"
    )
    command.add_argument("--let-out", metavar="LENGTH", help="cloth to spare at side, inseam and centre back")
    command.add_argument("--whole", action="store_true", help="pieces on the fold are drawn whole")
    command.add_argument("--nap", action="store_true", help="grain lines with one head")
    command.add_argument("--paper", default="a4", metavar="PAPER")
    command.add_argument("--scale", default="1:1", metavar="SCALE")
    command.add_argument(
        "--square", metavar="ACROSSxDOWN", help="how the test square of 5 cm comes out on the printer, like 4.95x5.02"
    )


def wanted(arguments: argparse.Namespace, usual: str, unit: Unit) -> Any:
    """What is wanted on the pattern, as it was asked for. Raises UsageError."""
    from widehem.core.marking.plans import PlanError, plan_named
    from widehem.core.marking.wanted import CLOTH, Wanted
    from widehem.core.units import LengthError, parse_length

    try:
        plan = plan_named(arguments.allowance or usual)
        if arguments.let_out:
            plan = plan.with_amounts({"let_out": parse_length(arguments.let_out, unit).cm}, Display(unit))
    except PlanError as error:
        raise UsageError(str(error)) from None
    except LengthError as error:
        raise UsageError(f"--let-out: {error}") from None
    return Wanted({CLOTH: plan}, whole=arguments.whole, nap=arguments.nap)


def paper_of(arguments: argparse.Namespace) -> Any:
    """The paper with what its printer does to it. Raises UsageError."""
    from widehem.core.output.sheets import PaperError, calibrated, paper_named
    from widehem.core.units import LengthError, parse_length

    try:
        paper = paper_named(arguments.paper)
        if not arguments.square:
            return paper
        across, sign, down = arguments.square.partition("x")
        if not sign:
            raise UsageError(f'--square "{arguments.square}" is not ACROSSxDOWN: write it like 4.95x5.02.')
        return calibrated(paper, parse_length(across, "cm").cm, parse_length(down, "cm").cm)
    except PaperError as error:
        raise UsageError(str(error)) from None
    except LengthError as error:
        raise UsageError(f"--square: {error}") from None


def add_commands(commands: Any) -> None:
    """`pattern`, `patterns`, `plotter` and `plot`."""
    one = commands.add_parser("pattern", help="a garment of a data folder as a file")
    one.add_argument("docket", type=int, metavar="NUMBER", help="of the garment, as it stands in the address of its pages")
    one.add_argument("--data", type=Path, default=Path("data"))
    one.add_argument("--format", choices=FORMATS, default="pdf")
    one.add_argument("--paper", default="", metavar="PAPER", help="in place of the one that was chosen for it")
    one.add_argument("--scale", default="1:1", metavar="SCALE")
    one.add_argument("--unit", choices=("cm", "in"), default="cm")
    one.add_argument("--square", metavar="ACROSSxDOWN")
    one.add_argument("--out", type=Path, metavar="FILE")
    one.set_defaults(run=_pattern)

    cast = commands.add_parser("patterns", help="every garment of a production that is not finished, in one ZIP")
    cast.add_argument(
        "production", type=int, metavar="NUMBER", help="of the production, as it stands in the address of its pages"
    )
    cast.add_argument("--data", type=Path, default=Path("data"))
    cast.add_argument("--format", choices=("pdf", "dxf", "svg", "plot", "card", "json"), default="pdf")
    cast.add_argument("--paper", default="", metavar="PAPER", help="for all, in place of what was chosen for each")
    cast.add_argument("--unit", choices=("cm", "in"), default="cm")
    cast.add_argument("--out", type=Path, required=True, metavar="FILE.zip")
    cast.set_defaults(run=_patterns)

    outlines = commands.add_parser("import", help="outlines of an SVG or DXF file as a design file, to be drawn and named")
    outlines.add_argument("file", type=Path, metavar="FILE")
    outlines.add_argument("--name", default="", help="of the design")
    outlines.add_argument(
        "--unit", choices=("mm", "cm", "in", "pt"), help="what 1 is in the drawing, where the file says otherwise"
    )
    outlines.add_argument("--allowance", default="0", metavar="CM", help="that it has on every edge; it is taken off")
    outlines.add_argument("--out", type=Path, metavar="FILE.json")
    outlines.set_defaults(run=_import)

    kept = commands.add_parser("archive", help="a production as a file that draws the same elsewhere")
    kept.add_argument("production", type=int, metavar="NUMBER")
    kept.add_argument("--data", type=Path, default=Path("data"))
    kept.add_argument("--no-pictures", action="store_true")
    kept.add_argument("--out", type=Path, metavar="FILE.json")
    kept.set_defaults(run=_archive)

    back = commands.add_parser("archive-in", help="take a production in from an archive; nothing that is there is changed")
    back.add_argument("file", type=Path, metavar="FILE.json")
    back.add_argument("--data", type=Path, default=Path("data"))
    back.set_defaults(run=_archive_in)

    device = commands.add_parser("plotter", help="stand in for a plotter: take plot files, draw them on a virtual roll")
    device.add_argument("--host", default="127.0.0.1")
    device.add_argument("--port", type=int, default=9100, help="where it takes plot files")
    device.add_argument("--page", type=int, default=8421, help="where its roll is shown")
    device.add_argument("--wide", type=float, default=91.4, metavar="CM", help="of the roll")
    device.add_argument("--speed", type=float, default=20.0, metavar="TIMES", help="as fast as a pen; 0 draws at once")
    device.set_defaults(run=_plotter)

    plot = commands.add_parser("plot", help="send a plot file to a plotter, or measure it without one")
    plot.add_argument("file", type=Path, metavar="FILE.plt")
    plot.add_argument("--to", metavar="HOST:PORT", help="without it the paper and the time it takes are told")
    plot.set_defaults(run=_plot)


def _pattern(arguments: argparse.Namespace) -> int:
    from widehem.core.output.refused import CannotWriteError
    from widehem.core.output.sheets import PaperError, paper_named
    from widehem.core.output.writers import WRITERS
    from widehem.core.setting.option import OptionError
    from widehem.core.setting.refusal import CannotDraft
    from widehem.store.clock import house_zone
    from widehem.store.making import find_work
    from widehem.store.papers import order_of

    with _store(arguments.data).read() as session:
        work, zone = find_work(session, arguments.docket), house_zone(session)
        if work is None:
            raise UsageError(
                f"There is no garment {arguments.docket} in {arguments.data}: its number stands in the address of its pages."
            )
        _ = work.docket.wearer, work.docket.production
    try:
        made = work.made_once()
    except (OptionError, CannotDraft) as error:
        print(f"{work.docket.name} cannot be drawn as it is kept: {error}", file=sys.stderr)
        return REFUSED
    arguments.paper = arguments.paper or work.docket.paper
    try:
        paper = paper_of(arguments) if arguments.square else paper_named(arguments.paper)
        order = order_of(work.docket, made, Display(arguments.unit), zone, paper, arguments.scale)
        data = WRITERS[arguments.format].write(order)
    except (PaperError, CannotWriteError) as error:
        raise UsageError(str(error)) from None
    return hand_over(data, arguments.out)


def _store(folder: Path) -> Any:
    """A data folder that is there. Raises UsageError."""
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.store.database import Store
    from widehem.store.keeping import FILE

    if not (folder / FILE).exists():
        raise UsageError(f"There is no data in {folder}: name the folder with --data.")
    return Store(folder)


def _patterns(arguments: argparse.Namespace) -> int:
    from widehem.core.output.sheets import PAPERS
    from widehem.jobs.cast_files import CAST
    from widehem.jobs.ledger import DONE
    from widehem.jobs.works import Works

    if arguments.paper and arguments.paper not in PAPERS:
        raise UsageError(f'There is no paper "{arguments.paper}": there are {", ".join(PAPERS)}.')
    works = Works(_store(arguments.data), inline=True)
    wish = {
        "production": arguments.production, "writer": arguments.format, "paper": arguments.paper, "unit": arguments.unit,
        "fraction": Display(arguments.unit).fraction,
    }  # fmt: skip
    job = works.ask(CAST, wish, "Writing every pattern", "command")
    if job.state != DONE:
        raise UsageError(job.trouble or "Nothing was written.")
    data = works.ledger.found([job.answer["key"]])[job.answer["key"]]
    return hand_over(data, arguments.out)


def _read(file: Path) -> bytes:
    try:
        return file.read_bytes()
    except OSError as error:
        raise UsageError(f"{file} cannot be read: {error.strerror}.") from None


def _import(arguments: argparse.Namespace) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.core.design.design import Design
    from widehem.core.design.files import Named, design_as_json
    from widehem.core.drafting.outlined import CODE
    from widehem.core.drafting.outlined_data import Outlined, checked, proposed
    from widehem.core.drafting.outlines import OutlineError, outline_as_data
    from widehem.core.output.outlines_in import FileRefusedError
    from widehem.core.units import LengthError, parse_length

    data = _read(arguments.file)
    per_unit = {"mm": 0.1, "cm": 1.0, "in": 2.54, "pt": 2.54 / 72}.get(arguments.unit or "")
    try:
        if arguments.file.suffix.lower() == ".dxf":
            from widehem.core.output.dxf_in import read_dxf as read
        elif arguments.file.suffix.lower() == ".svg":
            from widehem.core.output.svg_in import read_svg as read
        else:
            raise UsageError(f"{arguments.file} is neither an SVG nor a DXF by its name.")
        found = read(data, per_unit)
        allowance = parse_length(arguments.allowance, "cm").cm
        said = checked(
            {
                "outlines": [outline_as_data(o) for o in found.outlines],
                **proposed(found.outlines, allowance),
                "source": arguments.file.name,
            }
        )
    except (FileRefusedError, OutlineError) as error:
        raise UsageError(f"{arguments.file}: {error}") from None
    except LengthError as error:
        raise UsageError(f"--allowance: {error}") from None
    for note in found.notes:
        print(note, file=sys.stderr)
    name = arguments.name or arguments.file.stem
    return hand_over(design_as_json(Named(name[:120], Design(CODE, 1, outlines=Outlined.of(said)))), arguments.out)


def _archive(arguments: argparse.Namespace) -> int:
    from widehem.store.archive import archive
    from widehem.store.models import Production

    with _store(arguments.data).read() as session:
        production = session.get(Production, arguments.production)
        if production is None:
            raise UsageError(f"There is no production {arguments.production} in {arguments.data}.")
        data = archive(session, production, pictures=not arguments.no_pictures)
    return hand_over(data, arguments.out)


def _archive_in(arguments: argparse.Namespace) -> int:
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.store.archive import read_archive, take_in
    from widehem.store.archive_values import ArchiveError
    from widehem.store.database import Store

    try:
        found = read_archive(_read(arguments.file))
    except ArchiveError as error:
        raise UsageError(f"{arguments.file}: {error}") from None
    with Store(arguments.data).write("command line") as session:
        made = take_in(session, found)
        print(f"{made.name} is production {made.id} in {arguments.data}.")
    return FINE


def _plotter(arguments: argparse.Namespace) -> int:
    from widehem.plotter_stand_in import Plotter, run

    for port in (arguments.port, arguments.page):
        if not 0 < port < 65536:
            raise UsageError(f"{port} is no port: 1 to 65535.")
    if not 10 <= arguments.wide <= 500:
        raise UsageError(f"--wide {arguments.wide:g}: a roll is 10 to 500 cm wide.")
    if not 0 <= arguments.speed <= 10_000:
        raise UsageError(f"--speed {arguments.speed:g}: 0 to 10000.")
    try:
        run(arguments.host, arguments.port, arguments.page, Plotter(arguments.wide, speed=arguments.speed))
    except OSError as error:
        raise UsageError(f"It cannot listen at {arguments.host}: {error.strerror or error}. Choose other ports.") from None
    return FINE


def _plot(arguments: argparse.Namespace) -> int:
    from widehem.core.output.roll import PlotError, Roll

    try:
        data = arguments.file.read_bytes()
    except OSError as error:
        raise UsageError(f"{arguments.file} cannot be read: {error.strerror}.") from None
    roll = Roll()
    try:
        lines = sum(1 for _ in roll.feed(data))
    except PlotError as error:
        raise UsageError(f"{arguments.file}: {error}") from None
    if not arguments.to:
        print(f"{lines} lines, {roll.paper:.1f} cm of paper, {roll.drawn:.0f} cm drawn, {roll.seconds:.0f} s for a pen.")
        return FINE
    from widehem.plotter_stand_in import send

    host, _, port = arguments.to.rpartition(":")
    if not host or not port.isdecimal():
        raise UsageError(f'--to "{arguments.to}" is not HOST:PORT.')
    try:
        send((host, int(port)), data)
    except OSError as error:
        print(f"The plotter at {arguments.to} does not take it: {error.strerror or error}.", file=sys.stderr)
        return REFUSED
    print(f"Sent: {roll.paper:.1f} cm of paper.")
    return FINE
