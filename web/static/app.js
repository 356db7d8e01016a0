// What the hand does faster than the wire: moving between stops by key, and
// stepping a length by one tick. Everything else is the server's.
"use strict";

// Single keys do nothing while a control has the focus, or when they are
// switched off on the help page.
const control = "input, textarea, select, button, a, summary, [contenteditable], [tabindex]:not(main, h1)";
const keysOff = () => localStorage.getItem("single-keys") === "off";
document.addEventListener("alpine:init", () => {
  Alpine.data("keys", () => ({
    press(event) {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const at = event.target.closest(control);
      if (at) {
        if (at.matches("input")) step(event);
        return;
      }
      if (keysOff() || document.querySelector("dialog[open]")) return;
      const pages = [...document.querySelectorAll(".tape a")];
      const here = pages.findIndex((a) => a.hasAttribute("aria-current"));
      const go = (i) => pages[i] && pages[i].click();
      if (event.key >= "1" && event.key <= String(pages.length)) go(Number(event.key) - 1);
      else if (event.key === "[") go(here - 1);
      else if (event.key === "]") go(here + 1);
      else if (event.key === "u") document.getElementById("undo")?.click();
      else if (event.key === "r") document.getElementById("redo")?.click();
      else if (event.key === "?") help();
      else if (event.key === "/") {
        event.preventDefault();
        goTo();
      }
    },
  }));
});

// Boxes that are chosen on the list: the bar below it says how many.
document.addEventListener("alpine:init", () => {
  Alpine.data("chosen", () => ({
    says: "",
    boxes: () => [...document.querySelectorAll("#boxes input[name=box]")],
    count() {
      const n = this.boxes().filter((box) => box.checked).length;
      this.says = n === 1 ? "1 box chosen" : `${n} boxes chosen`;
    },
    // What the list is found by now goes along, so that one comes back to it.
    keep(event) {
      for (const name of ["find", "order"]) {
        const from = document.querySelector(`#find-form [name=${name}]`);
        let to = event.target.querySelector(`input[name=${name}]`);
        if (!to) {
          to = Object.assign(document.createElement("input"), { type: "hidden", name });
          event.target.append(to);
        }
        to.value = from ? from.value : "";
      }
    },
    init() { this.count(); },
    all() { this.set(true); },
    none() { this.set(false); },
    set(on) {
      for (const box of this.boxes()) box.checked = on;
      this.count();
    },
  }));
});

// All that one can go to or press: boxes and pages by their names, and what this page has.
function goTo() {
  const paper = document.getElementById("go");
  if (!paper) return;
  paper.showModal();
  const field = document.getElementById("go-find");
  field.value = "";
  field.dispatchEvent(new Event("input"));
  field.focus();
}
document.addEventListener("alpine:init", () => {
  // What can be pressed on this page, by its words.
  const here = () => [...document.querySelectorAll("main button, main a[href], main summary, .tape a, .undo button, a.history")]
    .filter((at) => !at.closest("dialog") && at.offsetParent !== null && !at.disabled && at.getAttribute("aria-disabled") !== "true" && !at.classList.contains("first-submit"))
    .map((at) => ({ words: (at.getAttribute("aria-label") || at.innerText).replace(/\s+/g, " ").trim(), at }))
    .filter((x) => x.words);
  Alpine.data("goTo", () => ({
    asked: 0,
    async look(event) {
      const find = event.target.value.replace(/^\//, "").trim().toLowerCase(), asked = ++this.asked;
      const list = document.getElementById("go-list");
      const answer = await fetch("/go?go=" + encodeURIComponent(find));
      if (asked !== this.asked || !answer.ok) return;
      const page = new DOMParser().parseFromString(await answer.text(), "text/html");
      const items = [...page.querySelectorAll("#go-found li")].filter((li) => li.querySelector("a"));
      if (find) {
        const named = new Set(items.map((li) => li.innerText || li.textContent.trim()));
        for (const x of here().filter((x) => !named.has(x.words.replace(/^Open /, ""))).filter((x) => find.split(/\s+/).every((word) => x.words.toLowerCase().includes(word))).slice(0, 8)) {
          const button = Object.assign(document.createElement("button"), { type: "button", className: "btn btn-plain", textContent: x.words });
          button.addEventListener("click", () => {
            document.getElementById("go").close();
            x.at.closest("details:not([open])")?.setAttribute("open", "");
            x.at.click();
          });
          const item = document.createElement("li");
          item.append(button);
          items.unshift(item);
        }
      }
      list.replaceChildren(...items);
    },
    // Down goes into the list; Enter takes the first of it.
    walk(event) {
      const first = document.querySelector("#go-list a, #go-list button");
      if (event.key === "Enter" && first) {
        event.preventDefault();
        first.click();
      } else if (event.key === "ArrowDown" && first) {
        event.preventDefault();
        first.focus();
      }
    },
  }));
});

// Help opens over the page; without scripts it is a page of its own.
function help() {
  const paper = document.getElementById("help");
  if (!paper) return;
  paper.showModal();
  if (!document.getElementById("help-page-text")) htmx.trigger("#help-text", "open");
}
document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-help]") || !document.getElementById("help")) return;
  event.preventDefault();
  help();
});
for (const moment of ["DOMContentLoaded", "htmx:afterSettle"]) {
  document.addEventListener(moment, () => {
    for (const box of document.querySelectorAll("[data-keys]")) box.checked = !keysOff();
    const caliper = localStorage.getItem("caliper") || "off";
    document.documentElement.dataset.caliper = caliper;
    for (const box of document.querySelectorAll("[data-caliper-switch]")) box.checked = caliper === "on";
  });
}
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-caliper-switch]")) {
    document.documentElement.dataset.caliper = event.target.checked ? "on" : "off";
    localStorage.setItem("caliper", document.documentElement.dataset.caliper);
  }
  if (event.target.matches("[data-keys]")) localStorage.setItem("single-keys", event.target.checked ? "on" : "off");
});

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
});

