// An offcut is drawn corner by corner, on squares or over its photograph. What is drawn is written into the
// form's list of corners, and what is typed there is drawn.
"use strict";

(() => {
  const board = document.getElementById("shape-board");
  if (!board) return;
  const list = document.getElementById("f-shape");
  const outline = document.getElementById("shape-outline");
  const handles = document.getElementById("shape-corners");
  const size = document.getElementById("shape-size");
  const step = Number(board.dataset.step);
  const per = Number(board.dataset.in);
  const [, , wide, high] = board.getAttribute("viewBox").split(" ").map(Number);
  let corners = [];
  let held = -1;

  const number = (text) => {
    const parts = text.trim().split(/\s+/);
    let sum = 0;
    for (const part of parts) {
      const [over, under] = part.split("/");
      sum += Number(over) / (under ? Number(under) : 1);
    }
    return parts[0] === "" ? NaN : sum;
  };
  const read = () => list.value.split(/[;\n]/).filter((c) => c.trim() !== "").map((c) => c.split(",").map((n) => number(n) * per));
  const write = () => {
    list.value = corners.map(([x, y]) => `${+(x / per).toFixed(4)}, ${+(y / per).toFixed(4)}`).join("; ");
  };
  const draw = () => {
    outline.setAttribute("points", corners.map((c) => c.join(",")).join(" "));
    handles.replaceChildren(...corners.map(([x, y]) => {
      const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle");
      dot.setAttribute("cx", x);
      dot.setAttribute("cy", y);
      dot.setAttribute("r", 4);
      return dot;
    }));
    const span = (k) => (corners.length ? Math.max(...corners.map((c) => c[k])) - Math.min(...corners.map((c) => c[k])) : 0);
    const unit = { 25.4: "in", 10: "cm", 1: "mm" }[per];
    size.textContent = corners.length > 1 ? `${+(span(0) / per).toFixed(2)} × ${+(span(1) / per).toFixed(2)} ${unit} over all` : "";
  };
  const at = (event) => {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(board.getScreenCTM().inverse());
    const on = (v, most) => Math.round(Math.min(most, Math.max(0, Math.round(v / step) * step)) * 1e6) / 1e6;
    return [on(p.x, wide - 8), on(p.y, high - 8)];
  };
  // A corner that is pressed between two others comes between them.
  const beside = ([x, y]) => {
    let best = corners.length;
    let near = 6;
    for (let i = 0; corners.length > 2 && i < corners.length; i++) {
      const [ax, ay] = corners[i];
      const [bx, by] = corners[(i + 1) % corners.length];
      const long = (bx - ax) ** 2 + (by - ay) ** 2;
      const t = long ? Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long)) : 0;
      const off = Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
      if (off < near) [near, best] = [off, i + 1];
    }
    return best;
  };
  board.addEventListener("pointerdown", (event) => {
    const p = at(event);
    held = corners.findIndex(([x, y]) => Math.hypot(x - p[0], y - p[1]) < 7);
    if (held < 0) {
      held = beside(p);
      corners.splice(held, 0, p);
    }
    board.setPointerCapture(event.pointerId);
    event.preventDefault();
    write();
    draw();
  });
  board.addEventListener("pointermove", (event) => {
    if (held < 0 || !board.hasPointerCapture(event.pointerId)) return;
    corners[held] = at(event);
    write();
    draw();
  });
  board.addEventListener("pointerup", () => { held = -1; });
  document.getElementById("shape-back").addEventListener("click", () => { corners.pop(); write(); draw(); });
  document.getElementById("shape-anew").addEventListener("click", () => { corners = []; write(); draw(); });
  const follow = () => {
    const typed = read();
    if (typed.every((c) => c.length === 2 && c.every(Number.isFinite))) corners = typed;
    draw();
  };
  list.addEventListener("input", follow);
  follow();
})();
