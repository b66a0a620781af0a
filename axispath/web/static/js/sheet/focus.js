// @ts-check
/** Parts of the page by their ids, and which of them has the focus. */

/** @param {string} id @returns {HTMLElement} */
export function byId(id) {
  return /** @type {HTMLElement} */ (document.getElementById(id));
}

/** @param {string} id */
export const canvas = (id) => /** @type {HTMLCanvasElement} */ (byId(id));

/** @param {string} id */
export const field = (id) => /** @type {HTMLInputElement} */ (byId(id));

/** The part of a lane that has the focus, to be found again after the lane was drawn anew. */
export function heldPart() {
  const active = document.activeElement;
  const lane = active?.closest(".lane")?.getAttribute("data-lane");
  const name = ["data-end", "data-slider", "data-note"].find((attribute) => active?.hasAttribute(attribute));
  const part = active?.classList.contains("thumb") ? ".thumb" : name && `${active?.tagName.toLowerCase()}[${name}="${active?.getAttribute(name)}"]`;
  if (!active || !lane || !part) return null;
  const find = () => /** @type {HTMLElement | null} */ (document.querySelector(`.lane[data-lane="${lane}"] ${part}`));
  return { isConnected: () => active.isConnected, find };
}

/** Whether a field has something of its own to undo. @param {Element | null} active */
export function undoesItself(active) {
  if (active instanceof HTMLTextAreaElement) return true;
  return active instanceof HTMLInputElement && !["checkbox", "radio", "color", "file", "button"].includes(active.type) && active.value !== "";
}

export function isTyping() {
  const active = document.activeElement;
  return active instanceof HTMLInputElement || active instanceof HTMLTextAreaElement || active instanceof HTMLSelectElement;
}