// Each window has a name, so that what its hand types runs together for undo
// and is never taken for somebody else's.
const windowName = crypto.getRandomValues(new Uint32Array(2)).join("-");
document.addEventListener("htmx:configRequest", (event) => {
  const { headers, triggeringEvent } = event.detail;
  headers["X-Window"] = windowName;
  // What was changed last and what was refused before: should this not be
  // taken, one of them is why.
  headers["X-Field"] = triggeringEvent?.target?.name || "";
  headers["X-Refused"] = [...document.querySelectorAll("#stop-form [aria-invalid=true]")].map((field) => field.name).join(" ");
});

// The stand-in for a caliper types into the length field last used, in place of what
// stands there; where the largest of several is asked for, it types its reading after the
// last one, and the server takes the largest.
let measured = null;
const caliper = { size: "", said: "", into: "", largest: false }; // kept though the page is brought up to date
document.addEventListener("focusin", (event) => {
  if (event.target.matches("input[data-length]")) measured = event.target.name;
});
// The page that comes as an answer knows nothing of its tick.
document.addEventListener("htmx:afterSettle", () => {
  const tick = document.querySelector(".caliper input[type=checkbox]");
  if (tick) tick.checked = caliper.largest;
});
document.addEventListener("alpine:init", () => {
  Alpine.data("caliper", () => ({
    said: caliper.said,
    init() {
      this.$refs.size.value = caliper.size || this.$refs.size.value;
      this.$refs.size.addEventListener("input", (event) => { caliper.size = event.target.value; });
      this.$refs.largest.checked = caliper.largest;
      this.$refs.largest.addEventListener("change", (event) => { caliper.largest = event.target.checked; });
    },
    async press() {
      const field = document.querySelector(`#stop-form input[name="${CSS.escape(measured || "")}"]`);
      if (!field) {
        this.said = "First go to the length field it shall type into.";
        return;
      }
      const answer = await fetch("/caliper?of=" + encodeURIComponent(this.$refs.size.value));
      const text = await answer.text();
      if (!answer.ok) {
        this.said = text;
        return;
      }
      const before = caliper.largest && caliper.into === field.name ? caliper.said + "; " : "";
      caliper.into = field.name;
      this.said = caliper.said = before + text;
      field.value = this.said;
      field.dispatchEvent(new Event("input", { bubbles: true }));
    },
  }));
});

// A question whose answer takes longer than half a second says that it is looked for.
let looking = 0;
function looksFor(form) {
  const says = form.querySelector?.("[data-looking]");
  clearTimeout(looking);
  if (says) looking = setTimeout(() => { says.textContent = says.dataset.looking; }, 500);
}
document.addEventListener("submit", (event) => { if (event.target.matches("[data-looks]")) looksFor(event.target); });
document.addEventListener("htmx:beforeRequest", (event) => looksFor(event.detail.elt));
document.addEventListener("htmx:afterRequest", (event) => {
  clearTimeout(looking);
  const says = event.detail.elt.querySelector?.("[data-looking]");
  if (says) says.textContent = "";
});

// The style that is chosen stands in sight in its list.
document.addEventListener("DOMContentLoaded", () => {
  const chosen = document.querySelector(".style-tile:has(input:checked)");
  if (chosen) chosen.parentElement.scrollTop = chosen.offsetTop - chosen.parentElement.offsetTop;
});

