// A lens over a nest: what lies under the pointer, or at the spot that has the focus, six times as large.
"use strict";

const LENS_SHARE = 14; // the drawing is as many times as wide as what the lens shows

const hideLens = () => {
  const lens = document.getElementById("nest-lens");
  if (lens) lens.hidden = true;
};
const showLens = (nest, spot) => {
  const lens = document.getElementById("nest-lens");
  if (!lens) return;
  const seen = nest.viewBox.baseVal, half = seen.width / LENS_SHARE / 2;
  lens.querySelector("svg").setAttribute("viewBox", `${(spot.x - half).toFixed(3)} ${(spot.y - half).toFixed(3)} ${(2 * half).toFixed(3)} ${(2 * half).toFixed(3)}`);
  lens.classList.toggle("at-left", spot.x > seen.x + seen.width / 2);
  lens.hidden = false;
};

document.addEventListener("pointermove", (event) => {
  if (event.pointerType === "touch") return;
  const nest = event.target.closest ? event.target.closest("svg.nest.with-lens") : null;
  if (nest) showLens(nest, onBoard(event, nest));
  else hideLens();
});

document.addEventListener("focusin", (event) => {
  const spot = event.target.closest ? event.target.closest("svg.nest.with-lens .n-spot") : null;
  if (!spot) return hideLens();
  const box = spot.getBBox();
  return showLens(spot.ownerSVGElement, { x: box.x + box.width / 2, y: box.y + box.height / 2 });
});

document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") hideLens();
});
