// Keys, live forms, and what must survive when the page is swapped. No drawing is done here.
(function () {
  "use strict";

  const typing = (element) => element.closest("input, select, textarea, [contenteditable]");

  // ---- single keys: an element says which key it answers with data-key ----
  function find(key) {
    return Array.from(document.querySelectorAll("[data-key]")).find((element) => element.dataset.key === key && element.offsetParent !== null);
  }

  function hemStep(by) {
    const checks = Array.from(document.querySelectorAll(".hem a.check"));
    if (!checks.length) return;
    const at = checks.indexOf(document.activeElement);
    checks[at < 0 ? 0 : (at + by + checks.length) % checks.length].focus();
  }

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target.closest(".hem a.check") && (event.key === "ArrowRight" || event.key === "ArrowLeft")) {
      hemStep(event.key === "ArrowRight" ? 1 : -1);
      event.preventDefault();
      return;
    }
    if (typing(event.target) || document.body.dataset.keys !== "on") return;
    if (event.key === "h" || event.key === "H") {
      hemStep(1);
    } else {
      const element = find(event.key.toLowerCase());
      if (!element) return;
      if (typing(element) && element.type !== "checkbox") {
        element.focus();
        element.select();
      } else {
        element.click();
      }
    }
    event.preventDefault();
  });

  // ---- help lies over the page ----
  document.addEventListener("htmx:afterSwap", (event) => {
    const dialog = document.getElementById("help");
    if (!event.detail.target || event.detail.target.id !== "help-words" || dialog.open) return;
    dialog.showModal();
    dialog.scrollTop = 0;
  });
  document.addEventListener("click", (event) => {
    const dialog = document.getElementById("help");
    if (dialog.open && (event.target === dialog || event.target.closest("#help a"))) dialog.close();
  });

  // ---- a link to a field on this page goes into it ----
  document.addEventListener("click", (event) => {
    const link = event.target.closest('a[href^="#"]');
    const target = link && document.querySelector(link.getAttribute("href"));
    if (!target) return;
    event.preventDefault();
    target.focus();
    target.scrollIntoView({ block: "nearest" });
  });

  // ---- live forms: a change is sent at once, and only once though Enter and leaving the field both tell of it ----
  function send(field) {
    const form = field.closest("form[data-live]");
    if (!form || field.dataset.sent === field.value) return;
    field.dataset.sent = field.value;
    form.requestSubmit();
  }
  document.addEventListener("change", (event) => send(event.target));
  document.addEventListener("keydown", (event) => {
    if (event.key !== "Enter" || !event.target.matches("form[data-live] input:not([data-filter])")) return;
    event.preventDefault();
    if (event.target.value !== event.target.defaultValue) send(event.target);
  });

  // ---- focus and scrolling survive a swap ----
  let held = null;
  const nameOf = (element) =>
    element && element !== document.body && (element.id || element.getAttribute("aria-label") || element.dataset.key || element.textContent.trim().slice(0, 40));

  const tabOf = () => {
    const tab = document.querySelector(".slip-tabs [aria-current]");
    return tab ? tab.textContent : "";
  };
  let lastField = ""; // the setting that was in hand last: after Keep it is in hand again
  document.addEventListener("focusin", (event) => {
    if (event.target.closest(".settings, .opts") && event.target.id) lastField = event.target.id;
  });

  // what asks by itself again and again leaves the maker's hands alone
  const quiet = (event) => event.target.closest && event.target.closest("[data-quiet]");

  document.addEventListener("htmx:beforeSwap", (event) => {
    if (quiet(event)) return;
    const active = document.activeElement;
    const body = document.querySelector(".slip-body, .chart");
    const chart = document.querySelector(".chart");
    const shell = event.detail.target && event.detail.target.id === "shell";
    held = { shell, tab: tabOf(), name: nameOf(active), tag: active && active.tagName, page: window.location.pathname, slip: body ? body.scrollTop : 0, chart: chart ? chart.scrollTop : 0 };
  });

  document.addEventListener("htmx:afterSettle", (event) => {
    const file = document.querySelector("[data-take]");
    if (file) {
      file.removeAttribute("data-take");
      file.click();
    }
    if (quiet(event)) return;
    const now = document.querySelector(".slip-body .now");
    const body = document.querySelector(".slip-body");
    if (body && held && held.page === window.location.pathname && held.tab === tabOf()) body.scrollTop = held.slip; // a tab begins at its top
    const chart = document.querySelector(".chart");
    if (chart && held) chart.scrollTop = held.chart;
    reveal(body, now);
    reveal(chart, document.querySelector(".chart .now"));
    const turned = held && held.shell && held.page !== window.location.pathname; // another page: it begins at its title
    if (turned && window.scrollY) window.scrollTo(0, 0);
    const wrong = document.querySelector("[aria-invalid=true]:not(.rows *), .refusal"); // a sheet lets the maker go on
    if (wrong) {
      wrong.focus({ preventScroll: true });
      wrong.scrollIntoView({ block: "center" });
    } else if (turned && !document.querySelector("#shell [autofocus]") && !window.location.hash) {
      const title = document.querySelector("h1");
      if (title) {
        title.tabIndex = -1;
        title.focus({ preventScroll: true });
      }
    } else if (held && held.name && (document.activeElement === document.body || !document.activeElement)) {
      const again = Array.from(document.querySelectorAll(held.tag)).find((element) => nameOf(element) === held.name);
      const place = again || document.getElementById(lastField) || document.querySelector(".slip-body[tabindex]");
      if (place) place.focus({ preventScroll: true });
    }
    held = null;
    lost("");
  });

  function reveal(box, entry) {
    if (!box || !entry) return;
    const room = box.getBoundingClientRect();
    const spot = entry.getBoundingClientRect();
    if (spot.top < room.top + 30 || spot.bottom > room.bottom) box.scrollTop += spot.top - room.top - (room.height - spot.height) / 2;
  }

  // ---- the line in the hem when the server does not answer ----
  function lost(words) {
    const line = document.getElementById("lost");
    if (line && line.textContent !== words) line.textContent = words;
  }
  // a busy workroom kept nothing: the same thing is sent again, a few times, and what was typed stays in its field
  const TRIES = 5;
  const tries = new WeakMap();
  document.addEventListener("htmx:responseError", (event) => {
    const { xhr, requestConfig } = event.detail;
    if (xhr.status === 507) return lost("Not kept: the disk of the workroom is full or cannot be written to. What you typed is still here.");
    if (xhr.status !== 503) return;
    const from = requestConfig.elt;
    const count = (tries.get(from) || 0) + 1;
    tries.set(from, count);
    if (count > TRIES) {
      tries.delete(from);
      return lost("Not kept: the workroom is busy. What you typed is still here: try again.");
    }
    lost("Not kept yet: the workroom is busy. Trying again.");
    const press = requestConfig.triggeringEvent && requestConfig.triggeringEvent.submitter;
    window.setTimeout(() => {
      if (!from.isConnected) return;
      if (from.matches("form")) from.requestSubmit(press && press.isConnected ? press : null);
      else if (from.matches("a")) from.click();
    }, 1000 * count);
  });
  document.addEventListener("htmx:afterOnLoad", (event) => {
    if (event.detail.xhr.status < 500) tries.delete(event.detail.requestConfig.elt);
  });
  document.addEventListener("htmx:sendError", () => lost("No answer from the workroom. What you typed is still here: try again."));
  document.addEventListener("htmx:timeout", () => lost("The workroom takes long to answer. Try again."));

  // ---- groups that fold stay as they were left, and a word finds a setting ----
  const FOLDS = "wh-folds";
  function folds() {
    try {
      return JSON.parse(sessionStorage.getItem(FOLDS) || "{}");
    } catch (error) {
      return {};
    }
  }
  function unfold() {
    const kept = folds();
    document.querySelectorAll("details[data-fold]").forEach((fold) => {
      if (fold.dataset.fold in kept) fold.open = kept[fold.dataset.fold];
    });
    document.querySelectorAll("[data-filter]").forEach(filter);
  }
  document.addEventListener("click", (event) => {
    const fold = event.target.closest("details[data-fold] > summary");
    if (!fold) return;
    const kept = folds();
    kept[fold.parentElement.dataset.fold] = !fold.parentElement.open;
    try {
      sessionStorage.setItem(FOLDS, JSON.stringify(kept));
    } catch (error) {
      // no storage: it folds for this page only
    }
  });
  let sought = "";
  function filter(field) {
    if (field.value) sought = field.value;
    else if (sought && field !== document.activeElement) field.value = sought;
    const word = field.value.trim().toLowerCase();
    const form = field.form;
    let found = 0;
    form.querySelectorAll(".opt").forEach((opt) => {
      opt.hidden = word !== "" && !opt.textContent.toLowerCase().includes(word);
      if (!opt.hidden) found += 1;
    });
    const kept = folds();
    form.querySelectorAll("details[data-fold]").forEach((fold) => {
      const any = Array.from(fold.querySelectorAll(".opt")).some((opt) => !opt.hidden);
      fold.hidden = !any;
      if (!fold.dataset.usual) fold.dataset.usual = fold.open ? "open" : "shut";
      if (word) fold.open = any;
      else fold.open = fold.dataset.fold in kept ? kept[fold.dataset.fold] : fold.dataset.usual === "open";
    });
    form.querySelector(".none-found").hidden = found > 0;
  }
  document.addEventListener("input", (event) => {
    if (!event.target.matches("[data-filter]")) return;
    event.stopPropagation();
    sought = event.target.value;
    filter(event.target);
  });
  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-filter]")) event.stopImmediatePropagation();
  }, true);
  document.addEventListener("htmx:afterSettle", unfold);

  document.addEventListener("DOMContentLoaded", () => {
    unfold();
    reveal(document.querySelector(".slip-body"), document.querySelector(".slip-body .now"));
    reveal(document.querySelector(".chart"), document.querySelector(".chart .now"));
  });
})();
