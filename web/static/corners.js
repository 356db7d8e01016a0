// The four marks on a photograph of a paper: dragged, or moved by the arrow keys.
// Where they lie is written into the form's own fields, in percent.
"use strict";

const board = document.getElementById("corners");
if (board) {
  const marks = [...board.querySelectorAll(".corner")];
  const field = (axis, i) => document.getElementById(`f-${axis}${i}`);
  const inside = (v) => Math.min(100, Math.max(0, v));
  const place = () => {
    const at = marks.map((mark, i) => {
      const x = inside(Number(field("x", i).value) || 0);
      const y = inside(Number(field("y", i).value) || 0);
      mark.style.left = x + "%";
      mark.style.top = y + "%";
      return `${x},${y}`;
    });
    board.querySelector("polygon").setAttribute("points", at.join(" "));
  };
  const move = (i, x, y) => {
    field("x", i).value = inside(x).toFixed(1);
    field("y", i).value = inside(y).toFixed(1);
    place();
  };
  marks.forEach((mark, i) => {
    mark.addEventListener("pointerdown", (e) => { mark.setPointerCapture(e.pointerId); e.preventDefault(); mark.focus(); });
    mark.addEventListener("pointermove", (e) => {
      if (!mark.hasPointerCapture(e.pointerId)) return;
      const b = board.getBoundingClientRect();
      move(i, ((e.clientX - b.left) / b.width) * 100, ((e.clientY - b.top) / b.height) * 100);
    });
    mark.addEventListener("keydown", (e) => {
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
      if (!step) return;
      e.preventDefault();
      const far = e.shiftKey ? 2 : 0.4;
      move(i, Number(field("x", i).value) + step[0] * far, Number(field("y", i).value) + step[1] * far);
    });
  });
  for (const axis of ["x", "y"]) marks.forEach((_, i) => field(axis, i).addEventListener("input", place));
  place();
}
