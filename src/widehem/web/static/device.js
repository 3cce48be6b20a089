// The stand-in for a digital tape: sends JSON to the chart that listens under a pair number, and tells what came back.
(function () {
  "use strict";
  const name = "stand-in " + Math.random().toString(36).slice(2, 8);
  let number = 0;
  let last = null;
  const taken = []; // counts of the messages that were taken, the last one at the end

  const field = (id) => document.getElementById(id);

  function tell(words, wrong) {
    const line = document.createElement("li");
    line.textContent = words;
    if (wrong) line.className = "wrong";
    field("dv-answers").prepend(line);
  }

  async function speak(path, body) {
    const address = "/tape/" + encodeURIComponent(field("dv-pair").value.trim()) + path;
    const request = body ? { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) } : {};
    try {
      const answer = await fetch(address, request);
      return await answer.json();
    } catch (error) {
      return { error: "No answer from the workroom. The reading was not sent: send it again." };
    }
  }

  function waits(answer) {
    return answer.waits_for ? " Next: " + answer.waits_for.name.toLowerCase() + (answer.waits_for.turn === 2 ? ", second." : ".") : " The list is full.";
  }

  async function send(message) {
    last = message;
    const answer = await speak("/readings", message);
    if (answer.error) return tell(answer.error, true);
    if (!answer.repeated) taken.push(message.number);
    const told = answer.look_again.length ? " Look again: " + answer.look_again.join(" ") : "";
    tell(answer.taken.name + " " + answer.taken.said + (answer.repeated ? ", heard before." : ".") + told + waits(answer), answer.look_again.length > 0);
    field("dv-value").select();
  }

  async function invent() {
    const answer = await speak("", null);
    if (answer.error || !answer.waits_for) return tell(answer.error || "The list is full.", true);
    const cm = answer.waits_for.usual_cm * (0.985 + Math.random() * 0.03);
    const inches = field("dv-unit").value === "in";
    field("dv-value").value = (inches ? Math.round((cm / 2.54) * 8) / 8 : Math.round(cm * 10) / 10).toString();
  }

  async function act(what) {
    if (what === "reading") {
      number += 1;
      await send({ device: name, number: number, value: field("dv-value").value, unit: field("dv-unit").value });
    } else if (what === "again") {
      if (last) await send(last);
      else tell("Nothing was sent yet.", true);
    } else if (what === "invent") {
      await invent();
    } else if (what === "undo") {
      if (!taken.length) return tell("Nothing of this tape is left to take back.", true);
      const answer = await speak("/undo", { device: name, number: taken[taken.length - 1] });
      if (!answer.error) taken.pop();
      tell(answer.error || "Taken back." + waits(answer), Boolean(answer.error));
    }
  }

  document.addEventListener("click", (event) => {
    const button = event.target.closest("#device [data-send]");
    if (!button) return;
    event.preventDefault();
    act(button.dataset.send);
  });
  // before the page's own links and forms see it: this form is spoken, not sent
  document.addEventListener(
    "submit",
    (event) => {
      if (event.target.id !== "device") return;
      event.preventDefault();
      event.stopImmediatePropagation();
    },
    true,
  );
})();
