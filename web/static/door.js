// Passkeys: a device makes a key for this machine, and signs in with it.
"use strict";

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
