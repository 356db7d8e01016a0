// At the door: a password is shown on demand, a new one is told how hard it is to guess.
// Passkeys: a device makes a key for this machine, and signs in with it.
"use strict";

for (const field of document.querySelectorAll("input[type=password]")) {
  const show = document.createElement("button");
  show.type = "button";
  show.className = "btn btn-plain show-password";
  show.textContent = "Show";
  show.setAttribute("aria-label", `Show: ${field.labels[0]?.textContent ?? "the password"}`);
  show.addEventListener("click", () => {
    const hidden = field.type === "password";
    field.type = hidden ? "text" : "password";
    show.textContent = hidden ? "Hide" : "Show";
    show.setAttribute("aria-pressed", hidden);
  });
  field.after(show);
  if (!("new" in field.dataset)) continue;
  const hard = document.createElement("p");
  hard.className = "hint";
  hard.setAttribute("role", "status");
  const advice = field.parentElement.querySelector(".hint"); // what is said of this one takes its place
  const say = (text) => { hard.textContent = text; if (advice) advice.hidden = text !== ""; };
  // Letters that are missing are told at once; what the machine judges a moment later.
  let soon, asked = 0;
  field.addEventListener("input", () => {
    clearTimeout(soon);
    const missing = 12 - [...field.value].length, mine = ++asked;
    say(!field.value ? "" : missing > 0 ? `${missing} ${missing === 1 ? "letter" : "letters"} to go` : "");
    if (missing > 0) return;
    soon = setTimeout(async () => {
      const name = field.form.elements.namedItem("name")?.value ?? "";
      try {
        const answer = await fetch("/sign-in/strength", { method: "POST", body: new URLSearchParams({ name, password: field.value }) });
        const text = answer.ok ? await answer.text() : "";
        if (mine === asked) say(text);
      } catch { /* it is judged when it is sent */ }
    }, 300);
  });
  show.after(hard);
}

if (window.PublicKeyCredential?.parseCreationOptionsFromJSON) {
  const said = document.getElementById("passkey-said");
  const send = async (path, body) => {
    const answer = await fetch(path, { method: "POST", headers: body ? { "Content-Type": "application/json" } : {}, body: body && JSON.stringify(body) });
    if (!answer.ok) throw new Error(await answer.text());
    return answer.status === 204 ? null : answer.json();
  };
  const offer = (id, work) => {
    const button = document.getElementById(id);
    if (!button) return;
    button.hidden = false;
    button.addEventListener("click", async () => {
      said.textContent = "";
      try { await work(); } catch (error) { said.textContent = error.name === "NotAllowedError" ? "The device gave no passkey." : error.message; }
    });
  };
  offer("passkey-new", async () => {
    const asks = await send("/me/passkeys/begin");
    const key = await navigator.credentials.create({ publicKey: PublicKeyCredential.parseCreationOptionsFromJSON(asks.publicKey) });
    await send("/me/passkeys", key.toJSON());
    location.reload();
  });
  offer("passkey-in", async () => {
    const asks = await send("/sign-in/passkey/begin");
    const key = await navigator.credentials.get({ publicKey: PublicKeyCredential.parseRequestOptionsFromJSON(asks.publicKey) });
    await send("/sign-in/passkey", key.toJSON());
    location.href = document.querySelector("[name=to]")?.value || "/";
  });
}
