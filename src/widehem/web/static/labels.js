// Words of the drawing keep off its lines and off each other: each is tried in a few places near its own, and one that has
// none is left out until there is room. Which words there are, and where they begin, comes from the server.
(function () {
  "use strict";
  const STEP = 5; // pixels between two places of a line that are looked at
  const CELL = 24; // pixels of a cell in which they are found again
  const WAIT = 60; // milliseconds after the last change of what is seen
  const MOST = 24; // spots of lines a letter may touch at most before it is left out
  const FEW = 6; // and other words
  const timers = new WeakMap();

  // every line that is seen, as spots on the screen, by cells
  function spotsOf(svg) {
    const cells = new Map();
    const frame = svg.getBoundingClientRect();
    const lines = svg.querySelectorAll(".mark path:not(.hit), .l-fresh-dim, .flag-line");
    for (const line of lines) {
      if (line.closest("defs") || !line.getClientRects().length || getComputedStyle(line).display === "none") continue;
      const to = line.getScreenCTM();
      if (!to) continue;
      const long = line.getTotalLength();
      const steps = Math.max(1, Math.ceil((long * Math.hypot(to.a, to.b)) / STEP));
      if (steps > 900) continue; // far beyond what is seen
      for (let n = 0; n <= steps; n++) {
        const at = line.getPointAtLength((long * n) / steps);
        const x = at.x * to.a + at.y * to.c + to.e;
        const y = at.x * to.b + at.y * to.d + to.f;
        if (x < frame.left || x > frame.right || y < frame.top || y > frame.bottom) continue;
        put(cells, x, y, [x, y]);
      }
    }
    for (const dot of svg.querySelectorAll(".pt, .flag")) {
      const box = dot.getBoundingClientRect();
      if (!box.width) continue;
      for (const x of [box.left, (box.left + box.right) / 2, box.right]) for (const y of [box.top, (box.top + box.bottom) / 2, box.bottom]) put(cells, x, y, [x, y]);
    }
    return cells;
  }
  function put(cells, x, y, spot) {
    const key = Math.floor(x / CELL) * 65536 + Math.floor(y / CELL);
    const there = cells.get(key);
    if (there) there.push(spot);
    else cells.set(key, [spot]);
  }

  // a word as a box that may be turned: middle, half its width and height, and the way it runs
  function boxOf(text, dx, dy) {
    const own = text.getBBox();
    const to = text.getScreenCTM();
    const scale = Math.hypot(to.a, to.b);
    const x = own.x + own.width / 2 + dx;
    const y = own.y + own.height / 2 + dy;
    return {
      x: x * to.a + y * to.c + to.e,
      y: x * to.b + y * to.d + to.f,
      wide: (own.width / 2) * scale + 1,
      high: (own.height / 2) * scale - 2,
      ux: to.a / scale,
      uy: to.b / scale,
    };
  }
  function touched(box, cells) {
    const reach = Math.abs(box.ux) * box.wide + Math.abs(box.uy) * box.high;
    const rise = Math.abs(box.uy) * box.wide + Math.abs(box.ux) * box.high;
    let count = 0;
    for (let i = Math.floor((box.x - reach) / CELL); i <= Math.floor((box.x + reach) / CELL); i++) {
      for (let j = Math.floor((box.y - rise) / CELL); j <= Math.floor((box.y + rise) / CELL); j++) {
        for (const [x, y] of cells.get(i * 65536 + j) || []) {
          const along = (x - box.x) * box.ux + (y - box.y) * box.uy;
          const across = -(x - box.x) * box.uy + (y - box.y) * box.ux;
          if (Math.abs(along) < box.wide && Math.abs(across) < box.high) count += 1;
        }
      }
    }
    return count;
  }
  function corners(box) {
    const found = [];
    for (const [a, b] of [[-1, -1], [1, -1], [1, 1], [-1, 1]]) {
      const along = a * box.wide;
      const across = b * box.high;
      found.push([box.x + along * box.ux - across * box.uy, box.y + along * box.uy + across * box.ux]);
    }
    return found;
  }
  function apart(one, other) {
    for (const [ux, uy] of [[one.ux, one.uy], [-one.uy, one.ux], [other.ux, other.uy], [-other.uy, other.ux]]) {
      const [a, b] = [one, other].map((box) => corners(box).map(([x, y]) => x * ux + y * uy));
      if (Math.max(...a) < Math.min(...b) || Math.max(...b) < Math.min(...a)) return true;
    }
    return false;
  }

  // where a word may go, from its own place on: letters round their point, words along their line and over to its other side,
  // names wherever their piece is empty
  function tries(text) {
    const own = text.getBBox();
    if (text.classList.contains("t-point")) {
      const x = Number(text.getAttribute("x")) || 0;
      const y = Number(text.getAttribute("y")) || 0;
      const ring = [[14, -7], [-14, -7], [14, 15], [-14, 15], [0, -11], [0, 20], [17, 5], [-17, 5], [24, -14], [-24, -14], [24, 22], [-24, 22], [0, -24], [0, 32]];
      return [[0, 0], ...ring.map(([a, b]) => [a - x, b - y])];
    }
    const found = [[0, 0]];
    if (text.classList.contains("t-name")) {
      for (let a = -72; a <= 72; a += 12) for (let b = -128; b <= 128; b += 16) found.push([a, b]);
      found.sort((one, other) => Math.hypot(one[0], one[1]) - Math.hypot(other[0], other[1]));
      return found;
    }
    const y = Number(text.getAttribute("y")) || 0;
    const over = y < 0 ? own.height + 4 : -own.height - 4;
    const far = text.classList.contains("t-start") ? 2 : 4; // what names a level stays at its end
    for (let n = 0; n < far; n++) {
      for (const sign of n ? [1, -1] : [1]) {
        if (n) found.push([sign * n * 22, 0]);
        found.push([sign * n * 22, over]);
      }
    }
    return found;
  }

  // the piece a name belongs to: it stays on it
  function pieceOf(svg, name) {
    const at = boxOf(name, 0, 0);
    return Array.from(svg.querySelectorAll(".piece")).find((piece) => holds(piece, at)) || null;
  }
  function holds(piece, at) {
    const own = new DOMPoint(at.x, at.y).matrixTransform(piece.getScreenCTM().inverse());
    return piece.isPointInFill(own);
  }
  function within(box, frame) {
    return corners(box).every(([x, y]) => x >= frame.left && x <= frame.right && y >= frame.top && y <= frame.bottom);
  }

  const RANK = ["t-name", "t-fresh", "t-point", "t-figure"];
  const rank = (text) => {
    const at = RANK.findIndex((name) => text.classList.contains(name));
    return at < 0 ? RANK.length : at;
  };

  function lay(svg) {
    if (!svg.isConnected || !svg.clientWidth) return;
    const words = Array.from(svg.querySelectorAll(".px text:not(.flag-n)"));
    for (const text of words) {
      text.removeAttribute("transform");
      text.classList.remove("label-off", "t-less");
    }
    const seen = words.filter((text) => text.getClientRects().length && text.textContent.trim());
    const cells = spotsOf(svg);
    const laid = [];
    for (const flag of svg.querySelectorAll(".flag")) {
      const box = flag.getBoundingClientRect();
      laid.push({ x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2, wide: box.width / 2, high: box.height / 2, ux: 1, uy: 0 });
    }
    const frame = svg.getBoundingClientRect();
    for (const text of seen.sort((a, b) => rank(a) - rank(b))) {
      if (text.previousElementSibling && text.previousElementSibling.classList.contains("t-name")) continue; // goes with the name
      const piece = text.classList.contains("t-name") ? pieceOf(svg, text) : null;
      let best = bestFor(text, piece, laid, cells, frame);
      if (piece && (!best || best.cost)) {
        text.classList.add("t-less"); // a small piece has a small name
        best = bestFor(text, piece, laid, cells, frame) || best;
      }
      if (!best || (best.cost > (text.classList.contains("t-point") ? MOST : FEW) && !text.classList.contains("t-name"))) {
        text.classList.add("label-off");
        continue;
      }
      if (best.dx || best.dy) text.setAttribute("transform", "translate(" + best.dx + " " + best.dy + ")");
      laid.push(best.box);
      under(text, best, laid, cells);
    }
  }

  // the place that touches least; null where every one of them is taken
  function bestFor(text, piece, laid, cells, frame) {
    const outside = !within(boxOf(text, 0, 0), frame); // as when the table is looked at closely
    let best = null;
    for (const [dx, dy] of tries(text)) {
      const box = boxOf(text, dx, dy);
      if (laid.some((other) => !apart(box, other)) || (!outside && !within(box, frame))) continue;
      if (piece && !holds(piece, box)) continue;
      const spill = piece ? corners(box).filter(([x, y]) => !holds(piece, { x, y })).length : 0;
      const cost = touched(box, cells) + 4 * spill;
      if (!best || cost < best.cost) best = { cost, dx, dy, box };
      if (!cost) break;
    }
    return best;
  }

  // the words under a name go where it goes, or away
  function under(name, best, laid, cells) {
    const note = name.classList.contains("t-name") ? name.nextElementSibling : null;
    if (!note) return;
    const box = boxOf(note, best.dx, best.dy);
    if (touched(box, cells) || laid.some((other) => other !== best.box && !apart(box, other))) note.classList.add("label-off");
    else {
      note.setAttribute("transform", "translate(" + best.dx + " " + best.dy + ")");
      laid.push(box);
    }
  }

  function soon(svg) {
    clearTimeout(timers.get(svg));
    timers.set(svg, setTimeout(() => lay(svg), WAIT));
  }

  window.widehemLabels = { soon, lay };
})();
