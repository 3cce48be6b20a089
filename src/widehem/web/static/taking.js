// Taking measures: the number pad, moving through the sheet by keyboard, and keeping what is typed until it is written down.
(function () {
  "use strict";

  // ---- what is typed outlives a reload, a sleeping phone, a server that does not answer ----
  const KEY = "wh:";

  function hold(field) {
    try {
      if (field.value === field.defaultValue) localStorage.removeItem(KEY + field.dataset.hold);
      else localStorage.setItem(KEY + field.dataset.hold, JSON.stringify([field.value, field.dataset.of || ""]));
    } catch (error) {
      // no storage: the field itself still holds it
    }
  }

  function giveBack() {
    document.querySelectorAll("[data-hold]").forEach((field) => {
      let kept = null;
      try {
        const begun = field.dataset.hold.replace(/^\d+/, "0"); // typed before the chart was begun
        kept = heldIn(KEY + field.dataset.hold) || heldIn(KEY + begun);
        localStorage.removeItem(KEY + begun);
      } catch (error) {
        return;
      }
      kept = kept && kept[0];
      if (kept === null || field.matches("[aria-invalid=true]") || kept === field.value) return;
      field.value = kept;
      field.classList.add("held");
      field.title = "typed, not written down yet";
      field.dispatchEvent(new Event(field.closest(".rows") ? "change" : "input", { bubbles: true })); // a sheet writes it down now
    });
    stepInto(document.activeElement); // it may have been stepped into before anything listened
    tellAloud(document.querySelector("#r-first"));
    tellUnwritten();
  }

  function heldIn(key) {
    const text = localStorage.getItem(key);
    if (text === null) return null;
    try {
      const found = JSON.parse(text);
      return Array.isArray(found) ? found : [text, ""];
    } catch (error) {
      return [text, ""]; // as an earlier version kept it
    }
  }

  // ---- a figure that was typed and never written is said on every page of its wearer ----
  function tellUnwritten() {
    const line = document.getElementById("hem-unwritten");
    const wearer = document.querySelector("[data-wearer]");
    if (!line) return;
    line.hidden = true;
    if (!wearer) return;
    const here = new Set(Array.from(document.querySelectorAll("[data-hold]")).map((field) => KEY + field.dataset.hold));
    const found = [];
    try {
      for (let index = 0; index < localStorage.length; index += 1) {
        const key = localStorage.key(index);
        const parts = key.startsWith(KEY) ? key.slice(KEY.length).split("/") : [];
        if (parts.length === 4 && parts[1] === wearer.dataset.wearer && !here.has(key)) found.push([key, parts, heldIn(key)]);
      }
    } catch (error) {
      return;
    }
    if (!found.length) return;
    const [key, parts, [value, name]] = found[0];
    const words = document.createElement("span");
    const more = found.length > 1 ? `, and ${found.length - 1} more` : "";
    words.textContent = `${name || parts[2].replaceAll("_", " ")} ${value} is typed and not written${more}.`;
    const link = Object.assign(document.createElement("a"), { textContent: "Look at it", href: `/wearers/${parts[1]}/measure?list=all&at=${parts[2]}` });
    const drop = Object.assign(document.createElement("button"), { textContent: "Let it go", type: "button" });
    drop.addEventListener("click", () => {
      localStorage.removeItem(key);
      tellUnwritten();
    });
    const bar = document.createElement("div");
    bar.className = "undo-bar";
    bar.append(words, link, drop);
    line.replaceChildren(bar);
    line.hidden = false;
  }

  // ---- the old figure is selected when its field is stepped into: what is typed takes its place ----
  function stepInto(field) {
    if (!field || !field.matches("[data-hold]") || !field.value || field.value !== field.defaultValue) return;
    field.select();
    field.dataset.fresh = "yes";
  }
  document.addEventListener("focusin", (event) => stepInto(event.target));
  document.addEventListener("mouseup", (event) => {
    if (!event.target.matches || !event.target.matches("[data-fresh]")) return;
    event.preventDefault(); // the press that stepped in leaves it selected
    delete event.target.dataset.fresh;
  });
  document.addEventListener("keydown", (event) => {
    if (event.target.dataset) delete event.target.dataset.fresh;
  });

  document.addEventListener("htmx:beforeSwap", (event) => {
    const from = event.detail.requestConfig && event.detail.requestConfig.elt;
    if (!from || !from.matches("[data-keep]") || event.detail.xhr.status >= 400) return;
    from.querySelectorAll("[data-hold]").forEach((field) => {
      if (field.value === event.detail.requestConfig.parameters[field.name] || !event.detail.requestConfig.parameters[field.name]) {
        localStorage.removeItem(KEY + field.dataset.hold);
        field.classList.remove("held");
        field.removeAttribute("title");
      }
    });
  });

  // ---- the number pad writes into the field in hand ----
  let inHand = null;
  const fields = () => Array.from(document.querySelectorAll("#taking [data-hold]"));

  function current() {
    const all = fields();
    return all.includes(inHand) ? inHand : all[0];
  }

  document.addEventListener("focusin", (event) => {
    if (event.target.matches("#taking [data-hold]")) inHand = event.target;
  });
  document.addEventListener("pointerdown", (event) => {
    if (event.target.closest("[data-pad]")) event.preventDefault();
  });
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-pad]");
    if (!button) return;
    const field = current();
    const key = button.dataset.pad;
    if (key === "turn") {
      const other = fields().find((entry) => entry !== field);
      if (other) other.focus();
      return;
    }
    field.value = pressed(field, key);
    field.dataset.begun = "yes";
    field.focus({ preventScroll: true });
    field.setSelectionRange(field.value.length, field.value.length);
    field.dispatchEvent(new Event("input", { bubbles: true }));
  });

  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-now]");
    if (!button) return;
    const field = document.getElementById(button.dataset.now);
    field.value = new Date().toTimeString().slice(0, 5);
    field.focus();
  });

  function pressed(field, key) {
    const now = field.value;
    if (key === "rub") return now.replace(/(\s*\d+\/\d+|.)$/, "");
    if (!field.dataset.begun && now === field.defaultValue) return key.trim(); // what stood there is read anew
    if (key.includes("/")) return (now.replace(/\s*\d+\/\d+$/, "") + key).trim();
    if (key.startsWith(".")) return now.includes(".") ? now : now + key;
    return now + key;
  }

  function tellAloud(field) {
    const line = document.getElementById("aloud");
    if (!line || !field || field.value === field.defaultValue) return;
    const unit = field.parentElement.querySelector(".input-group-text").textContent;
    line.replaceChildren(field.value, Object.assign(document.createElement("small"), { textContent: unit }));
  }

  document.addEventListener("input", (event) => {
    if (!event.target.matches("[data-hold]")) return;
    hold(event.target);
    if (event.target.closest("#taking")) tellAloud(event.target);
  });

  // read each twice: the first reading leads into the second field
  document.addEventListener(
    "submit",
    (event) => {
      const form = event.target;
      if (!form.matches("[data-twice]")) return;
      const [first, second] = form.querySelectorAll("[data-hold]");
      if (!first.value || second.value || document.activeElement === second) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      second.focus();
    },
    true,
  );

  // ---- the sheet by keyboard: Enter and the arrows go down, Tab goes on ----
  document.addEventListener("keydown", (event) => {
    const field = event.target;
    if (!field.matches(".rows input") || !["Enter", "ArrowDown", "ArrowUp"].includes(event.key)) return;
    event.preventDefault();
    const column = Array.from(document.querySelectorAll(`.rows input[data-turn="${field.dataset.turn}"]`));
    const next = column[column.indexOf(field) + (event.key === "ArrowUp" ? -1 : 1)];
    if (next) {
      next.focus();
      next.select();
    } else {
      field.blur();
    }
  });
  document.addEventListener("htmx:afterSettle", markWrong);
  document.addEventListener("htmx:oobAfterSwap", markWrong);
  function markWrong() {
    document.querySelectorAll(".rows input").forEach((field) => {
      const words = document.getElementById(`e-${field.id.slice(2)}`);
      if (words && words.textContent.trim()) field.setAttribute("aria-invalid", "true");
      else field.removeAttribute("aria-invalid");
    });
  }

  document.addEventListener("htmx:afterSettle", (event) => {
    if (event.detail.target && event.detail.target.id === "shell") giveBack();
  });
  // pictures are made small before they travel; where that cannot be done they go as they are
  const LARGEST = 1800;
  document.addEventListener("change", async (event) => {
    const field = event.target;
    if (!field.matches("input[type=file][data-shrink]") || !window.createImageBitmap) return;
    const smaller = new DataTransfer();
    for (const file of field.files) smaller.items.add(await shrunk(file));
    field.files = smaller.files;
  });

  async function shrunk(file) {
    try {
      const picture = await createImageBitmap(file, { imageOrientation: "from-image" });
      const scale = Math.min(1, LARGEST / Math.max(picture.width, picture.height));
      if (scale === 1 && file.size < 500000) return file;
      const canvas = document.createElement("canvas");
      canvas.width = Math.round(picture.width * scale);
      canvas.height = Math.round(picture.height * scale);
      canvas.getContext("2d").drawImage(picture, 0, 0, canvas.width, canvas.height);
      const blob = await new Promise((done) => canvas.toBlob(done, "image/jpeg", 0.85));
      return blob ? new File([blob], "picture.jpg", { type: "image/jpeg" }) : file;
    } catch (error) {
      return file; // the workroom says what is wrong with it
    }
  }

  window.addEventListener("load", giveBack); // once everything listens
})();
