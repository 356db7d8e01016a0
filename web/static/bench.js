// At the bench: space, the arrows, the page keys or a foot pedal go on and back, and
// so does a tap on either half of the picture. The screen stays awake.
"use strict";

const press = (id) => {
  const button = document.getElementById(id);
  if (!button || button.disabled) return;
  window.htmx?.process(button.form); // a quick hand comes before the page has settled
  button.click();
};
document.addEventListener("keydown", (e) => {
  if (e.target.matches("a, button, input") && (e.key === " " || e.key === "Enter")) return;
  const go = { " ": "on", ArrowRight: "on", ArrowDown: "on", PageDown: "on", Enter: "on", ArrowLeft: "back", ArrowUp: "back", PageUp: "back", Backspace: "back" }[e.key];
  if (!go || e.altKey || e.ctrlKey || e.metaKey || e.repeat) return;
  e.preventDefault();
  press("bench-" + go);
});
document.addEventListener("click", (e) => {
  const half = e.target.closest(".move-picture");
  if (half) press(e.clientX < innerWidth / 3 ? "bench-back" : "bench-on");
});
const awake = async () => {
  try { await navigator.wakeLock?.request("screen"); } catch { /* it may sleep, then */ }
};
document.addEventListener("visibilitychange", () => { if (!document.hidden) awake(); });
awake();

// The clock runs by itself while the page is seen, stops when it is not or when no
// one has gone on for long, and may be ignored.
const longest = 15 * 60;
let took = 0;
setInterval(() => {
  if (document.hidden || took >= longest) return;
  took++;
  const clock = document.querySelector("[data-clock]");
  if (clock) clock.textContent = ` · ${Math.floor(took / 60)}:${String(took % 60).padStart(2, "0")}`;
}, 1000);
document.addEventListener("htmx:configRequest", (e) => { if (e.target.matches(".move-on")) e.detail.parameters.set("took", took); });

// What is to be done is said aloud when it is asked for, where the browser can.
const speaks = "speechSynthesis" in window;
const wanted = () => localStorage.getItem("bench-speaks") === "on";
function say() {
  const box = document.querySelector("[data-speak]");
  if (!box || !speaks) return;
  box.closest("label").hidden = false;
  box.checked = wanted();
  speechSynthesis.cancel();
  const words = document.querySelector(".move-says");
  if (wanted() && words) speechSynthesis.speak(new SpeechSynthesisUtterance(words.innerText));
}
document.addEventListener("change", (e) => {
  if (!e.target.matches("[data-speak]")) return;
  localStorage.setItem("bench-speaks", e.target.checked ? "on" : "off");
  say();
});
// Where the browser hears, "done" goes on and "back" goes back. It is asked for each
// time, since a browser may send what it hears to its maker.
const hears = () => window.SpeechRecognition || window.webkitSpeechRecognition;
let hearing = null;
function offerListening() {
  const box = document.querySelector("[data-listen]");
  if (!box || !hears()) return;
  box.closest("label").hidden = false;
  box.checked = hearing !== null;
}
function listen(on) {
  if (hearing) { hearing.onend = null; hearing.stop(); hearing = null; }
  if (!on) return;
  hearing = new (hears())();
  hearing.continuous = true;
  hearing.lang = "en";
  hearing.onresult = (e) => {
    const said = e.results[e.results.length - 1][0].transcript.toLowerCase();
    if (/\bback\b/.test(said)) press("bench-back");
    else if (/\b(done|next|go on)\b/.test(said)) press("bench-on");
  };
  hearing.onend = () => hearing && hearing.start(); // it stops by itself in silence
  hearing.onerror = (e) => { if (e.error === "not-allowed") { listen(false); offerListening(); } };
  hearing.start();
}
document.addEventListener("change", (e) => { if (e.target.matches("[data-listen]")) listen(e.target.checked); });
offerListening();
document.addEventListener("htmx:afterSettle", () => { took = 0; say(); offerListening(); });
say();
