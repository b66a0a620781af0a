// @ts-check
/** Light or dark: after the system, or as chosen. Loaded first, so that a page does not flash. */

const NAME = "axispath theme";
const root = document.documentElement;
const system = matchMedia("(prefers-color-scheme: dark)");

try {
  const chosen = localStorage.getItem(NAME);
  if (chosen === "dark" || chosen === "light") root.dataset.theme = chosen;
} catch {
  // Storage may be switched off; then the system decides.
}

const isDark = () => (root.dataset.theme ? root.dataset.theme === "dark" : system.matches);

/** Tell whoever draws with colours. */
const tell = () => window.dispatchEvent(new Event("axispath-theme"));

document.addEventListener("click", (event) => {
  const button = event.target instanceof Element && event.target.closest('[data-act="theme"]');
  if (!button) return;
  root.dataset.theme = isDark() ? "light" : "dark";
  try {
    localStorage.setItem(NAME, root.dataset.theme);
  } catch {
    // It holds for this page then.
  }
  tell();
});
system.addEventListener("change", tell);
