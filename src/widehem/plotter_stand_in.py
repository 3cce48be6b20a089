"""A stand-in for a plotter: it takes plot files on a TCP port, draws them on a virtual roll as fast as a pen could, and shows the roll
on a page of its own. Its paper can jam; whoever sends then waits until it is cleared, and nothing of the file is lost."""

from __future__ import annotations

import socket
import socketserver
import threading
import time
from collections.abc import Callable
from html import escape
from importlib.resources import files
from typing import Any

from flask import Flask, Response, redirect, render_template_string, request, send_from_directory

from widehem.core.output.roll import Drawn, PlotError, Roll

PART = 1024  # bytes that are read at a time
MOST_DRAWN = 60_000  # lines on the roll before the oldest are torn off
MARGIN = 2.0  # cm round the work on the page
LOOK = 0.05  # seconds between looks whether the paper is clear


class Plotter:
    """The device. speed: how many times as fast as a pen it draws, 0 at once. paper: on the roll, cm; wide: of it."""

    def __init__(self, wide: float = 91.4, paper: float = 5000.0, speed: float = 20.0) -> None:
        self.wide, self.whole, self.speed = wide, paper, speed
        self.left = paper
        self.roll = Roll()
        self.drawn: list[Drawn] = []
        self.jobs = 0
        self.trouble = ""
        self.jam_at: float | None = None  # cm into the next work, at which the paper jams
        self._clear = threading.Event()
        self._clear.set()
        self._lock = threading.Lock()

    @property
    def jammed(self) -> bool:
        return not self._clear.is_set()

    def jam(self) -> None:
        """The paper jams: the pen stops where it is."""
        self._clear.clear()

    def resume(self) -> None:
        """The paper is clear: it goes on where it stopped."""
        self.jam_at = None
        self._clear.set()

    def new_roll(self) -> None:
        """Take off what is drawn and put on a new roll."""
        with self._lock:
            self.drawn, self.left, self.trouble = [], self.whole, ""
            self.roll = Roll()

    def begin(self) -> None:
        """The next file begins on clean paper."""
        with self._lock:
            self.left -= self.roll.paper
            self.roll, self.drawn, self.trouble = Roll(), [], ""
            self.jobs += 1

    def take(self, data: bytes, wait: Callable[[float], None] = time.sleep) -> None:
        """Draw what comes. Returns when it is drawn; raises PlotError for what is no plot file, or does not fit."""
        for line in self.roll.feed(data):
            while self.jammed:
                wait(LOOK)
            across = max((spot.y for spot in line.points), default=0.0)
            if not line.words and across > self.wide + 1e-6:
                raise PlotError(f"The work is {across:.1f} cm wide, the roll {self.wide:g}: lay it on a wider roll.")
            if self.roll.paper > self.left:
                raise PlotError(f"The paper is at an end after {self.left:.0f} cm: put on a new roll and send it again.")
            with self._lock:
                self.drawn.append(line)
                del self.drawn[:-MOST_DRAWN]
            if self.speed and line.seconds:
                wait(line.seconds / self.speed)
            if self.jam_at is not None and self.roll.paper >= self.jam_at:
                self.jam()

    def svg(self) -> str:
        """The roll as it is drawn so far, unwinding to the right."""
        with self._lock:
            drawn, length = list(self.drawn), max(self.roll.paper, 30.0)
        rows = []
        for line in drawn:
            if line.words:
                spot = line.points[0]
                turned = f"rotate({-line.turn:.1f} {spot.x:.2f} {self.wide - spot.y:.2f})"
                rows.append(
                    f'<text x="{spot.x:.2f}" y="{self.wide - spot.y:.2f}" font-size="{line.size:.2f}" text-anchor="middle" '
                    f'transform="{turned}">{escape(line.words)}</text>'
                )
            else:
                way = "L".join(f"{p.x:.2f} {self.wide - p.y:.2f}" for p in line.points)
                rows.append(f'<path class="pen-{line.pen}" d="M{way}"/>')
        return (
            f'<svg class="roll" viewBox="{-MARGIN} {-MARGIN} {length + 2 * MARGIN:.1f} {self.wide + 2 * MARGIN:.1f}" role="img" '
            f'aria-label="The roll, {self.roll.paper:.0f} cm of it drawn on"><rect class="paper" x="0" y="0" width="{length:.1f}" '
            f'height="{self.wide:g}"/>{"".join(rows)}</svg>'
        )


class _Taking(socketserver.BaseRequestHandler):
    """Whoever sends to the device."""

    server: _Door

    def handle(self) -> None:
        plotter = self.server.plotter
        with self.server.one_at_a_time:
            plotter.begin()
            try:
                while part := self.request.recv(PART):
                    plotter.take(part)
            except PlotError as error:
                plotter.trouble = str(error)
            except OSError:
                plotter.trouble = "Whoever sent it hung up in the middle."
            if not plotter.trouble and not plotter.roll.ended:
                plotter.trouble = "The file broke off before its end."


