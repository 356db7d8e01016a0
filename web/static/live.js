// At one table: when somebody else changes what a page shows, the page shows it at once.
// What is being typed waits, so that an argument about a field is asked, not decided.
"use strict";

{
  const top = document.querySelector("[data-live]");
  // What the page shows; a change between its coming and the line's is told by the line's first word.
  let known = top?.dataset.liveAt || null, waits = false, asking = false;
  const busy = () => typed || asking || document.querySelector("dialog[open]") !== null;
  const refresh = async () => {
    if (busy()) { waits = true; return; }
    waits = false;
    asking = true;
    try {
      const answer = await fetch(location.href, { headers: { "X-Live": "1" } });
      if (!answer.ok) return;
      const page = new DOMParser().parseFromString(await answer.text(), "text/html");
      const now = document.getElementById("main"), next = page.getElementById("main");
      if (!now || !next || typed) { waits = true; return; }
      // A search that is watched here goes on.
      Idiomorph.morph(now, next, { ignoreActiveValue: document.activeElement.matches("input, textarea, select"), callbacks: { beforeNodeMorphed: (node) => !node.matches?.("form.search") } });
      htmx.process(document.getElementById("main"));
    } finally {
      asking = false;
    }
  };
  if (top && window.EventSource) {
    const line = new EventSource(top.dataset.live);
    line.onmessage = (event) => {
      const first = known === null;
      if (event.data === known) return;
      known = event.data;
      if (!first) refresh();
    };
    document.addEventListener("htmx:afterSettle", () => { if (waits) refresh(); });
    addEventListener("pagehide", () => line.close());
  }
}
