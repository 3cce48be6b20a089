"""Drawing the finished edges and darts of a piece on the sheet."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from widehem.core.drafting.sheet import Sheet
from widehem.core.geometry.paths import Path
from widehem.core.pattern.edge import Held
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import drawn


def show_edges(
    sheet: Sheet, piece: Piece, names: Sequence[str], titles: Mapping[str, str], letters: Mapping[str, str] | None = None
) -> None:
    """Draw these edges of a piece with their darts. titles: words for an edge where its name will not do; letters: for the
    darts of an edge."""
    whose = piece.name.replace("_", " ")
    for name in names:
        edge = piece.edge(name)
        words = titles.get(name, name.replace("_", " "))
        figure = drawn(edge.length, f"{whose} {words}")
        for number, part in enumerate(edge.parts, 1):
            title = words.capitalize() if name.startswith("centre") else f"{whose.capitalize()} {words}"
            sheet.line(
                f"{piece.name}_{name}_{number}", title, part, role="finished", figure=figure, piece=piece.name, edge=name
            )
        for gap in edge.gaps:
            if isinstance(gap, Held):
                held = drawn(gap.mouth, f"{whose} {words}, eased in")
                sheet.line(
                    f"{piece.name}_{gap.name}", f"{whose.capitalize()} {words}, eased in", gap.line, role="finished", figure=held,
                    piece=piece.name, edge=name,
                )  # fmt: skip
        for dart, letter in zip(edge.darts, (letters or {}).get(name, "Y" * len(edge.darts)), strict=False):
            takes = drawn(dart.intake, f"{whose} dart {letter}")
            sheet.draw_dart(dart, f"{whose.capitalize()} dart {letter}, {words}", letter, takes, piece.name)


def show_inside(sheet: Sheet, piece: Piece, steps: Mapping[str, int] | None = None) -> None:
    """Draw the diamonds and the lines that lie inside a piece. steps: of lines that are drawn earlier."""
    whose = piece.name.replace("_", " ")
    for diamond in piece.diamonds:
        takes = drawn(diamond.intake, f"{whose} dart")
        sheet.line(f"{piece.name}_{diamond.name}", f"{whose.capitalize()} dart", diamond.path, role="finished", figure=takes,
            piece=piece.name, edge=diamond.name)  # fmt: skip
    for line in piece.lines:
        sheet.line(
            f"{piece.name}_{line.name}",
            line.title,
            line.path,
            role="balance",
            piece=piece.name,
            step=(steps or {}).get(line.name, 0),
        )


def show_lightly(sheet: Sheet, piece: Piece, names: Sequence[str], step: int) -> None:
    """Draw edges of a piece in pencil at an earlier step; from the current step on they are gone, drawn over."""
    for edge in (edge for edge in piece.edges if edge.name in names):
        for number, part in enumerate(edge.parts, 1):
            name = f"{piece.name}_{edge.name}_pencil_{number}"
            sheet.line(name, f"{piece.title}, {edge.name.replace('_', ' ')}", part, piece=piece.name, step=step)
            sheet.rub_out(name)


def show_levels(sheet: Sheet, piece: Piece, levels: Mapping[str, int]) -> None:
    """Draw balance lines of a piece across its cloth. levels: the step of each."""
    for level, step in levels.items():
        if level in piece.levels:
            stretches = piece.stretches(level)
            line = Path.through(stretches[0][0], stretches[-1][1])
            figure = drawn(piece.across(level), f"{piece.name.replace('_', ' ')} {level}")
            sheet.line(
                f"{piece.name}_{level}", level.capitalize(), line, role="balance", kind="level", edge=level, piece=piece.name,
                    figure=figure, step=step
            )  # fmt: skip
