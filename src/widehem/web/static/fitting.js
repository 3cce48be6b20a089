// A fitting: where the figure is tapped, and notes that are kept on the phone until the house has them.
(function () {
  "use strict";

  const KEY = "wh-fit:";
  const REFUSED = "wh-refused:";

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
  function list(key) {
    try {
      const found = JSON.parse(localStorage.getItem(key) || "[]");
      return Array.isArray(found) ? found : [];
    } catch (error) {
      return [];
    }
  }

  const waiting = (round) => list(KEY + round);

  function put(key, entries) {
    try {
      if (entries.length) localStorage.setItem(key, JSON.stringify(entries));
      else localStorage.removeItem(key);
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
    showRefused(round);
  }

  // ---- notes that cannot be kept: what was typed stays in sight until it is let go ----
  function showRefused(round) {
    const place = document.querySelector(`[data-round="${round}"] .fit-refused`);
    if (!place) return;
    const entries = list(REFUSED + round);
    place.hidden = !entries.length;
    place.replaceChildren(...entries.map((entry) => {
      const item = document.createElement("li");
      const gone = document.createElement("button");
      gone.type = "button";
      gone.className = "btn btn-quiet";
      gone.textContent = "Let it go";
      gone.addEventListener("click", () => {
        put(REFUSED + round, list(REFUSED + round).filter((one) => one.client !== entry.client));
        showRefused(round);
      });
      item.append(`Not kept: ${entry.typed}. ${entry.error} `, gone);
      return item;
    }));
  }

  function typed(entry) {
    const chosen = document.querySelector(`#n-sign option[value="${CSS.escape(entry.sign || "")}"]`);
    const parts = [entry.sign && chosen ? chosen.textContent : "", entry.words, entry.pinned ? `pinned ${entry.pinned}` : "", entry.look || entry.test, entry.verdict];
    return parts.filter(Boolean).join(", ") || "a note";
  }

  let sending = false;
  let fresh = ""; // the note whose form still shows what was typed
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
        const refused = told.refused || {};
        const gone = (entry) => told.kept.includes(entry.client) || entry.client in refused;
        const inForm = events.length === 1 && fresh in refused;
        const shown = events.filter((entry) => entry.client in refused && !inForm);
        put(REFUSED + round, [...list(REFUSED + round), ...shown.map((entry) => ({ client: entry.client, typed: typed(entry), error: refused[entry.client] }))]);
        put(KEY + round, waiting(round).filter((entry) => !gone(entry)));
        if (inForm) return tell(round, refused[fresh]);
        tell(round);
        window.htmx.ajax("GET", location.pathname, { target: "#shell", select: "#shell", swap: "outerHTML" });
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
    if (!put(KEY + round.dataset.round, [...waiting(round.dataset.round), entry])) return;
    fresh = entry.client;
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
  document.addEventListener("htmx:afterSettle", () => {
    fresh = "";
    document.querySelectorAll("[data-round]").forEach((place) => tell(place.dataset.round));
  });
  setInterval(() => document.querySelectorAll("[data-round]").forEach((place) => waiting(place.dataset.round).length && send(place.dataset.round)), 8000);
})();
