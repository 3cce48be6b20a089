"""The darted bodice on a body out of a figure table: five measures are read, all others follow from them."""

from __future__ import annotations

from widehem.core.body.chart import Chart, Reading
from widehem.core.body.estimates import estimate
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.bodice_measured import MENDS
from widehem.core.drafting.methods.bodice_measured import draw as draw_measured
from widehem.core.drafting.methods.bodice_options import DARTED, EASE
from widehem.core.drafting.sheet import Sheet
from widehem.core.units import Length, say, ticks_of

CUP_OFF, NECK_OFF = 5.0, 2.5  # cm by which a body may be off its table
READ = ("bust", "waist", "hip", "nape_waist", "height")


def by_the_table(chart: Chart) -> Chart:
    """The chart with only the five measures, everything else as the wearer's figure table has it."""
    read = Chart({code: chart.readings[code] for code in READ}, chart.foundation, chart.table)
    found = estimate(read, chart.table).found
    guesses = {code: Reading(code, Length(ticks_of(entry.cm), "", "cm")) for code, entry in found.items()}
    return Chart({**guesses, **read.readings}, chart.foundation, chart.table)


def draw(sheet: Sheet) -> None:
    sheet.note(
        say(
            f"Only five measures are this body's; neck, shoulder, chest and bust are those of the "
            f"{sheet.chart.table.name.lower()} figure table."
        )
    )
    _step_back(sheet)
    draw_measured(sheet)


def _step_back(sheet: Sheet) -> None:
    """Say plainly where the body is not one of the table's, as far as it was read."""
    read, table = sheet.read, sheet.chart
    if read is None:
        return
    bust, high, neck = (read.get(code) for code in ("bust", "high_bust", "neck"))
    wanted = table.get("bust"), table.get("high_bust"), table.get("neck")
    if bust is not None and high is not None and wanted[0] is not None and wanted[1] is not None:
        off, usual = bust - high, wanted[0] - wanted[1]
        if abs(off - usual) > CUP_OFF:
            sheet.note(
                say("Bust is {0} over high bust, the table has {1u}: this body is not one of its own. Draw the measured bodice.",
                    off, usual)
            )  # fmt: skip
    if neck is not None and wanted[2] is not None and abs(neck - wanted[2]) > NECK_OFF:
        sheet.note(
            say("Neck is {0}, the table has {1u}: this body is not one of its own. Draw the measured bodice.", neck, wanted[2])
        )


METHOD = register(
    Method(
        "bodice.proportional",
        "Darted bodice, proportional",
        "Bodices",
        "The same bodice from five measures and a figure table. Fewer measures, fewer mistakes; worse on bodies unlike the "
        "table.",
        (
            Need("bust", "the table is entered with it"),
            Need("waist", "the width at the waist"),
            Need("hip", "the table is entered with it"),
            Need("nape_waist", "the height of the waist line"),
            Need("height", "lengths follow from it"),
        ),
        tuple(option for option in DARTED if option.code not in ("side_seam",)),
        EASE,
        draw,
        rules=4,
        earlier=(1, 2, 3),
        body=by_the_table,
        mends=MENDS,
        has_armhole=True,
    )
)
