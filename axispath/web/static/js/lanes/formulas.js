// @ts-check
/** Typesets formulas with KaTeX where the server has put MathML. */

import "../../vendor/katex/katex.min.js";

/** The minified KaTeX is no module: it leaves itself in the global object. @type {{render: (latex: string, place: HTMLElement, options: object) => void}} */
const katex = /** @type {any} */ (globalThis).katex;

/**
 * Typeset LaTeX into an element.
 *
 * For tall brackets KaTeX writes style attributes, which a strict Content-Security-Policy
 * refuses; the same styles set through the object model are allowed.
 * @param {string} latex @param {HTMLElement} place
 */
export function render(latex, place) {
  const setAttribute = Element.prototype.setAttribute;
  Element.prototype.setAttribute = function (/** @type {string} */ name, /** @type {string} */ value) {
    if (name === "style") /** @type {HTMLElement} */ (this).style.cssText = value;
    else setAttribute.call(this, name, value);
  };
  try {
    katex.render(latex, place, { throwOnError: false, output: "htmlAndMathml" });
  } finally {
    Element.prototype.setAttribute = setAttribute;
  }
}

/** @param {ParentNode} root */
export function typeset(root) {
  for (const place of root.querySelectorAll(".math[data-latex]")) {
    const latex = place.getAttribute("data-latex") ?? "";
    place.removeAttribute("data-latex");
    render(latex, /** @type {HTMLElement} */ (place));
  }
  fit(root.querySelectorAll(".formula"));
}

/** A formula that is too wide is set smaller; one that is too wide even so is cut, until it opens. @param {NodeListOf<Element>} formulas on the page */
export function fit(formulas) {
  for (const formula of formulas) formula.classList.remove("is-tight", "is-cut");
  for (const name of ["is-tight", "is-cut"]) {
    // All are measured before any is changed, so that the page is laid out once.
    const wide = [...formulas].filter((formula) => formula.scrollWidth > formula.clientWidth + 1);
    for (const formula of wide) formula.classList.add(name);
  }
}

// How wide a formula is, is known for certain when its fonts have come.
document.fonts.addEventListener("loadingdone", () => fit(document.querySelectorAll(".formula")));
