// @ts-check
/** The page where a sheet is handed out: links are copied, and lanes can be chosen. */

import "./times.js";

for (const button of /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll("[data-copy]"))) {
  button.addEventListener("click", async () => {
    const link = /** @type {HTMLInputElement} */ (document.getElementById(button.dataset.copy ?? ""));
    link.select();
    const told = /** @type {HTMLElement} */ (button.querySelector("span"));
    try {
      await navigator.clipboard.writeText(link.value);
      told.textContent = "Copied";
    } catch {
      told.textContent = "Selected";
    }
  });
}

const some = /** @type {HTMLInputElement | null} */ (document.querySelector('[name="which"][value="some"]'));
for (const box of document.querySelectorAll('[name="lane"]')) {
  box.addEventListener("change", () => {
    if (some) some.checked = true;
  });
}

const offset = /** @type {HTMLInputElement | null} */ (document.querySelector('[name="offset"]'));
if (offset) offset.value = String(new Date().getTimezoneOffset());
