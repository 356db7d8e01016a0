// A change is kept or it is said at once: what the program did not take stays
// in its field and is sent again until it is through.
"use strict";

const unkept = new Map(); // what was not taken: its form, and how to send it again
const sending = new Set(); // forms whose change is on its way
let bar = null;
let again = null;
let aside = null; // the good news goes by itself, what is said after it stays
let pause = 1;

// A page that is left while its change is on its way waits for the answer.
let then = null;

function say(text, how) {
  if (!bar) {
    bar = document.createElement("div");
    bar.id = "kept";
    const words = document.createElement("p");
    const now = document.createElement("button");
    now.type = "button";
    now.className = "btn btn-plain";
    now.textContent = "Send it now";
    now.addEventListener("click", resend);
    bar.append(words, now);
    document.body.append(bar);
  }
  bar.hidden = !text;
  bar.setAttribute("role", how === "kept" ? "status" : "alert");
  bar.className = how;
  bar.firstChild.textContent = text;
  bar.lastChild.hidden = how !== "waits";
  clearTimeout(aside);
  if (how === "kept") aside = setTimeout(() => { bar.hidden = true; }, 4000);
}

function lost(form, send, reason, retry) {
  clearTimeout(again);
  if (!retry) {
    unkept.delete(form);
    say("Not kept: " + reason, "refused");
    return;
  }
  unkept.set(form, send);
  say("Not kept yet: " + reason, "waits");
  again = setTimeout(resend, pause * 1000);
  pause = Math.min(pause * 2, 30);
}

function resend() {
  for (const [form, send] of [...unkept]) {
    if (!form.isConnected) unkept.delete(form);
    else if (!sending.has(form)) send();
  }
}

function through(form) {
  const waited = unkept.delete(form);
  pause = 1;
  if (unkept.size) return;
  clearTimeout(again);
  if (waited) say("Kept now. What you typed is safe.", "kept");
  else if (bar?.className === "refused") bar.hidden = true;
}

const gone = "Brevium does not answer. What you typed stays here and is sent again by itself; leave this page open.";
const changes = (config) => config && config.verb !== "get";
// Who asked, though the answer may have taken it off the page: the event itself then
// comes from whatever was around it.
const asker = (event) => event.detail.requestConfig.elt;

document.addEventListener("htmx:beforeSend", (event) => {
  if (changes(event.detail.requestConfig)) sending.add(asker(event));
});
document.addEventListener("htmx:afterRequest", (event) => {
  const { requestConfig, xhr, successful } = event.detail;
  if (!changes(requestConfig)) return;
  const elt = asker(event);
  sending.delete(elt);
  if (successful || (xhr.status === 422 && !plain(xhr))) through(elt);
  else if (xhr.status === 422) failed(event, xhr.responseText, false);
  // A newer value of the same form may be about to go in place of this one.
  setTimeout(leave);
});

function leave() {
  if (sending.size || !then) return;
  const go = then;
  then = null;
  if (!unkept.size) go();
}

// The program's own sentence comes as plain text; a page is for its frame.
const plain = (xhr) => (xhr.getResponseHeader("Content-Type") || "").startsWith("text/plain");

function failed(event, reason, retry) {
  const { requestConfig } = event.detail;
  if (!changes(requestConfig)) return;
  const elt = asker(event);
  const { verb, path, triggeringEvent, formData } = requestConfig;
  const pressed = triggeringEvent?.submitter;
  let values = pressed?.name ? { [pressed.name]: pressed.value } : {};
  if (!(elt instanceof HTMLFormElement)) values = Object.fromEntries(formData);
  lost(elt, () => htmx.ajax(verb, path, { source: elt, values }), reason, retry);
}
document.addEventListener("htmx:sendError", (event) => failed(event, gone, true));
document.addEventListener("htmx:timeout", (event) => failed(event, gone, true));
document.addEventListener("htmx:responseError", (event) => {
  const { xhr } = event.detail;
  const { status } = xhr;
  failed(event, plain(xhr) ? xhr.responseText.trim() : "Brevium could not take this.", status >= 500 || status === 408 || status === 429);
});

// A form that loads a new page is only sent when somebody is there to take
// it: else what was typed would go with the page.
const sure = new WeakSet();
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (event.defaultPrevented || form.method !== "post" || form.hasAttribute("hx-post") || sure.delete(form)) return;
  event.preventDefault();
  const { submitter } = event;
  const send = async () => {
    let answer = null;
    sending.add(form);
    try {
      answer = await fetch("/health", { cache: "no-store" });
    } catch {
      // Nobody answered.
    }
    sending.delete(form);
    if (answer?.ok) {
      through(form);
      sure.add(form);
      form.requestSubmit(submitter?.isConnected ? submitter : null);
    } else {
      lost(form, send, answer ? await answer.text() : gone, true);
    }
  };
  send();
});

document.addEventListener("click", (event) => {
  const link = event.target.closest("a[href]");
  if (!link || !sending.size || event.ctrlKey || event.metaKey || event.shiftKey || event.button || link.target) return;
  event.preventDefault();
  then = () => { location.href = link.href; };
});
window.addEventListener("beforeunload", (event) => { if (unkept.size) event.preventDefault(); });
