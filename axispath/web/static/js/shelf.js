// @ts-check
/** The shelf: takes chosen sheets away, opens the field for a new name, asks before what cannot be undone, and shows times in the reader's own zone. */

import { Trouble, fetchLong } from "./sheet/api.js";
import { save } from "./desk/tables.js";
import "./times.js";

const boxes = /** @type {HTMLInputElement[]} */ ([...document.querySelectorAll(".choose")]);
const away = document.getElementById("away");
if (away) awayIn(away);

/** The form with which chosen sheets are taken away. @param {HTMLElement} form */
function awayIn(form) {
  const part = (/** @type {string} */ selector) => /** @type {HTMLElement} */ (form.querySelector(selector));
  const all = /** @type {HTMLInputElement} */ (part("#choose-all"));
  const [errand, why] = [part(".errand"), part(".why")];
  const chosen = () => boxes.filter((box) => box.checked).map((box) => box.value);
  let givenUp = false;
  all.addEventListener("change", () => {
    for (const box of boxes) box.checked = all.checked;
  });
  for (const box of boxes) {
    box.addEventListener("change", () => {
      all.checked = chosen().length === boxes.length;
      all.indeterminate = !all.checked && chosen().length > 0;
    });
  }
  part(".errand button").addEventListener("click", () => {
    givenUp = true;
  });
  const tell = (/** @type {string} */ trouble, /** @type {string} */ work) => {
    why.hidden = !trouble;
    why.textContent = trouble;
    errand.hidden = !work;
    part(".errand span").textContent = work;
  };
  part("#away-save").addEventListener("click", async () => {
    const sheets = chosen();
    if (!sheets.length) {
      tell("Choose sheets first, by the boxes before their names.", "");
      return;
    }
    givenUp = false;
    tell("", "Making the files …");
    const format = /** @type {HTMLSelectElement} */ (part("#away-format")).value;
    try {
      const file = await fetchLong("/api/shelf/export", { sheets, format }, (share) => {
        if (share !== null) tell("", `Making the files … ${Math.round(share * 100)} %`);
        return !givenUp;
      });
      if (file) save(file, "sheets.zip");
      tell("", "");
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      tell(trouble.message, "");
    }
  });
}

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
for (const form of /** @type {NodeListOf<HTMLFormElement>} */ (document.querySelectorAll("form[data-ask]"))) {
  form.addEventListener("submit", (event) => {
    if (!window.confirm(form.dataset.ask)) event.preventDefault();
  });
}
