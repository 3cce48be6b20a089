"""Layers of a PDF: what a reader can switch on and off, one for each kind of line, and for each size where there are several."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from reportlab.pdfbase.pdfdoc import PDFArray, PDFDictionary, PDFName, PDFStream, PDFString, xObjectName
from reportlab.pdfgen.canvas import Canvas

from widehem.core.output.ink import KINDS, Ink
from widehem.core.output.pdf_pen import POINTS_PER_CM, draw_ink


class Layers:
    """The work as forms, each on a layer of its own, to be placed on every sheet."""

    def __init__(self, canvas: Canvas) -> None:
        self.canvas = canvas
        self.forms: list[str] = []
        self._groups: list[Any] = []

    def add(
        self, ink: Sequence[Ink], size: tuple[float, float], scale: float, of: str = "", dash: Sequence[float] = ()
    ) -> None:
        """Put ink on layers by its kind. size: of the work, cm of the garment; of: which size it is, where there are several; dash: of its
        cutting line, points."""
        for kind, title in KINDS.items():
            mine = [mark for mark in ink if mark.kind == kind]
            if mine:
                self._form(f"{of} {title}".strip(), f"work-{len(self.forms)}", mine, size, scale, dash)

    def _form(
        self, title: str, name: str, ink: Sequence[Ink], size: tuple[float, float], scale: float, dash: Sequence[float]
    ) -> None:
        wide, high = size[0] * scale * POINTS_PER_CM, size[1] * scale * POINTS_PER_CM
        self.canvas.beginForm(name, 0, -high, wide, 0)
        draw_ink(self.canvas, ink, scale, dash)
        self.canvas.endForm()
        document = self.canvas._doc
        group = document.Reference(PDFDictionary({"Type": PDFName("OCG"), "Name": PDFString(title)}))
        form = document.idToObject[xObjectName(name)]
        stream = PDFStream()
        stream.content = form.stream
        stream.dictionary["OC"] = group
        form.Contents = stream
        self.forms.append(name)
        self._groups.append(group)

    def draw(self) -> None:
        """Place the whole work about the upper left corner."""
        for name in self.forms:
            self.canvas.doForm(name)

    def told(self) -> None:
        """Tell the document which layers there are; before it is saved."""
        catalog = self.canvas._doc.Catalog
        usual = PDFDictionary({"Order": PDFArray(self._groups), "ON": PDFArray(self._groups)})
        catalog.OCProperties = PDFDictionary({"OCGs": PDFArray(self._groups), "D": usual})
        catalog.__NoDefault__ = [*catalog.__NoDefault__, "OCProperties"]
