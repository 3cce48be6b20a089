"""What is handed over, measured by programs that others wrote (`make readers`): poppler, pypdf, ezdxf; Inkscape and LibreCAD where they
can be had. Lengths agree to 0.2 mm at every scale, or it says where not."""

from __future__ import annotations

import io
import math
import os
import re
import shutil
import subprocess
import sys
import tempfile
import xml.etree.ElementTree as ET
from collections.abc import Iterator
from pathlib import Path

import ezdxf
from ezdxf.path import make_path
from fontTools.pens.recordingPen import RecordingPen
from fontTools.svgLib.path import parse_path
from pypdf import PdfReader
from shapely import LineString

import widehem.core.drafting.methods  # noqa: F401 - registers the methods
from tests.bodies import upper_build
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.dxf import pattern_dxf
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.sheets import PAPERS, SCALES, calibrated
from widehem.core.output.svg_pattern import pattern_svg

NEAR = 0.2  # mm
STEPS = 0.02  # mm: of a line that is measured, so that the rounding of a reader does not add up along it
PT = 25.4 / 72
CODES = ("waistcoat", "trousers", "dress")


def lengths_in(svg: bytes, unit: tuple[float, float]) -> list[float]:
    """The lengths of all closed lines of a drawing, mm. unit: mm of one of its own, across and down."""
    found = []
    for element in ET.fromstring(svg).iter():
        if str(element.tag).endswith("}path") and "Z" in element.get("d", "").upper():
            pen = RecordingPen()
            parse_path(element.get("d"), pen)
            spots = [args[-1] for _, args in pen.value if args]
            numbers = [float(n) for n in re.findall(r"-?[\d.]+", element.get("transform") or "")]
            wide, high = (abs(numbers[n]) * unit[n % 2] for n in (0, 3)) if len(numbers) == 6 else unit
            line = LineString([(x * wide, y * high) for x, y in [*spots, spots[0]]]) if len(spots) > 2 else None
            found.append(line.simplify(STEPS).length if line is not None else 0.0)  # poppler writes in 256ths of a point
    return found


def by_page(file: Path, times: float = 1.0) -> tuple[float, float]:
    """Millimetres of a unit of the drawing that poppler makes of a page: it draws on whole points, and shrinks them to the page."""
    box = PdfReader(file).pages[0].mediabox
    wide, high = float(box.width), float(box.height)
    unit = PT * times * max(math.ceil(wide) / wide, math.ceil(high) / high)
    return unit, unit


def nearest(wanted: list[float], found: list[float]) -> float:
    """How far off, mm, at the most, what was wanted is from what was found nearest to it."""
    return max(min(abs(w - f) for f in found) for w in wanted)


def run(*command: str) -> bytes:
    return subprocess.run(command, check=True, capture_output=True, timeout=300).stdout


def told(what: str, off: float) -> bool:
    good = off <= NEAR
    print(f"{'   ' if good else 'BAD'} {what}: {off:.3f} mm off at the most", flush=True)
    return good


def by_poppler(code: str, folder: Path) -> Iterator[bool]:
    """The big page drawn again by poppler: every cutting line is as long as it should be."""
    pattern = mark_up(make(shipped()[code].design, upper_build()), PLANS["cloth"])
    for name, scale in SCALES.items():
        rings = [
            LineString([(p.x * 10 * scale, p.y * 10 * scale) for p in [*m.cut, m.cut[0]]]).simplify(STEPS).length
            for m in pattern.pieces
        ]
        file = folder / "one.pdf"
        file.write_bytes(sheets_pdf(pattern, PAPERS["one"], scale))
        svg = folder / "one.svg"
        run("pdftocairo", "-svg", str(file), str(svg))
        found = lengths_in(svg.read_bytes(), by_page(file))
        yield told(f"poppler, PDF of {code} at {name}", nearest(rings, found))
    paper = calibrated(PAPERS["one"], 4.9, 4.9)
    file.write_bytes(sheets_pdf(pattern, paper, 1.0))
    run("pdftocairo", "-svg", str(file), str(svg))
    rings = [LineString([(p.x * 10, p.y * 10) for p in [*m.cut, m.cut[0]]]).simplify(STEPS).length for m in pattern.pieces]
    found = lengths_in(svg.read_bytes(), by_page(file, 0.98))
    yield told(f"poppler, PDF of {code} for a printer that shrinks by 2 %", nearest(rings, found))


