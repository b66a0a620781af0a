// @ts-check
/** The shelf: opens the field for a new name, asks before what cannot be undone, and shows times in the reader's own zone. */

for (const button of document.querySelectorAll('[data-act="rename"]')) {
  button.addEventListener("click", () => {
    const row = button.closest(".sheet-row");
    const form = /** @type {HTMLElement} */ (row?.querySelector(".rename"));
    const link = /** @type {HTMLElement} */ (row?.querySelector(".sheet-link"));
    form.hidden = !form.hidden;
    link.hidden = !form.hidden;
    const input = /** @type {HTMLInputElement} */ (form.querySelector(".rename-to"));
    if (!form.hidden) input.select();
    else /** @type {HTMLElement} */ (button).focus();
  });
}
for (const input of document.querySelectorAll(".rename-to")) {
  input.addEventListener("keydown", (event) => {
    if (/** @type {KeyboardEvent} */ (event).key !== "Escape") return;
    /** @type {HTMLElement | null | undefined} */ (input.closest(".sheet-row")?.querySelector('[data-act="rename"]'))?.click();
  });
}
for (const form of document.querySelectorAll('form[action$="/destroy"]')) {
  form.addEventListener("submit", (event) => {
    const name = form.closest(".sheet-row")?.querySelector(".sheet-link")?.textContent ?? "";
    if (!window.confirm(`Delete “${name}” for good? This cannot be undone.`)) event.preventDefault();
  });
}
for (const time of document.querySelectorAll("time")) {
  const moment = new Date(time.dateTime);
  time.textContent = moment.toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
}
