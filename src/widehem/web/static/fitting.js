// A fitting: where the figure is tapped, and notes that are kept on the phone until the house has them.
(function () {
  "use strict";

  const KEY = "wh-fit:";

  // ---- tapping the figure ----
  document.addEventListener("click", (event) => {
    const figure = event.target.closest(".fit-figure");
    if (!figure) return;
    const box = figure.viewBox.baseVal;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(figure.getScreenCTM().inverse());
    const form = figure.closest("form");
    form.elements.figure.value = figure.dataset.figure;
    form.elements.x.value = ((at.x - box.x) / box.width).toFixed(3);
    form.elements.y.value = ((at.y - box.y) / box.height).toFixed(3);
    form.querySelectorAll(".fit-tap").forEach((tap) => {
      const here = tap.closest("svg") === figure;
      tap.setAttribute("cx", here ? at.x : -999);
      tap.setAttribute("cy", here ? at.y : -999);
    });
  });

  // ---- notes that wait ----
  function waiting(round) {
    try {
      const found = JSON.parse(localStorage.getItem(KEY + round) || "[]");
      return Array.isArray(found) ? found : [];
    } catch (error) {
      return [];
    }
  }

  function put(round, events) {
    try {
      if (events.length) localStorage.setItem(KEY + round, JSON.stringify(events));
      else localStorage.removeItem(KEY + round);
      return true;
    } catch (error) {
      return false; // no storage: it is sent as any form is
    }
  }

  function tell(round, error) {
    const line = document.querySelector(`[data-round="${round}"] .fit-queue`);
    if (!line) return;
    const count = waiting(round).length;
    line.hidden = !count && !error;
    line.textContent = error || `${count} ${count === 1 ? "note waits" : "notes wait"} on this device for the network.`;
  }

  let sending = false;
  async function send(round) {
    const events = waiting(round);
    const place = document.querySelector(`[data-round="${round}"]`);
    if (sending || !events.length || !place) return tell(round);
    const form = place.querySelector("form[data-queue]");
    sending = true;
    try {
      const answer = await fetch(form.action, {
        method: "POST",
        headers: { "Content-Type": "application/json", "X-CSRFToken": form.elements.csrf_token.value },
        body: JSON.stringify({ events }),
        credentials: "same-origin",
      });
      const told = await answer.json();
      if (answer.ok) {
        const kept = new Set(told.kept);
        put(round, waiting(round).filter((entry) => !kept.has(entry.client)));
        tell(round);
        window.htmx.ajax("GET", location.pathname, { target: "#shell", select: "#shell", swap: "outerHTML" });
      } else if (answer.status === 422) {
        put(round, waiting(round).slice(0, -1)); // it was never one: what is in the form is still there
        tell(round, told.error);
      } else {
        tell(round);
      }
    } catch (error) {
      tell(round); // alone: it waits
    } finally {
      sending = false;
    }
  }

  document.addEventListener("submit", (event) => {
    const form = event.target.closest("form[data-queue]");
    if (!form) return;
    const round = form.closest("[data-round]") || document.querySelector("[data-round]");
    const entry = Object.fromEntries(new FormData(form, event.submitter));
    delete entry.csrf_token;
    entry.client = crypto.randomUUID ? crypto.randomUUID() : `${Date.now()}-${Math.random()}`.slice(0, 36);
    if (!put(round.dataset.round, [...waiting(round.dataset.round), entry])) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.submitter && event.submitter.name === "verdict") {
      form.querySelectorAll("button[name=verdict]").forEach((button) => {
        button.classList.toggle("is-on", button === event.submitter);
        button.setAttribute("aria-pressed", button === event.submitter ? "true" : "false");
      });
    }
    send(round.dataset.round);
  }, true);

  const everything = () => document.querySelectorAll("[data-round]").forEach((place) => send(place.dataset.round));
  window.addEventListener("online", everything);
  document.addEventListener("DOMContentLoaded", everything);
  setInterval(() => document.querySelectorAll("[data-round]").forEach((place) => waiting(place.dataset.round).length && send(place.dataset.round)), 8000);
})();