// A value is sent once: as it is typed, or when the field is left, not both.
// Else leaving a field for "undo" would send the value again after it. It is asked before
// anything is begun: a second request of a form would end the first.
let sent = new WeakMap();
const typedIn = (event) => {
  const field = event?.target;
  return field instanceof HTMLInputElement && field.type !== "radio" && field.type !== "checkbox" ? field : null;
};
document.addEventListener("htmx:confirm", (event) => {
  const field = typedIn(event.detail.triggeringEvent);
  if (field && sent.get(field) === field.value) event.preventDefault();
});
document.addEventListener("htmx:beforeRequest", (event) => {
  const field = typedIn(event.detail.requestConfig.triggeringEvent);
  if (field) sent.set(field, field.value);
});
for (const lost of ["htmx:sendError", "htmx:responseError", "htmx:timeout"]) {
  document.addEventListener(lost, () => { sent = new WeakMap(); });
}
document.addEventListener("htmx:afterSettle", () => {
  for (const field of document.querySelectorAll("#stop-form input")) {
    if (sent.get(field) !== field.value) sent.delete(field);
  }
});

// step changes a length with the arrow keys by one tick of the user's board,
// which the field brings along: a fraction, or a decimal.
function step(event) {
  const input = event.target;
  if (!input.dataset.tick || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
  const tick = read(input.dataset.tick);
  const now = read(input.value);
  if (now === null || !tick) return;
  event.preventDefault();
  const ticks = Math.max(0, Math.round(now / tick) + (event.key === "ArrowUp" ? 1 : -1));
  const parts = input.dataset.tick.match(/^(\d+)\/(\d+)$/);
  input.value = parts ? fraction(ticks * Number(parts[1]), Number(parts[2])) : String(Math.round(ticks * tick * 1e4) / 1e4);
  input.dispatchEvent(new Event("input", { bubbles: true }));
}

// read takes "3 1/2", "7/8" or "9.5"; anything else is left to the server.
function read(text) {
  const m = text.trim().replace(",", ".").match(/^(\d+(?:\.\d+)?)?(?:(?:^|[ -])(\d+)\/(\d+))?$/);
  if (!m || (!m[1] && !m[2])) return null;
  return Number(m[1] || 0) + (m[2] ? Number(m[2]) / Number(m[3]) : 0);
}

// fraction writes n parts of so many in lowest terms: 56 sixteenths are 3 1/2.
function fraction(n, bottom) {
  const whole = Math.floor(n / bottom);
  let top = n % bottom;
  while (top && top % 2 === 0 && bottom % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  if (!top) return String(whole);
  return (whole ? whole + " " : "") + top + "/" + bottom;
}

// A face pressed in the drawing is gone to in a table of faces. It goes on the piece's
// last mat, or comes off the mat it is on; where there is none yet, one is put on it.
const pickFace = (key) => {
  const [piece, face] = key.split("/");
  const asks = document.querySelector(`[data-face="${CSS.escape(face)}"] select`);
  if (asks) {
    asks.scrollIntoView({block: "center"});
    asks.focus();
    return;
  }
  const boxes = [...document.querySelectorAll(`.dressing[data-piece="${CSS.escape(piece)}"] .faces input`)].filter((box) => box.value === face);
  const box = boxes.find((one) => one.checked) || boxes.at(-1);
  if (box) { box.click(); return; }
  const asked = document.querySelector("#mat-face");
  const add = [...document.querySelectorAll('[name="mats.add"]')].find((button) => button.value === piece);
  if (!asked || !add) return;
  asked.disabled = false;
  asked.value = face;
  add.click();
};
document.addEventListener("click", (event) => {
  const face = event.target.closest?.(".face-pick");
  if (face) pickFace(face.dataset.key);
});
document.addEventListener("keydown", (event) => {
  const face = event.target.closest?.(".face-pick");
  if (!face || event.key !== "Enter" && event.key !== " ") return;
  event.preventDefault();
  pickFace(face.dataset.key);
});

// After each load the keyboard is where the work is: Tab goes to the first thing of it, Shift and Tab
// back to the page's head. A page that says where it begins keeps that.
document.addEventListener("DOMContentLoaded", () => {
  if (document.activeElement === document.body && !location.hash) document.getElementById("main")?.focus({ preventScroll: true });
});

// What all is done of folds away, and the next is opened.
document.addEventListener("change", (event) => {
  const group = event.target.closest(".steps-of");
  const left = (at) => at.querySelector("input[type=checkbox]:not(:checked)");
  if (!group || left(group)) return;
  const next = [...document.querySelectorAll(".steps-of")].find(left);
  if (!next) return;
  group.open = false;
  next.open = true;
  left(next).focus();
});

// A drawing that is longer than the window is scrolled from the keyboard too.
for (const moment of ["DOMContentLoaded", "htmx:afterSettle", "resize"]) {
  (moment === "resize" ? window : document).addEventListener(moment, () => {
    const picture = document.getElementById("picture");
    if (!picture) return;
    if (getComputedStyle(picture).overflowY === "auto" && picture.scrollHeight > picture.clientHeight) picture.tabIndex = 0;
    else picture.removeAttribute("tabindex");
  });
}
