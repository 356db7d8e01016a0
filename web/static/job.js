// Sheets under the hand: resting on a piece shows where it goes. In a job,
// choosing it shows what can be done and dragging it puts it elsewhere; and a
// search can be watched and stopped.
"use strict";

const job = () => document.getElementById("job");
const pieceOf = (event) => event.target.closest?.("[data-key]");

// A key is where the piece lies, and which picture shows where it goes.
const keyOf = (piece) => piece.dataset.key.split(" ");

function show(piece) {
  const [, where] = keyOf(piece);
  for (const figure of document.querySelectorAll(".where")) figure.hidden = figure.id !== where;
}

function choose(piece) {
  show(piece);
  if (!job()) return;
  const [at] = keyOf(piece);
  htmx.ajax("GET", `/jobs/${job().dataset.job}/piece?at=${at}`, { target: "#piece", swap: "innerHTML" });
}

document.addEventListener("pointerover", (event) => { if (pieceOf(event)) show(pieceOf(event)); });
document.addEventListener("focusin", (event) => { if (pieceOf(event)) show(pieceOf(event)); });
document.addEventListener("keydown", (event) => {
  if (pieceOf(event) && (event.key === "Enter" || event.key === " ")) {
    event.preventDefault();
    choose(pieceOf(event));
  }
});

// Dragging: the piece follows the hand in the sheet's own millimetres, and is
// put down on the nearest tick.
let drag = null;
const inMM = (svg, event) => new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
document.addEventListener("pointerdown", (event) => {
  const piece = pieceOf(event);
  if (!piece || event.button !== 0) return;
  const svg = piece.ownerSVGElement;
  drag = { piece, svg, from: inMM(svg, event), by: { x: 0, y: 0 }, moved: false };
});
document.addEventListener("pointermove", (event) => {
  if (!drag || !job()?.dataset.planned) return;
  const to = inMM(drag.svg, event);
  drag.by = { x: to.x - drag.from.x, y: to.y - drag.from.y };
  drag.moved = drag.moved || Math.hypot(drag.by.x, drag.by.y) > 4;
  if (drag.moved) drag.piece.setAttribute("transform", `translate(${drag.by.x} ${drag.by.y})`);
});
document.addEventListener("pointerup", () => {
  if (!drag) return;
  const { piece, by, moved } = drag;
  drag = null;
  if (!moved) {
    choose(piece);
    return;
  }
  const tick = Number(job().dataset.tick);
  const box = piece.getBBox();
  const snap = (mm) => `${Math.max(0, Math.round(Math.round(mm / tick) * tick * 1e6) / 1e6)} mm`;
  htmx.ajax("POST", `/jobs/${job().dataset.job}/hold`, {
    target: "#job", swap: "morph", values: { at: keyOf(piece)[0], x: snap(box.x + by.x), y: snap(box.y + by.y), do: "keep" },
  });
});

document.addEventListener("alpine:init", () => {
  Alpine.data("search", () => ({
    running: false,
    idle: true,
    part: 0,
    says: "",
    async start() {
      const form = this.$root;
      this.abort = new AbortController();
      this.running = true;
      this.idle = false;
      this.part = 0;
      this.says = "Looking…";
      try {
        const answer = await fetch(form.action, {
          method: "POST", body: new URLSearchParams(new FormData(form)), headers: { Accept: "application/x-ndjson" }, signal: this.abort.signal,
        });
        if (!answer.ok) throw new Error("refused");
        await this.read(answer.body.pipeThrough(new TextDecoderStream()).getReader());
        this.end("This is the best found.");
      } catch (error) {
        this.end(error.name === "AbortError" ? "Stopped; the best is kept." : "The search broke off; the best is kept.");
      }
    },
    async read(lines) {
      let rest = "";
      for (;;) {
        const { value, done } = await lines.read();
        if (done) return;
        const parts = (rest + value).split("\n");
        rest = parts.pop();
        for (const line of parts) this.take(JSON.parse(line));
      }
    },
    take(found) {
      this.part = found.part;
      this.says = found.says;
      if (found.html) document.getElementById("job-sheets").innerHTML = found.html;
    },
    stop() {
      this.abort?.abort();
    },
    async end(words) {
      this.running = false;
      this.idle = true;
      // The page is drawn anew first: that would take the words away again.
      this.says = "";
      await htmx.ajax("GET", `/jobs/${job().dataset.job}`, { target: "#job", swap: "morph" });
      this.says = words;
    },
  }));
});
