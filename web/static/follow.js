// In a class: all steps are on the page already, so that they are there when the
// connection is not. Where one is, and whether one asks for help, is kept on the phone and
// sent until it has arrived.
"use strict";

{
  const page = document.getElementById("follow");
  const key = `class-${page.dataset.code}-${page.dataset.seat}`;
  const moves = [...page.querySelectorAll("[data-move]")];
  const last = moves.length - 1;
  const read = () => { try { return JSON.parse(localStorage.getItem(key)); } catch { return null; } };
  const kept = read();
  // What was not sent yet is newer than what the page was told.
  const now = kept && !kept.sent ? kept : { at: +page.dataset.at, help: page.dataset.help === "1", sent: true };
  const keep = () => { try { localStorage.setItem(key, JSON.stringify(now)); } catch { /* it is kept while the page is open */ } };
  const sent = document.getElementById("follow-sent");
  const show = () => {
    now.at = Math.max(0, Math.min(now.at, last));
    for (const m of moves) m.hidden = +m.dataset.move !== now.at;
    page.querySelector("progress").value = (100 * now.at) / Math.max(1, last);
    document.getElementById("follow-where").textContent = now.at < last ? `${now.at + 1} of ${last}` : "done";
    document.getElementById("follow-back").disabled = now.at === 0;
    document.getElementById("follow-on").disabled = now.at === last;
    const help = document.getElementById("follow-help");
    help.setAttribute("aria-pressed", now.help);
    help.textContent = now.help ? "I asked for help" : "Help, please";
    sent.textContent = now.sent ? "" : "not sent yet";
  };
  let sending = false, again = null;
  const send = async () => {
    if (sending || now.sent) return;
    sending = true;
    clearTimeout(again);
    const what = { at: now.at, help: now.help };
    try {
      const answer = await fetch(`/class/${page.dataset.code}/at`, { method: "POST", body: new URLSearchParams({ at: what.at, help: what.help ? 1 : 0 }), signal: AbortSignal.timeout(8000) });
      if (answer.ok && what.at === now.at && what.help === now.help) { now.sent = true; keep(); }
    } catch { /* it is tried again */ }
    sending = false;
    show();
    if (!now.sent) again = setTimeout(send, 1500);
  };
  const change = (by) => { Object.assign(now, by, { sent: false }); keep(); show(); send(); };
  document.getElementById("follow-on").addEventListener("click", () => change({ at: now.at + 1, help: false }));
  document.getElementById("follow-back").addEventListener("click", () => change({ at: now.at - 1 }));
  document.getElementById("follow-help").addEventListener("click", () => change({ help: !now.help }));
  addEventListener("online", send);
  show();
  send();
}
