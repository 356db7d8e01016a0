// What the hand holds stays in it while the page changes round it: what is
// open stays open, the focus stays where it was, and a field that was not
// taken is brought into sight.
"use strict";

// What was put into a field since its form was last sent, with or without the focus in it: the
// answer to what was there before does not take it back.
const newer = new Set();
document.addEventListener("input", (event) => { newer.add(event.target); });
document.addEventListener("htmx:beforeRequest", (event) => {
  for (const field of newer) if (field.form === event.detail.elt || event.detail.elt.contains(field) || !field.isConnected) newer.delete(field);
});

if (window.Idiomorph) {
  // The hand opens and closes things, not the page; and what a script decides stays as that has it.
  Idiomorph.defaults.callbacks.beforeAttributeUpdated = (name, node) =>
    !(name === "open" && node.matches("details, dialog")) && !(name === "value" && newer.has(node)) && !node.hasAttribute("x-bind:" + name);
}

// intoSight brings a field into sight, opening what it lies in.
function intoSight(field) {
  for (let at = field.closest("details"); at; at = at.parentElement.closest("details")) at.open = true;
  field.focus({ preventScroll: true });
  field.scrollIntoView({ block: "center" });
}
const refusedFields = () => [...document.querySelectorAll("main [aria-invalid=true], .box-bar [aria-invalid=true]")];
const asTyped = (field) => field.name + "=" + field.value;

let held = null; // what had the focus before the page changed
let typed = false; // since the last change was sent
let told = new Set(); // refusals that were shown already
document.addEventListener("input", () => { typed = true; });
document.addEventListener("htmx:beforeRequest", () => { typed = false; });
document.addEventListener("htmx:beforeSwap", () => {
  const at = document.activeElement;
  // What is being typed stays; a button that has the focus gets its new words.
  if (window.Idiomorph) Idiomorph.defaults.ignoreActiveValue = at.matches("input, textarea, select");
  held = at && at !== document.body ? { id: at.id, name: at.name, value: at.value } : null;
});
document.addEventListener("htmx:afterSettle", () => {
  const wrong = refusedFields();
  const fresh = wrong.find((field) => !told.has(asTyped(field)));
  told = new Set(wrong.map(asTyped));
  if (fresh && !typed && document.activeElement !== fresh) intoSight(fresh);
  if (document.activeElement !== document.body || !held) return;
  const same = held.name && [...document.getElementsByName(held.name)].find((one) => one.value === held.value);
  const again = (held.id && document.getElementById(held.id)) || same;
  const place = again && again.checkVisibility() ? again : document.querySelector("main h1");
  place?.focus({ preventScroll: true });
});
document.addEventListener("DOMContentLoaded", () => {
  const [wrong] = refusedFields();
  if (wrong) intoSight(wrong);
});
document.addEventListener("click", (event) => {
  const go = event.target.closest("[data-go]");
  const field = go && document.getElementById(go.dataset.go);
  if (field) intoSight(field);
});
window.addEventListener("beforeunload", (event) => {
  if (document.querySelector("#stop-form [aria-invalid=true], #title-form [aria-invalid=true]")) event.preventDefault();
});