def by_pypdf(code: str) -> Iterator[bool]:
    """Layers and sizes of pages."""
    pattern = mark_up(make(shipped()[code].design, upper_build()), PLANS["cloth"])
    for paper in ("a4", "a3", "letter", "tabloid", "a0"):
        reader = PdfReader(io.BytesIO(sheets_pdf(pattern, PAPERS[paper])))
        box = reader.pages[1].mediabox
        off = max(
            abs(float(box.width) * PT - PAPERS[paper].width * 10), abs(float(box.height) * PT - PAPERS[paper].height * 10)
        )
        layers = len(reader.trailer["/Root"]["/OCProperties"]["/OCGs"])
        yield told(f"pypdf, {len(reader.pages)} pages of {paper} of {code}, {layers} layers", off)


def by_ezdxf(code: str) -> Iterator[bool]:
    """An audit, and the length of every cutting line."""
    pattern = mark_up(make(shipped()[code].design, upper_build()), PLANS["cloth"])
    for name, scale in SCALES.items():
        drawing = ezdxf.read(io.StringIO(pattern_dxf(pattern, scale).decode()))
        audit = drawing.audit()
        off = 0.0
        for marked in pattern.pieces:
            ring = LineString([*marked.cut, marked.cut[0]]).length * 10 * scale
            drawn = [e for e in drawing.blocks[marked.piece.name] if e.dxf.layer == "1"]
            off = max(off, abs(LineString([(p.x, p.y) for p in make_path(drawn[0]).flattening(0.001)]).length - ring))
        yield told(f"ezdxf, DXF of {code} at {name}, {len(audit.errors)} errors", off + 99 * len(audit.errors))


def by_inkscape(code: str, folder: Path) -> Iterator[bool]:
    """The drawing as Inkscape measures it: every piece as wide and as high as it should be, in mm."""
    pattern = mark_up(make(shipped()[code].design, upper_build()), PLANS["cloth"])
    for name, scale in SCALES.items():
        file = folder / "pattern.svg"
        file.write_text(pattern_svg(pattern, scale))
        rows = run("inkscape", "--query-all", str(file)).decode().splitlines()
        found = {row.split(",")[0]: [float(n) * 25.4 / 96 for n in row.split(",")[1:5]] for row in rows if row.count(",") == 4}
        wide, high = found["test-5cm"][2:]
        yield told(f"Inkscape, test square in the SVG of {code} at {name}", max(abs(wide - 50.35), abs(high - 50.35)))


def by_librecad(code: str, folder: Path) -> Iterator[bool]:
    """The DXF printed by LibreCAD, and measured by poppler."""
    pattern = mark_up(make(shipped()[code].design, upper_build()), PLANS["cloth"])
    file, out = folder / "pattern.dxf", folder / "pattern.pdf"
    file.write_bytes(pattern_dxf(pattern))
    run("librecad", "dxf2pdf", "-o", str(out), str(file))
    run("pdftocairo", "-svg", str(out), str(folder / "cad.svg"))
    yield told(f"LibreCAD opens the DXF of {code}", 0.0 if out.stat().st_size > 1000 else 99.0)


def have(program: str) -> bool:
    """Whether a program is there; it is installed where that can be done."""
    if shutil.which(program) is None and shutil.which("apt-get") and os.geteuid() == 0:
        print(f"    installing {program} with apt-get", flush=True)
        subprocess.run(
            ["apt-get", "install", "-y", "-qq", "--no-install-recommends", program], capture_output=True, check=False
        )
    if shutil.which(program) is None:
        print(f"    {program} is not here and cannot be had: left out", flush=True)
        return False
    return True


def main() -> int:
    good: list[bool] = []
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    inkscape, librecad = have("inkscape"), have("librecad")
    for code in CODES:
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            good += [*by_poppler(code, folder), *by_pypdf(code), *by_ezdxf(code)]
            good += [*(by_inkscape(code, folder) if inkscape else ()), *(by_librecad(code, folder) if librecad else ())]
    print(f"{sum(good)} of {len(good)} good")
    return 0 if all(good) else 1


if __name__ == "__main__":
    sys.exit(main())
