// What is placed on a face is pressed and dragged on the flat piece: a press opens its part of the
// ticket, a drag or an arrow key moves it; where it comes to lie, on the ruler's marks, the program
// works out.
"use strict";

(() => {
  let drag = null;
  const pickOf = (event) => event.target.closest?.(".label-pick");
  const inMM = (svg, event) => new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());

  function open(key) {
    const asks = document.querySelector(`[data-label="${CSS.escape(key)}"]`);
    const slip = asks?.closest("details");
    if (!slip) return;
    for (const other of document.querySelectorAll("details.slip-of[open]")) other.open = other === slip;
    slip.open = true;
    slip.scrollIntoView({ block: "nearest" });
  }

  function move(key, x, y) {
    const asked = document.querySelector("#label-drag");
    if (!asked) return;
    asked.disabled = false;
    asked.value = `${key} ${x.toFixed(3)} ${y.toFixed(3)}`;
    asked.form.requestSubmit();
  }

  document.addEventListener("pointerdown", (event) => {
    const pick = pickOf(event);
    if (!pick || event.button) return;
    drag = { pick, svg: pick.ownerSVGElement, from: inMM(pick.ownerSVGElement, event), by: { x: 0, y: 0 } };
    pick.setPointerCapture?.(event.pointerId);
  });
  document.addEventListener("pointermove", (event) => {
    if (!drag) return;
    const to = inMM(drag.svg, event);
    drag.by = { x: to.x - drag.from.x, y: to.y - drag.from.y };
    drag.pick.setAttribute("transform", `translate(${drag.by.x} ${drag.by.y})`);
    drag.pick.classList.add("dragged");
  });
  document.addEventListener("pointercancel", () => {
    drag?.pick.removeAttribute("transform");
    drag = null;
  });
  document.addEventListener("pointerup", () => {
    if (!drag) return;
    const { pick, by } = drag;
    drag = null;
    open(pick.dataset.key);
    if (Math.hypot(by.x, by.y) > 0.8) {
      move(pick.dataset.key, by.x, by.y);
    } else {
      pick.removeAttribute("transform");
      pick.classList.remove("dragged");
    }
  });
  // A step of the keys is longer than what is drawn to the middle or to an edge.
  const ways = { ArrowLeft: [-2, 0], ArrowRight: [2, 0], ArrowUp: [0, -2], ArrowDown: [0, 2] };
  document.addEventListener("keydown", (event) => {
    const pick = pickOf(event);
    if (!pick) return;
    if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      open(pick.dataset.key);
    } else if (ways[event.key]) {
      event.preventDefault();
      move(pick.dataset.key, ...ways[event.key]);
    }
  });
})();
