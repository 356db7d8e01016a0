// A word that is not understood is gone to in the text when it is pressed.
"use strict";

document.addEventListener("click", (e) => {
  const odd = e.target.closest("[data-from]");
  if (!odd) return;
  const text = document.getElementById("f-text");
  text.focus();
  text.setSelectionRange(Number(odd.dataset.from), Number(odd.dataset.to));
});
