// A page to send is given to whatever the system sends with (mail, a message), where the
// browser can do that; elsewhere it is saved.
const canShare = () => Boolean(navigator.canShare?.({ files: [new File(["x"], "x.html", { type: "text/html" })] }));
for (const moment of ["DOMContentLoaded", "htmx:afterSettle"]) {
  document.addEventListener(moment, () => {
    for (const button of document.querySelectorAll("[data-share]")) button.hidden = !canShare();
  });
}
document.addEventListener("click", async (event) => {
  const button = event.target.closest("[data-share]");
  if (!button) return;
  button.disabled = true;
  try {
    const answer = await fetch(button.dataset.share);
    if (!answer.ok) throw new Error(answer.statusText);
    const file = new File([await answer.blob()], button.dataset.name + ".html", { type: "text/html" });
    await navigator.share({ files: [file], title: button.dataset.name });
  } catch (wrong) {
    if (wrong.name !== "AbortError") location.assign(button.dataset.share); // it is saved instead
  } finally {
    button.disabled = false;
  }
});
