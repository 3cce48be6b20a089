// A step of the order of work dragged to another place in its list. Whether it can be sewn there says the server.
"use strict";

let draggedStep = null;

document.addEventListener("pointerdown", (event) => {
  const row = event.target.closest ? event.target.closest(".make-list > li") : null;
  if (!row || event.button > 0 || event.pointerType === "touch") return;
  draggedStep = { row, y: event.clientY, moving: false, over: null };
});
document.addEventListener("pointermove", (event) => {
  if (!draggedStep) return;
  if (!draggedStep.moving && Math.abs(event.clientY - draggedStep.y) < 6) return;
  draggedStep.moving = true;
  draggedStep.row.classList.add("is-dragged");
  const under = document.elementFromPoint(event.clientX, event.clientY), over = under ? under.closest(".make-list > li") : null;
  if (draggedStep.over) draggedStep.over.classList.remove("is-over");
  draggedStep.over = over;
  if (over) over.classList.add("is-over");
  event.preventDefault();
});
document.addEventListener("pointerup", () => {
  if (!draggedStep) return;
  const { row, over, moving } = draggedStep;
  draggedStep = null;
  row.classList.remove("is-dragged");
  if (over) over.classList.remove("is-over");
  if (!moving || !over || over === row) return;
  const list = row.parentElement, token = document.querySelector('input[name="csrf_token"]');
  document.addEventListener("click", (click) => { click.preventDefault(); click.stopPropagation(); }, { capture: true, once: true });
  htmx.ajax("POST", list.dataset.move, {
    source: list, target: "#shell", select: "#shell", swap: "outerHTML",
    values: { step: row.dataset.step, before: over.dataset.step, csrf_token: token ? token.value : "" },
  });
});
document.addEventListener("dragstart", (event) => {
  if (event.target.closest && event.target.closest(".make-list")) event.preventDefault();
});
