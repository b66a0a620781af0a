// @ts-check
/** Paper is light, whatever the screen is. */

/** @param {() => void} redraw draws everything at once, in the colours of the theme */
export function listenToPrinting(redraw) {
  const root = document.documentElement;
  let before = root.dataset.theme;
  const show = (/** @type {string | undefined} */ theme) => {
    if (root.dataset.theme === theme) return;
    root.dataset.theme = theme;
    window.dispatchEvent(new Event("axispath-theme"));
    redraw();
  };
  window.addEventListener("beforeprint", () => {
    before = root.dataset.theme;
    show("light");
  });
  window.addEventListener("afterprint", () => show(before));
}
