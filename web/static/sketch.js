// The lines of a sketch over its photograph: pressed, moved by their ends, made folds or cuts,
// taken out and drawn. What they are then is written into the form's own field, a line each.
"use strict";

const sketched = document.getElementById("sketch");
if (sketched) {
  const field = document.querySelector('[name="lines"]');
  const group = document.getElementById("sketch-lines");
  const says = document.getElementById("sketch-says");
  const NS = "http://www.w3.org/2000/svg";
  let lines = [];
  let chosen = -1;
  let drawing = null;

  const read = () => field.value.split("\n").flatMap((row) => {
    const [said, doubt] = row.split("?");
    const words = said.trim().split(/\s+/);
    const at = words.slice(1).map((w) => Number(w.replace(",", ".")));
    return words.length === 5 && !at.some(Number.isNaN) ? [{ fold: words[0] === "fold", at, doubt: (doubt || "").trim() }] : [];
  });
  const write = () => {
    field.value = lines.map((l) => `${l.fold ? "fold" : "cut"} ${l.at.map((x) => x.toFixed(2)).join(" ")}${l.doubt ? "  ? " + l.doubt : ""}`).join("\n") + "\n";
  };
  const long = (l) => Math.hypot(l.at[2] - l.at[0], l.at[3] - l.at[1]);
  const name = (l, i) => `Line ${i + 1}, a ${l.fold ? "fold" : "cut"}, ${long(l).toFixed(0)} mm long${l.doubt ? ": look at it, " + l.doubt : ""}`;
  const make = (kind, of, into) => {
    const x = document.createElementNS(NS, kind);
    for (const [key, value] of Object.entries(of)) x.setAttribute(key, value);
    into.append(x);
    return x;
  };
  const show = () => {
    const had = group.contains(document.activeElement);
    group.replaceChildren();
    lines.forEach((l, i) => {
      const g = make("g", { class: `sketch-line${l.fold ? " fold" : ""}${l.doubt ? " doubt" : ""}${i === chosen ? " chosen" : ""}`, tabindex: i === Math.max(0, chosen) ? 0 : -1, role: "button", "aria-label": name(l, i), "aria-pressed": i === chosen, "data-line": i }, group);
      const [x1, y1, x2, y2] = l.at;
      make("line", { class: "wide", x1, y1, x2, y2 }, g);
      make("line", { x1, y1, x2, y2 }, g);
      make("text", { x: (x1 + x2) / 2, y: (y1 + y2) / 2 }, g).textContent = i + 1;
    });
    if (chosen >= 0) {
      const [x1, y1, x2, y2] = lines[chosen].at;
      make("circle", { class: "end", cx: x1, cy: y1, r: 2.4, "data-end": 0 }, group);
      make("circle", { class: "end", cx: x2, cy: y2, r: 2.4, "data-end": 1 }, group);
      if (had) group.querySelector(".chosen").focus();
    }
    says.textContent = chosen < 0 ? "No line is chosen." : name(lines[chosen], chosen) + ".";
  };
  const changed = () => { if (chosen >= 0) lines[chosen].doubt = ""; write(); show(); };
  const choose = (i) => { chosen = i; show(); };
  const place = (e) => {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(sketched.getScreenCTM().inverse());
    const box = sketched.viewBox.baseVal;
    return [Math.min(box.width, Math.max(0, p.x)), Math.min(box.height, Math.max(0, p.y))];
  };
  const ask = {
    fold: () => { lines[chosen].fold = true; changed(); },
    cut: () => { lines[chosen].fold = false; changed(); },
    out: () => { lines.splice(chosen, 1); chosen = -1; changed(); },
  };

  document.querySelector(".sketch-tools").classList.remove("waits");
  document.querySelector(".sketch-tools").addEventListener("click", (e) => {
    const what = e.target.dataset.do;
    if (what === "new") {
      drawing = [];
      says.textContent = "Press where the line begins, then where it ends.";
    } else if (what && chosen >= 0) ask[what]();
    else if (what) says.textContent = "Choose a line first.";
  });
  sketched.addEventListener("pointerdown", (e) => {
    if (drawing) {
      drawing.push(...place(e));
      if (drawing.length === 4) {
        lines.push({ fold: false, at: drawing, doubt: "" });
        drawing = null;
        chosen = lines.length - 1;
        changed();
      } else says.textContent = "And where does it end?";
      return;
    }
    const end = e.target.dataset.end;
    if (end !== undefined) {
      e.preventDefault();
      const move = (m) => { lines[chosen].at.splice(2 * Number(end), 2, ...place(m)); changed(); };
      const stop = () => { sketched.removeEventListener("pointermove", move); sketched.removeEventListener("pointerup", stop); sketched.removeEventListener("pointercancel", stop); };
      sketched.setPointerCapture(e.pointerId);
      sketched.addEventListener("pointermove", move);
      sketched.addEventListener("pointerup", stop);
      sketched.addEventListener("pointercancel", stop);
      return;
    }
    const on = e.target.closest("[data-line]");
    choose(on ? Number(on.dataset.line) : -1);
  });
  group.addEventListener("keydown", (e) => {
    const on = e.target.closest("[data-line]");
    if (!on) return;
    const i = Number(on.dataset.line);
    const step = { ArrowLeft: [-0.5, 0], ArrowRight: [0.5, 0], ArrowUp: [0, -0.5], ArrowDown: [0, 0.5] }[e.key];
    if (e.key === "Enter" || e.key === " ") choose(i);
    else if (e.key === "Escape" && chosen >= 0) { choose(-1); group.querySelector(`[data-line="${i}"]`).focus(); }
    else if (step && chosen < 0) group.querySelector(`[data-line="${(i + lines.length + (step[0] + step[1] > 0 ? 1 : -1)) % lines.length}"]`).focus();
    else if (e.key === "Delete" && i === chosen) ask.out();
    else if (step && i === chosen) {
      lines[i].at = lines[i].at.map((x, k) => (e.shiftKey && k < 2 ? x : x + step[k % 2]));
      changed();
    } else return;
    e.preventDefault();
  });
  field.addEventListener("input", () => { lines = read(); chosen = -1; show(); });
  lines = read();
  show();
}
