// A piece of a lay taken by hand: dragged, or moved by keys. Where it may lie says the server.
"use strict";

const STEP_OF_LAY = 0.5, LONG_STEP = 5, WAIT_FOR_KEYS = 350; // cm; milliseconds
let heldPiece = null, keyTimer = 0;

const placeOf = (piece) => ({
  put: piece.dataset.put, x: Number(piece.dataset.x), y: Number(piece.dataset.y), turned: Number(piece.dataset.turned),
  flipped: piece.dataset.flipped,
});
const layPut = (piece, place) => {
  const lay = piece.ownerSVGElement, token = document.querySelector('input[name="csrf_token"]');
  const focused = place.put;
  htmx.ajax("POST", lay.dataset.lay, {
    source: lay, target: "#shell", select: "#shell", swap: "outerHTML", values: { ...place, csrf_token: token ? token.value : "" },
  }).then(() => {
    const again = document.querySelector(`.lay-piece[data-put="${CSS.escape(focused)}"]`);
    if (again) again.focus();
  });
};
const layMoved = (piece, dx, dy) => piece.setAttribute("transform", `translate(${dx.toFixed(2)} ${dy.toFixed(2)})`);

document.addEventListener("pointerdown", (event) => {
  const piece = event.target.closest ? event.target.closest(".lay-piece[data-put]") : null;
  if (!piece || event.button > 0) return;
  event.preventDefault();
  piece.focus();
  const at = onBoard(event, piece.ownerSVGElement);
  heldPiece = { piece, at, dx: 0, dy: 0 };
  piece.classList.add("is-held");
  piece.setPointerCapture(event.pointerId);
});
document.addEventListener("pointermove", (event) => {
  if (!heldPiece) return;
  const at = onBoard(event, heldPiece.piece.ownerSVGElement);
  heldPiece.dx = at.x - heldPiece.at.x;
  heldPiece.dy = at.y - heldPiece.at.y;
  layMoved(heldPiece.piece, heldPiece.dx, heldPiece.dy);
});
const putDown = (event) => {
  if (!heldPiece) return;
  const { piece, dx, dy } = heldPiece;
  heldPiece = null;
  piece.classList.remove("is-held");
  if (event.type === "pointercancel" || Math.hypot(dx, dy) < 0.2) {
    piece.removeAttribute("transform");
    return;
  }
  const place = placeOf(piece);
  layPut(piece, { ...place, x: place.x + dx, y: place.y + dy });
};
document.addEventListener("pointerup", putDown);
document.addEventListener("pointercancel", putDown);

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
document.addEventListener("keydown", (event) => {
  const piece = event.target.closest ? event.target.closest(".lay-piece[data-put]") : null;
  if (!piece || event.ctrlKey || event.metaKey || event.altKey) return;
  const place = placeOf(piece), turns = piece.ownerSVGElement.dataset.turns.split(" ").map(Number);
  if (ARROWS[event.key]) {
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? LONG_STEP : STEP_OF_LAY;
    const moved = piece.keyMoved || { dx: 0, dy: 0 };
    moved.dx += ARROWS[event.key][0] * step;
    moved.dy += ARROWS[event.key][1] * step;
    piece.keyMoved = moved;
    layMoved(piece, moved.dx, moved.dy);
    clearTimeout(keyTimer);
    keyTimer = setTimeout(() => layPut(piece, { ...place, x: place.x + moved.dx, y: place.y + moved.dy }), WAIT_FOR_KEYS);
  } else if (event.key.toLowerCase() === "t" && turns.length > 1) {
    event.preventDefault();
    event.stopPropagation();
    layPut(piece, { ...place, turned: turns[(turns.indexOf(place.turned) + 1) % turns.length] });
  } else if (event.key.toLowerCase() === "o" && piece.dataset.free === "1") {
    event.preventDefault();
    event.stopPropagation();
    layPut(piece, { ...place, flipped: place.flipped === "1" ? "0" : "1" });
  }
}, true);
