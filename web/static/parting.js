// A face is parted by pressing it in the drawing and then two of its points, while that
// part of the table is open. What is pressed is chosen in the form's own fields.
"use strict";

(() => {
  const parting = () => document.querySelector(".parting[open]");
  const asked = (name) => document.querySelector(`[name="divide.${name}"]`);
  let first = null; // the point that was pressed before

  const press = (target) => {
    if (!parting()) return false;
    const face = target.closest?.(".face-pick");
    if (face) {
      const select = asked("face");
      first = null;
      select.value = face.dataset.key.split("/")[1];
      select.dispatchEvent(new Event("change", { bubbles: true }));
      return true;
    }
    const point = target.closest?.(".point-pick");
    if (!point) return false;
    const at = point.dataset.key;
    if (first === at) first = null;
    else if (first === null) first = at;
    else {
      asked("from").value = first;
      asked("to").value = at;
      first = null;
      const button = document.querySelector('.parting [value="divide"]');
      button.focus({ preventScroll: true }); // a form tells its last button until the focus leaves it
      button.click();
    }
    for (const one of document.querySelectorAll(".point-pick")) one.setAttribute("aria-pressed", String(one.dataset.key === first));
    return true;
  };
  // Before the page's own way with faces, which goes to their line of the table.
  document.addEventListener("click", (event) => { if (press(event.target)) event.stopImmediatePropagation(); }, true);
  document.addEventListener("keydown", (event) => {
    if (event.key !== "Enter" && event.key !== " " || !press(event.target)) return;
    event.preventDefault();
    event.stopImmediatePropagation();
  }, true);
})();
