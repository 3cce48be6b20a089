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