class _Door(socketserver.ThreadingTCPServer):
    allow_reuse_address, daemon_threads = True, True

    def __init__(self, address: tuple[str, int], plotter: Plotter) -> None:
        self.plotter, self.one_at_a_time = plotter, threading.Lock()
        super().__init__(address, _Taking)


def listen(plotter: Plotter, host: str, port: int) -> _Door:
    """Let the device take files on a port; 0 for any that is free. It listens until it is shut down."""
    door = _Door((host, port), plotter)
    threading.Thread(target=door.serve_forever, kwargs={"poll_interval": 0.1}, daemon=True).start()
    return door


PAGE = """<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>Plotter, a stand-in</title><meta http-equiv="refresh" content="1"><link rel="stylesheet" href="/tokens.css"><link rel="stylesheet"
href="/roll.css"></head><body><h1>Plotter, a stand-in</h1><p id="state" role="status">{{ state }}</p>{% if plotter.trouble %}<p class="wrong"
role="alert">{{ plotter.trouble }}</p>{% endif %}<dl><div><dt>Paper drawn on</dt><dd id="paper">{{ '%.1f'|format(plotter.roll.paper) }} cm</dd></div>
<div><dt>Left on the roll</dt><dd>{{ '%.0f'|format(plotter.left - plotter.roll.paper) }} cm</dd></div><div><dt>Drawn</dt><dd>{{
'%.0f'|format(plotter.roll.drawn) }} cm</dd></div><div><dt>A pen would have taken</dt><dd>{{ '%d:%02d'|format(plotter.roll.seconds // 60,
plotter.roll.seconds % 60) }}</dd></div><div><dt>Orders it does not know</dt><dd>{{ plotter.roll.passed_over }}</dd></div></dl>
<form method="post" action="/do">{% if plotter.jammed %}<button name="what" value="resume">The paper is clear: go on</button>{% else
%}<button name="what" value="jam">Let the paper jam</button>{% endif %}<button name="what" value="new">Put on a new roll</button></form>
{{ svg|safe }}</body></html>"""
STYLE = """body{margin:0;padding:18px 22px;background:var(--wh-card,#f0e7d3);color:var(--wh-ink,#16213e);font-family:"Hanken Grotesk",sans-serif}
h1{font-family:Besley,serif;font-size:24px;margin:0}dl{display:flex;flex-wrap:wrap;gap:8px 34px;margin:10px 0}dt{font-size:13px}dd{margin:0;font-size:20px}
form{display:flex;gap:8px;margin:0 0 14px}button{font:inherit;padding:9px 14px;min-height:44px;cursor:pointer}.wrong{font-weight:700}
.roll{width:100%;max-height:66vh;display:block}.roll .paper{fill:#fff;stroke:#8a8272;stroke-width:.2}
.roll path{fill:none;stroke:#16213e;stroke-width:.12}.roll .pen-1{stroke-width:.28}.roll .pen-2{stroke:#1e4c8a}.roll .pen-3{stroke:#6a665c}
.roll text{fill:#16213e}"""


def page(plotter: Plotter, host: str, port: int) -> Flask:
    """The page of the device."""
    app = Flask("plotter_stand_in", static_folder=None)

    @app.get("/")
    def show() -> str:
        state = "The paper is jammed: whoever sends waits." if plotter.jammed else f"Ready, listening at {host}:{port}."
        if plotter.jobs and not plotter.roll.ended and not plotter.trouble and not plotter.jammed:
            state = "Drawing."
        return render_template_string(PAGE, plotter=plotter, state=state, svg=plotter.svg())

    @app.post("/do")
    def do() -> Any:
        {"jam": plotter.jam, "resume": plotter.resume, "new": plotter.new_roll}.get(
            request.form.get("what", ""), lambda: None
        )()
        return redirect("/", 303)

    @app.get("/roll.css")
    def style() -> Response:
        return Response(STYLE, mimetype="text/css")

    @app.get("/fonts/<name>")
    def font(name: str) -> Response:
        return send_from_directory(str(files("widehem.web") / "static" / "fonts"), name)

    @app.get("/favicon.ico")
    def icon() -> Response:
        return Response(status=204)

    @app.get("/tokens.css")
    def tokens() -> Response:
        return Response((files("widehem.web") / "static" / "tokens.css").read_text(), mimetype="text/css")

    @app.after_request
    def guarded(answer: Response) -> Response:
        answer.headers["Content-Security-Policy"] = "default-src 'self'; frame-ancestors 'none'"
        return answer

    return app


def run(host: str, port: int, page_port: int, plotter: Plotter) -> None:
    """Be a plotter until somebody stops it. Raises OSError where a port is taken."""
    from waitress import serve

    door = listen(plotter, host, port)
    try:
        print(f"A stand-in for a plotter listens at {host}:{port}; its roll is shown at http://{host}:{page_port}", flush=True)
        serve(page(plotter, host, port), host=host, port=page_port, threads=4)
    finally:
        door.shutdown()


def send(address: tuple[str, int], data: bytes) -> None:
    """Send a plot file to a device, as a test does."""
    with socket.create_connection(address, timeout=10) as there:
        there.sendall(data)
