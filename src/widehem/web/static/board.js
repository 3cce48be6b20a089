// The table of the draft: closer and further, panning, asking a line for its working, measuring between two points.
// Everything that is drawn comes from the server; here it is only looked at.
(function () {
  "use strict";

  const SVG = "http://www.w3.org/2000/svg";
  const CLOSEST = 60; // pixels to a centimetre
  const FURTHEST = 2;
  const SNAP = 16; // pixels
  const AIR = 10; // pixels above and below, for letters
  const kept = { work: null, view: null, box: null, off: [], taping: false };

  function lengthText(cm, unit, parts) {
    if (unit === "cm") return cm.toFixed(1).replace("-", "−");
    const count = Math.round((Math.abs(cm) / 2.54) * parts);
    const whole = Math.floor(count / parts);
    let over = count % parts;
    let under = parts;
    while (over && over % 2 === 0) {
      over /= 2;
      under /= 2;
    }
    const part = over ? over + "/" + under : "";
    const words = whole && part ? whole + " " + part : part || String(whole);
    return (cm < 0 && count ? "−" : "") + words;
  }

  function board() {
    return {
      name: "Point at a line or a letter",
      figure: "",
      working: "Its figure and how it came about stand here.",
      taping: false,
      pointers: new Map(),
      ends: [],

      init() {
        const root = this.$root;
        this.svg = this.$refs.board;
        this.unit = root.dataset.unit;
        this.parts = Number(root.dataset.fraction);
        this.frame = root.dataset.frame.split(" ").map(Number);
        const same = kept.work === root.dataset.work && kept.view === root.dataset.view && kept.box;
        kept.work = root.dataset.work;
        kept.view = root.dataset.view;
        this.taping = kept.taping;
        root.classList.toggle("taping", this.taping);
        for (const code of kept.off) {
          root.classList.add("no-" + code);
          const box = root.querySelector('.shows input[value="' + code + '"]');
          if (box) box.checked = false;
        }
        this.box = same ? kept.box : null;
        this.watch();
        this.size();
        this.resizing = new ResizeObserver(() => this.size());
        this.resizing.observe(this.svg);
      },

      destroy() {
        this.resizing.disconnect();
      },

      watch() {
        const svg = this.svg;
        svg.addEventListener("wheel", (event) => {
          event.preventDefault();
          this.zoom(Math.exp(-event.deltaY * 0.0016), event.clientX, event.clientY);
        }, { passive: false });
        svg.addEventListener("pointerdown", (event) => this.down(event));
        svg.addEventListener("pointermove", (event) => this.move(event));
        for (const end of ["pointerup", "pointercancel"]) svg.addEventListener(end, (event) => this.up(event, end === "pointerup"));
        svg.addEventListener("pointerover", (event) => this.tell(event.target.closest(".mark")));
        svg.addEventListener("keydown", (event) => this.key(event));
      },

      // ---- what part of the sheet is seen ----
      room() {
        return this.svg.clientWidth;
      },
      size() {
        if (!this.svg.clientWidth) return;
        if (!this.box || this.box.fitted) this.fitBox();
        else this.box.height = (this.box.width * this.svg.clientHeight) / this.svg.clientWidth;
        this.show();
      },
      fitBox() {
        const [left, top, wide, high] = this.frame;
        const scale = Math.min(this.room() / wide, (this.svg.clientHeight - 2 * AIR) / high);
        const aside = (this.svg.clientWidth / scale - wide) / 2;
        this.box = { left: left - aside, top: top - AIR / scale, width: this.svg.clientWidth / scale, height: this.svg.clientHeight / scale, fitted: true };
      },
      fit() {
        this.fitBox();
        this.show();
      },
      show() {
        const b = this.box;
        kept.box = b;
        this.svg.setAttribute("viewBox", [b.left, b.top, b.width, b.height].map((n) => n.toFixed(4)).join(" "));
        this.svg.style.setProperty("--u", (b.width / this.svg.clientWidth).toFixed(6));
        const lens = document.getElementById("magnifier");
        if (lens && lens.clientWidth) {
          const seen = lens.viewBox.baseVal;
          lens.style.setProperty("--u", (1 / Math.min(lens.clientWidth / seen.width, lens.clientHeight / seen.height)).toFixed(6));
        }
        this.rule();
        window.widehemLabels.soon(this.svg);
      },
      place(x, y) {
        const rect = this.svg.getBoundingClientRect();
        return { x: this.box.left + ((x - rect.left) / rect.width) * this.box.width, y: this.box.top + ((y - rect.top) / rect.height) * this.box.height };
      },
      zoom(by, x, y) {
        const b = this.box;
        const scale = this.svg.clientWidth / b.width;
        const factor = Math.max(FURTHEST, Math.min(CLOSEST, scale * by)) / scale;
        const at = this.place(x, y);
        this.box = { left: at.x - (at.x - b.left) / factor, top: at.y - (at.y - b.top) / factor, width: b.width / factor, height: b.height / factor, fitted: false };
        this.show();
      },
      middle(by) {
        const rect = this.svg.getBoundingClientRect();
        this.zoom(by, rect.left + this.room() / 2, rect.top + rect.height / 2);
      },
      closer() {
        this.middle(1.4);
      },
      further() {
        this.middle(1 / 1.4);
      },
      pan(dx, dy) {
        const scale = this.svg.clientWidth / this.box.width;
        this.box = Object.assign({}, this.box, { left: this.box.left - dx / scale, top: this.box.top - dy / scale, fitted: false });
        this.show();
      },

      // ---- the tape along the top ----
      rule() {
        const ruler = this.$refs.ruler;
        const wide = this.svg.clientWidth;
        const step = this.unit === "cm" ? 1 : 2.54;
        const scale = wide / this.box.width;
        const named = [1, 2, 5, 10, 20, 50].find((n) => n * step * scale > 34) || 100;
        const fine = step * scale > 5 ? 1 : named;
        ruler.replaceChildren();
        const first = Math.ceil(this.box.left / step / fine) * fine;
        for (let n = first; n * step < this.box.left + this.box.width; n += fine) {
          const x = ((n * step - this.box.left) * scale).toFixed(1);
          const tick = document.createElementNS(SVG, "line");
          const big = n % named === 0;
          for (const [name, value] of [["x1", x], ["x2", x], ["y1", big ? 13 : 16], ["y2", 20]]) tick.setAttribute(name, value);
          ruler.append(tick);
          if (big && n >= 0) {
            const text = document.createElementNS(SVG, "text");
            text.setAttribute("x", x);
            text.setAttribute("y", 11);
            text.textContent = String(n);
            ruler.append(text);
          }
        }
      },

      // ---- hands on the table ----
      down(event) {
        this.pointers.set(event.pointerId, { x: event.clientX, y: event.clientY, x0: event.clientX, y0: event.clientY });
        this.svg.setPointerCapture(event.pointerId);
      },
      move(event) {
        const was = this.pointers.get(event.pointerId);
        if (!was) return;
        const others = Array.from(this.pointers.entries()).filter((entry) => entry[0] !== event.pointerId);
        if (others.length) {
          const other = others[0][1];
          const before = Math.hypot(was.x - other.x, was.y - other.y);
          const after = Math.hypot(event.clientX - other.x, event.clientY - other.y);
          if (before > 0) this.zoom(after / before, (event.clientX + other.x) / 2, (event.clientY + other.y) / 2);
        } else if (Math.hypot(event.clientX - was.x0, event.clientY - was.y0) > 4 || was.moved) {
          was.moved = true;
          this.svg.classList.add("panning");
          this.pan(event.clientX - was.x, event.clientY - was.y);
        }
        was.x = event.clientX;
        was.y = event.clientY;
      },
      up(event, lifted) {
        const was = this.pointers.get(event.pointerId);
        this.pointers.delete(event.pointerId);
        this.svg.classList.remove("panning");
        if (!was || was.moved || !lifted) return;
        const under = document.elementFromPoint(event.clientX, event.clientY);
        if (this.taping) this.end(event.clientX, event.clientY);
        else this.tell(under && under.closest(".mark"));
      },
      key(event) {
        const arrows = { ArrowLeft: [40, 0], ArrowRight: [-40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] };
        if (arrows[event.key]) {
          this.pan(arrows[event.key][0], arrows[event.key][1]);
        } else if (event.key === "Enter") {
          const marks = Array.from(this.svg.querySelectorAll(".mark"));
          const at = marks.findIndex((mark) => mark.classList.contains("held"));
          this.tell(marks[(at + (event.shiftKey ? -1 : 1) + marks.length) % marks.length]);
        } else {
          return;
        }
        event.preventDefault();
        event.stopPropagation();
      },

      // ---- name, figure, working ----
      tell(mark) {
        if (!mark || this.taping) return;
        for (const other of this.svg.querySelectorAll(".held")) other.classList.remove("held");
        mark.classList.add("held");
        const data = mark.dataset;
        this.name = (data.letter ? data.letter + "  " : "") + data.name;
        this.figure = data.figure || "";
        if (data.working) this.working = "= " + data.working;
        else if (data.x) this.working = this.text(Number(data.x)) + " across, " + this.text(Number(data.y)) + " down";
        else this.working = data.figure ? "measured along the drawing" : "a guide line";
      },
      text(cm) {
        return lengthText(cm, this.unit, this.parts);
      },

      // ---- measuring between two points ----
      tapeOn() {
        this.taping = kept.taping = !this.taping;
        this.$root.classList.toggle("taping", this.taping);
        this.ends = [];
        this.$refs.tape.replaceChildren();
        this.name = this.taping ? "Tap two points" : "Point at a line or a letter";
        this.figure = "";
        this.working = this.taping ? "A letter nearby is taken exactly." : "Its figure and how it came about stand here.";
      },
      end(x, y) {
        if (this.ends.length === 2) {
          this.ends = [];
          this.$refs.tape.replaceChildren();
        }
        this.ends.push(this.nearest(x, y));
        for (const end of this.ends.slice(-1)) this.dot(end);
        if (this.ends.length < 2) {
          this.name = "From " + this.ends[0].name;
          this.figure = "";
          this.working = "Tap the second point.";
          return;
        }
        const [a, b] = this.ends;
        for (let i = 0; i < 2; i++) {
          const line = document.createElementNS(SVG, "line");
          for (const [name, value] of [["x1", a.x], ["y1", a.y], ["x2", b.x], ["y2", b.y], ["class", "tape-line"]]) line.setAttribute(name, value);
          this.$refs.tape.prepend(line);
          if (i === 1) this.$refs.tape.prepend(this.$refs.tape.children[1]);
        }
        this.name = a.name + " to " + b.name;
        this.figure = this.text(Math.hypot(b.x - a.x, b.y - a.y)) + " " + this.unit;
        this.working = this.text(Math.abs(b.x - a.x)) + " across, " + this.text(Math.abs(b.y - a.y)) + " down";
      },
      nearest(x, y) {
        const here = this.place(x, y);
        const scale = this.svg.clientWidth / this.box.width;
        let best = { x: here.x, y: here.y, name: "a spot" };
        let least = SNAP / scale;
        for (const mark of this.svg.querySelectorAll(".point")) {
          const px = Number(mark.dataset.x);
          const py = Number(mark.dataset.y);
          const far = Math.hypot(px - here.x, py - here.y);
          if (far < least) {
            least = far;
            best = { x: px, y: py, name: mark.dataset.letter || mark.dataset.name };
          }
        }
        return best;
      },
      dot(end) {
        const group = document.createElementNS(SVG, "g");
        group.setAttribute("transform", "translate(" + end.x + " " + end.y + ")");
        const inner = document.createElementNS(SVG, "g");
        inner.setAttribute("class", "px");
        const dot = document.createElementNS(SVG, "circle");
        dot.setAttribute("r", "5");
        dot.setAttribute("class", "tape-dot");
        inner.append(dot);
        group.append(inner);
        this.$refs.tape.append(group);
      },

      // ---- switches ----
      shows(event) {
        const code = event.target.value;
        this.$root.classList.toggle("no-" + code, !event.target.checked);
        kept.off = kept.off.filter((other) => other !== code);
        if (!event.target.checked) kept.off.push(code);
        window.widehemLabels.soon(this.svg);
      },
      alone() {
        document.body.classList.toggle("table-alone");
      },
    };
  }

  document.addEventListener("alpine:init", () => window.Alpine.data("board", board));
})();
