// @ts-check
/** Light or dark: after the system, or as chosen. Loaded first, so that a page does not flash. */

const NAME = "axispath theme";
const root = document.documentElement;
const system = matchMedia("(prefers-color-scheme: dark)");

function chosen() {
  try {
    return localStorage.getItem(NAME);
  } catch {
    return null; // storage may be switched off; then the system decides
  }
}

/** @param {string} theme */
function show(theme) {
  root.dataset.theme = theme;
  // Whoever draws with colours draws again.
  window.dispatchEvent(new Event("axispath-theme"));
}

const follow = () => show(chosen() ?? (system.matches ? "dark" : "light"));

document.addEventListener("click", (event) => {
  const button = event.target instanceof Element && event.target.closest('[data-act="theme"]');
  if (!button) return;
  const theme = root.dataset.theme === "dark" ? "light" : "dark";
  try {
    localStorage.setItem(NAME, theme);
  } catch {
    // It holds for this page then.
  }
  show(theme);
});
system.addEventListener("change", follow);
follow();
