// At the style station: an edge that is pressed is pointed at just where it was pressed, not in its middle.
"use strict";

document.addEventListener("click", (event) => {
  const pick = event.target.closest ? event.target.closest("a.pick[data-long]") : null;
  if (!pick || event.detail === 0) return; // by key it is the middle
  const line = pick.querySelector(".edge"), board = pick.ownerSVGElement;
  const at = board.createSVGPoint();
  at.x = event.clientX;
  at.y = event.clientY;
  const spot = at.matrixTransform(board.getScreenCTM().inverse());
  const whole = line.getTotalLength();
  let best = 0, nearest = Infinity;
  for (let step = 0; step <= 100; step += 1) {
    const on = line.getPointAtLength((whole * step) / 100);
    const far = Math.hypot(on.x - spot.x, on.y - spot.y);
    if (far < nearest) [nearest, best] = [far, step / 100];
  }
  const long = Number(pick.dataset.long) * best;
  const address = new URL(pick.href.baseVal, window.location.href);
  const parts = address.searchParams.get("at").split("~");
  parts[2] = long.toFixed(2);
  address.searchParams.set("at", parts.join("~"));
  pick.setAttribute("href", address.pathname + address.search);
});

// An amount is pulled where it answers: the handle knows how far it moves for one centimetre, the field beside is written.
const onBoard = (event, board) => {
  const at = board.createSVGPoint();
  at.x = event.clientX;
  at.y = event.clientY;
  return at.matrixTransform(board.getScreenCTM().inverse());
};
const fieldOf = (handle) => document.querySelector(`form[data-live] [name="${handle.dataset.field}"]`);
const write = (handle, field, cm, settle) => {
  const inches = handle.dataset.unit === "in", step = inches ? 0.125 : 0.1;
  const low = Number(handle.getAttribute("aria-valuemin")), high = Number(handle.getAttribute("aria-valuemax"));
  const held = Math.min(high, Math.max(low, cm)), shown = Math.round((inches ? held / 2.54 : held) / step) * step;
  field.value = `${Number(shown.toFixed(3))} ${inches ? "in" : "cm"}`;
  if (settle) field.dispatchEvent(new Event("change", { bubbles: true }));
  return held;
};
let pulled = null;
document.addEventListener("pointerdown", (event) => {
  const handle = event.target.closest ? event.target.closest(".pull") : null;
  const field = handle && fieldOf(handle);
  if (!field) return;
  event.preventDefault();
  handle.setPointerCapture(event.pointerId);
  handle.classList.add("is-held");
  pulled = { handle, field, from: onBoard(event, handle.ownerSVGElement), was: Number(handle.getAttribute("aria-valuenow")), at: handle.getAttribute("transform") };
});
document.addEventListener("pointermove", (event) => {
  if (!pulled) return;
  const to = onBoard(event, pulled.handle.ownerSVGElement), x = Number(pulled.handle.dataset.x), y = Number(pulled.handle.dataset.y);
  const by = ((to.x - pulled.from.x) * x + (to.y - pulled.from.y) * y) / (x * x + y * y);
  const held = write(pulled.handle, pulled.field, pulled.was + by, false) - pulled.was;
  pulled.moved = Math.abs(held) > 0.04;
  pulled.handle.setAttribute("transform", `${pulled.at} translate(${held * x} ${held * y})`);
});
const letGo = () => {
  if (!pulled) return;
  pulled.handle.classList.remove("is-held");
  if (pulled.moved) pulled.field.dispatchEvent(new Event("change", { bubbles: true }));
  pulled = null;
};
document.addEventListener("pointerup", letGo);
document.addEventListener("pointercancel", letGo);
document.addEventListener("keydown", (event) => {
  const handle = event.target.closest ? event.target.closest(".pull") : null;
  const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
  const field = handle && way && fieldOf(handle);
  if (!field) return;
  event.preventDefault();
  write(handle, field, Number(handle.getAttribute("aria-valuenow")) + way * Number(handle.dataset.step), true);
});
