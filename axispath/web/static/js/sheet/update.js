// @ts-check
/**
 * Parts of the page brought up to what the server says, by difference: what is the same stays where it
 * is, with its focus, its scrolling and what is being typed in it.
 *
 * Elements are told apart by `data-key`, or by what they are about (KEYS). What a person has opened or
 * folded stays as it is: `data-kept` names attributes that are the page's own, or `content`.
 */

import "../../vendor/morphdom/morphdom.min.js";

/** The minified library leaves itself in the global object. @type {(from: Element, to: Element, options: object) => Element} */
const morph = /** @type {any} */ (globalThis).morphdom;

const KEYS = ["id", "data-key", "data-mark", "data-fold", "data-work", "data-of", "data-lane", "data-part", "data-run"];

/** @param {Element} place @param {string} html */
export function update(place, html) {
  const next = /** @type {Element} */ (place.cloneNode(false));
  next.innerHTML = html;
  morph(place, next, { childrenOnly: true, getNodeKey: keyOf, onBeforeElUpdated: prepared, onBeforeElChildrenUpdated: isOpen });
}

/** @param {Node} node */
function keyOf(node) {
  if (!(node instanceof Element)) return undefined;
  const name = KEYS.find((one) => node.hasAttribute(one));
  return name && `${node.localName} ${name} ${node.getAttribute(name)}`;
}

/** Whether an element is to be brought up to what it should be. @param {Element} from @param {Element} to */
function prepared(from, to) {
  if (from.isEqualNode(to)) return false;
  // A formula that is typeset already, and is the same.
  if (to.hasAttribute("data-latex") && from.getAttribute("data-typeset") === to.getAttribute("data-latex")) return false;
  for (const name of (to.getAttribute("data-kept") ?? "").split(" ")) {
    if (!name || name === "content") continue;
    if (from.hasAttribute(name)) to.setAttribute(name, from.getAttribute(name) ?? "");
    else to.removeAttribute(name);
  }
  if (from instanceof HTMLInputElement && to instanceof HTMLInputElement && (from === document.activeElement || to.closest("[data-kept~=content]"))) to.value = from.value;
  return true;
}

/** @param {Element} from */
const isOpen = (from) => !(from.getAttribute("data-kept") ?? "").split(" ").includes("content");
