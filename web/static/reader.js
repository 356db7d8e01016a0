// A word that is not understood is gone to in the text when it is pressed; a number lights up what
// it tells in the drawings, and a line the number that tells it.
"use strict";

function light(use, on) {
  for (const b of document.querySelectorAll("[data-use]")) {
    b.setAttribute("aria-pressed", String(on && b.dataset.use === use));
  }
  for (const line of document.querySelectorAll(".read-net [data-key]")) {
    line.classList.toggle("told", on && line.dataset.key === use);
  }
  const piece = document.querySelector(".read-net:has(.told)");
  if (piece) piece.scrollIntoView({ block: "nearest" });
}

document.addEventListener("click", (e) => {
  const odd = e.target.closest("[data-from]");
  if (odd) {
    const text = document.getElementById("f-text");
    text.focus();
    text.setSelectionRange(Number(odd.dataset.from), Number(odd.dataset.to));
    return;
  }
  const number = e.target.closest("[data-use]");
  if (number) {
    light(number.dataset.use, number.getAttribute("aria-pressed") !== "true");
    return;
  }
  const line = e.target.closest(".read-net [data-key]");
  if (line) light(line.dataset.key, !line.classList.contains("told"));
});
