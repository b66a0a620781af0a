// @ts-check
/** The page where a sheet is handed out: links are copied, and lanes can be chosen. */

import "./times.js";

/** @param {string} name @returns {HTMLInputElement[]} */
const boxes = (name) => [...document.querySelectorAll(`[name="${name}"]`)].map((one) => /** @type {HTMLInputElement} */ (one));

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
for (const box of boxes("lane")) {
  box.addEventListener("change", () => {
    if (some) some.checked = true;
  });
}

const offset = /** @type {HTMLInputElement | null} */ (document.querySelector('[name="offset"]'));
if (offset) offset.value = String(new Date().getTimezoneOffset());

document.getElementById("close-finding")?.addEventListener("click", () => {
  for (const box of boxes("page")) if ("finds" in box.dataset) box.checked = false;
  const told = document.getElementById("closed-told");
  if (told) told.textContent = "They are left out.";
});

/** What is off as a sentence, kept current. */
function tellOff() {
  const off = boxes("off").filter((box) => box.checked).map((box) => box.parentElement?.textContent?.trim() ?? "");
  const last = off.pop();
  const listed = off.length ? `${off.join("; ")}; and ${last}` : last;
  const told = document.getElementById("off-told");
  if (told) told.textContent = last ? `Whoever sits it does without: ${listed}.` : "Nothing is switched off: whoever sits it has all that the sheet offers.";
}
for (const box of boxes("off")) box.addEventListener("change", tellOff);
tellOff();
