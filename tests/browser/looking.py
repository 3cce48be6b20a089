"""What a page looks like, told by the browser: words over each other, words out of their box, a page wider than its window."""

LOOK = """() => {
  const told = [];
  const inside = (one, other, by) => one.left < other.right - by && other.left < one.right - by && one.top < other.bottom - by && other.top < one.bottom - by;
  const seen = (rect, parent) => {
    const at = document.elementFromPoint((rect.left + rect.right) / 2, (rect.top + rect.bottom) / 2);
    return at && (at === parent || at.contains(parent) || parent.contains(at));
  };
  // what is seen of a line of words: without the air above and below its letters, and cut by whatever cuts it
  const cut = (whole, parent) => {
    const air = whole.height * 0.22;
    const box = { left: whole.left, right: whole.right, top: whole.top + air, bottom: whole.bottom - air };
    for (let one = parent; one && one !== document.body; one = one.parentElement) {
      if (getComputedStyle(one).overflowX === "visible") continue;
      const edge = one.getBoundingClientRect();
      box.left = Math.max(box.left, edge.left);
      box.right = Math.min(box.right, edge.right);
      box.top = Math.max(box.top, edge.top);
      box.bottom = Math.min(box.bottom, edge.bottom);
    }
    return { ...box, width: box.right - box.left, height: box.bottom - box.top };
  };
  const words = [];
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const node = walker.currentNode;
    const parent = node.parentElement;
    if (!node.textContent.trim() || parent.closest("script, style, svg, option, .visually-hidden, [hidden], .skip, #magnifier, dialog:not([open])")) continue;
    const style = getComputedStyle(parent);
    if (style.visibility === "hidden" || style.display === "none") continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const whole of range.getClientRects()) {
      const rect = cut(whole, parent);
      if (rect.width < 2 || rect.height < 2 || rect.bottom < 0 || rect.top > innerHeight || !seen(rect, parent)) continue;
      words.push({ rect, node, parent, text: node.textContent.trim().slice(0, 40) });
    }
  }
  for (let i = 0; i < words.length; i++) {
    for (let j = i + 1; j < words.length; j++) {
      if (words[i].node !== words[j].node && inside(words[i].rect, words[j].rect, 1)) told.push("over each other: " + words[i].text + " | " + words[j].text);
    }
  }
  for (const { rect, parent, text } of words) {
    const box = parent.closest("button, .btn, .views a, .check, td, th, label, h1, h2, h3, summary, li, p, .bench, .slip, .hem, .selvedge");
    if (!box) continue;
    let clipped = parent;
    while (clipped && clipped !== box.parentElement && getComputedStyle(clipped).overflowX === "visible") clipped = clipped.parentElement;
    if (clipped && clipped !== box.parentElement && getComputedStyle(clipped).overflowX !== "visible") continue; // it is cut short on purpose
    const around = box.getBoundingClientRect();
    if (rect.right > around.right + 2 || rect.left < around.left - 2 || (box.matches("button, .btn, .check") && rect.bottom > around.bottom + 3)) told.push("out of its box: " + text);
  }
  if (document.scrollingElement.scrollWidth > innerWidth + 1) told.push("the page is wider than its window by " + (document.scrollingElement.scrollWidth - innerWidth));
  const drawn = Array.from(document.querySelectorAll("#board text, .map text")).filter((text) => getComputedStyle(text).visibility !== "hidden" && text.getClientRects().length && text.textContent.trim());
  const turned = (text) => { const to = text.getScreenCTM(); return Math.abs(to.b) > 0.02 * Math.abs(to.a); };
  for (let i = 0; i < drawn.length; i++) {
    for (let j = i + 1; j < drawn.length; j++) {
      if (turned(drawn[i]) || turned(drawn[j])) continue; // their boxes are larger than they are
      if (inside(drawn[i].getBoundingClientRect(), drawn[j].getBoundingClientRect(), 5)) told.push("drawn over each other: " + drawn[i].textContent + " | " + drawn[j].textContent);
    }
  }
  return Array.from(new Set(told));
}"""
SMALL = """(least) => Array.from(document.querySelectorAll("a[href], button, input:not([type=hidden]):not([type=file]), select, summary, textarea")).filter((one) => {
  const rect = one.getBoundingClientRect();
  if (!rect.width || one.closest(".visually-hidden, .skip, dialog:not([open]), svg, p, [hidden], .steps, .scrub ol, .sheet table, td, li span, .told, .note, .chart, dl, .seq, .guide") || getComputedStyle(one).visibility === "hidden") return false;
  const label = one.closest("label");
  const box = label ? label.getBoundingClientRect() : rect;
  return box.height < least - 0.5 || box.width < Math.min(least, 24) - 0.5;
}).map((one) => (one.getAttribute("aria-label") || one.textContent.trim() || one.id).slice(0, 40) + " " + Math.round(one.getBoundingClientRect().width) + "x" + Math.round(one.getBoundingClientRect().height))"""
