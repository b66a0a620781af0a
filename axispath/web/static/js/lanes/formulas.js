// @ts-check
/** Typesets formulas with KaTeX where the server has put MathML. */

import { cancel, during, nextFrame, soon } from "../sheet/underway.js";

/** The minified KaTeX is no module: it leaves itself in the global object. @returns {undefined | {render: (latex: string, place: HTMLElement, options: object) => void}} */
const katex = () => /** @type {any} */ (globalThis).katex;

const LATEST = 1500; // ms after which KaTeX is fetched even if no curve was drawn yet
const MANY = 40; // formulas, from which on only those in sight are typeset
/** Places that wait for KaTeX, with what is to stand in them. @type {Map<HTMLElement, string>} */
const waiting = new Map();

/** KaTeX is the largest script of all, and MathML can be read before it comes: curves go first. */
async function load() {
  try {
    await import("../../vendor/katex/katex.min.js");
  } catch {
    // The network went away just now: MathML is read until it is back.
    window.addEventListener("online", () => during(load()), { once: true });
    return;
  }
  for (const [place, latex] of waiting) set(latex, place);
  waiting.clear();
  fitAll();
}
if (document.getElementById("plot")) {
  const once = new AbortController();
  const begin = () => {
    if (once.signal.aborted) return;
    once.abort();
    cancel(latest);
    during(load());
  };
  window.addEventListener("axispath-drawn", (event) => /** @type {CustomEvent} */ (event).detail.curves && nextFrame(begin), { signal: once.signal });
  const latest = soon(begin, LATEST);
} else {
  during(load());
}

/** Typeset LaTeX into an element, as soon as that can be done. @param {string} latex @param {HTMLElement} place */
export function render(latex, place) {
  waiting.delete(place);
  if (katex()) set(latex, place);
  else waiting.set(place, latex);
}

/**
 * For tall brackets KaTeX writes style attributes, which a strict Content-Security-Policy
 * refuses; the same styles set through the object model are allowed.
 * @param {string} latex @param {HTMLElement} place
 */
function set(latex, place) {
  const setAttribute = Element.prototype.setAttribute;
  Element.prototype.setAttribute = function (/** @type {string} */ name, /** @type {string} */ value) {
    if (name === "style") /** @type {HTMLElement} */ (this).style.cssText = value;
    else setAttribute.call(this, name, value);
  };
  try {
    katex()?.render(latex, place, { throwOnError: false, output: "htmlAndMathml" });
  } finally {
    Element.prototype.setAttribute = setAttribute;
  }
}

const sight = new IntersectionObserver((entries) => {
  const seen = entries.filter((entry) => entry.isIntersecting).map(({ target }) => target);
  for (const one of seen) {
    sight.unobserve(one);
    if (one.hasAttribute("data-latex")) typesetOne(/** @type {HTMLElement} */ (one));
  }
  fit(seen.map((one) => one.closest(".formula")).filter((one) => one !== null));
}, { rootMargin: "200px" });

/** @param {HTMLElement} place */
function typesetOne(place) {
  const latex = place.getAttribute("data-latex") ?? "";
  place.removeAttribute("data-latex");
  place.setAttribute("data-typeset", latex);
  render(latex, place);
}

/** @param {ParentNode} root */
export function typeset(root) {
  const places = /** @type {NodeListOf<HTMLElement>} */ (root.querySelectorAll(".math[data-latex]"));
  if (places.length > MANY) {
    for (const place of places) sight.observe(place);
    return;
  }
  for (const place of places) typesetOne(place);
  fit(root.querySelectorAll(".formula"));
}

/** How a formula is made to fit, one after the other. */
const FITTED = ["is-tight", "is-parted", "is-small"];

/** A formula that is too wide is set smaller; one that is too wide even so goes on below. @param {Iterable<Element>} formulas on the page */
export function fit(formulas) {
  formulas = [...formulas];
  for (const formula of formulas) formula.classList.remove(...FITTED);
  for (const name of FITTED) {
    // All are measured before any is changed, so that the page is laid out once.
    const wide = [...formulas].filter((formula) => formula.scrollWidth > formula.clientWidth + 1);
    for (const formula of wide) formula.classList.add(name);
  }
}

/** All formulas of the page; of very many each is fitted when it comes into sight. */
function fitAll() {
  const formulas = document.querySelectorAll(".formula");
  if (formulas.length <= MANY) fit(formulas);
}

// How wide a formula is, is known for certain when its fonts have come.
let fitting = 0;
document.fonts.addEventListener("loadingdone", () => {
  cancel(fitting);
  fitting = soon(fitAll, 100);
});
