// Tracing a picture: points are set by pressing, they stand in the form, the line between them is only shown.
"use strict";

const traceState = () => ({
  board: document.getElementById("trace-board"),
  at: document.getElementById("trace-at"),
  scale: document.getElementById("trace-scale"),
  what: document.querySelector("#trace-form [name=what]:checked"),
});
const readRow = (field) => {
  try { return JSON.parse(field.value); } catch { return []; }
};
const traceDraw = () => {
  const { board, at, scale } = traceState();
  if (!board) return;
  const group = document.getElementById("trace-points"), size = board.viewBox.baseVal.width / 130;
  group.replaceChildren();
  const add = (x, y, kind) => {
    const dot = document.createElementNS("http://www.w3.org/2000/svg", kind === "corner" ? "rect" : "circle");
    if (kind === "corner") for (const [name, value] of [["x", x - size / 2], ["y", y - size / 2], ["width", size], ["height", size]]) dot.setAttribute(name, value);
    else for (const [name, value] of [["cx", x], ["cy", y], ["r", size / 2]]) dot.setAttribute(name, value);
    dot.setAttribute("class", `t-${kind}`);
    group.append(dot);
  };
  const points = readRow(at), ends = readRow(scale);
  for (const [x, y] of ends) add(x, y, "scale");
  for (const [x, y, corner] of points) add(x, y, corner ? "corner" : "curve");
  const row = points.map(([x, y]) => `${x} ${y}`);
  document.getElementById("trace-line").setAttribute("d", `${row.length ? `M${row.join("L")}${row.length > 2 ? "Z" : ""}` : ""}${ends.length === 2 ? `M${ends[0].join(" ")}L${ends[1].join(" ")}` : ""}`);
  const says = document.getElementById("trace-says");
  says.textContent = ends.length < 2 ? "First set both ends of something whose length is known" : `${points.length} points set${points.length < 3 ? ": go round the piece" : ""}`;
};
document.addEventListener("click", (event) => {
  const { board, at, scale, what } = traceState();
  if (!board || !board.contains(event.target)) {
    if (event.target.id === "trace-back") traceBack();
    return;
  }
  const spot = board.createSVGPoint();
  spot.x = event.clientX;
  spot.y = event.clientY;
  const { x, y } = spot.matrixTransform(board.getScreenCTM().inverse());
  const here = [Math.round(x * 10) / 10, Math.round(y * 10) / 10];
  if (what.value === "scale") {
    const ends = readRow(scale);
    scale.value = JSON.stringify([...(ends.length > 1 ? [] : ends), here]);
    if (ends.length === 1) document.querySelector("#trace-form [value=corner]").checked = true;
  } else {
    at.value = JSON.stringify([...readRow(at), [...here, what.value === "corner"]]);
  }
  traceDraw();
});
const traceBack = () => {
  const { at, scale } = traceState();
  const points = readRow(at);
  if (points.length) at.value = JSON.stringify(points.slice(0, -1));
  else scale.value = JSON.stringify(readRow(scale).slice(0, -1));
  traceDraw();
};
document.addEventListener("keydown", (event) => {
  const { board } = traceState();
  if (!board || event.target.closest("input:not([type=radio]), select, textarea")) return;
  const chosen = { c: "corner", v: "curve", s: "scale" }[event.key.toLowerCase()];
  if (chosen) document.querySelector(`#trace-form [value=${chosen}]`).checked = true;
  else if (event.key === "Backspace") traceBack();
  else return;
  event.preventDefault();
});
for (const moment of ["DOMContentLoaded", "htmx:afterSettle"]) document.addEventListener(moment, traceDraw);
