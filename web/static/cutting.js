// The cutting mat plays what a machine did: each stroke has its time in the picture. Pieces lift
// when the stroke that frees them is done. Nothing here works anything out.
"use strict";
(() => {
  const picture = document.getElementById("cutting-picture");
  const play = document.getElementById("cutting-play");
  if (!picture || !play) return;
  const still = matchMedia("(prefers-reduced-motion: reduce)");
  const slider = document.getElementById("cutting-at");
  const now = document.getElementById("cutting-now");
  const run = document.getElementById("cutting-run");
  const speed = document.getElementById("cutting-speed");
  const head = document.getElementById("cutting-head");
  const whole = Number(picture.dataset.seconds);
  const strokes = [...picture.querySelectorAll(".stroke")].map((path, i) => ({
    path, n: i + 1, from: Number(path.dataset.from), to: Number(path.dataset.to), long: path.getTotalLength(),
    word: picture.querySelectorAll(".stroke-numbers text")[i],
  }));
  const pieces = [...picture.querySelectorAll(".off path")].map((path) => ({ path, after: strokes[Number(path.dataset.with) - 1]?.to ?? 0 }));
  if (strokes.length === 0) return;
  play.classList.add("playable");
  let at = whole; // seconds
  let last = null; // when the picture was drawn last, while it plays

  const clock = (s) => Math.floor(s / 60) + ":" + String(Math.floor(s % 60)).padStart(2, "0");

  function show() {
    let doing = null;
    for (const s of strokes) {
      const done = Math.min(1, Math.max(0, (at - s.from) / (s.to - s.from || 1)));
      s.path.style.strokeDasharray = done < 1 ? `${s.long * done} ${s.long + 1}` : "";
      s.path.classList.toggle("to-come", done === 0);
      s.word.classList.toggle("to-come", done === 0);
      if (at >= s.from) doing = { ...s, done };
    }
    for (const p of pieces) p.path.classList.toggle("lifted", at >= p.after && p.after > 0);
    if (doing && at < whole) {
      const tip = doing.path.getPointAtLength(doing.long * doing.done);
      head.setAttribute("transform", `translate(${tip.x} ${tip.y})`);
    }
    head.toggleAttribute("hidden", !doing || at >= whole);
    slider.value = at;
    const words = !doing ? "Setting up" : at >= whole ? `All ${strokes.length} strokes` : `Stroke ${doing.n} of ${strokes.length}, ${doing.path.dataset.of}`;
    now.textContent = `${words}, ${clock(at)} of ${clock(whole)}`;
    slider.setAttribute("aria-valuetext", now.textContent);
  }

  function stop() {
    last = null;
    run.textContent = "Play";
  }

  function tick(time) {
    if (last === null) return;
    at += ((time - last) / 1000) * Number(speed.value);
    last = time;
    if (at >= whole) {
      at = whole;
      stop();
    }
    show();
    if (last !== null) requestAnimationFrame(tick);
  }

  // With less motion the picture goes from stroke to stroke.
  function step(way) {
    const ends = [0, ...strokes.map((s) => s.to), whole];
    at = way > 0 ? ends.find((e) => e > at + 1e-6) ?? whole : ends.findLast((e) => e < at - 1e-6) ?? 0;
    show();
  }

  function start() {
    if (at >= whole) at = 0;
    if (still.matches) {
      step(1);
      return;
    }
    run.textContent = "Stop";
    last = performance.now();
    requestAnimationFrame(tick);
  }

  run.addEventListener("click", () => (last === null ? start() : stop()));
  document.getElementById("cutting-back").addEventListener("click", () => { stop(); step(-1); });
  document.getElementById("cutting-on").addEventListener("click", () => { stop(); step(1); });
  slider.addEventListener("input", () => { stop(); at = Number(slider.value); show(); });
  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("button, select, a, input, summary, textarea") && event.target !== slider) return;
    if (event.key === " ") run.click();
    else if (event.key === "ArrowLeft") document.getElementById("cutting-back").click();
    else if (event.key === "ArrowRight") document.getElementById("cutting-on").click();
    else return;
    event.preventDefault();
  });
  show();
})();
