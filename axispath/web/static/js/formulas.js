// @ts-check
/** Typesets formulas with KaTeX where the server has put MathML. */

import "../vendor/katex/katex.min.js";

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
  Element.prototype.setAttribute = function (name, value) {
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
    fit(place.closest(".formula"));
  }
}

/** A bracket cannot be broken into two lines: where one is too wide the formula is set smaller. @param {Element | null} formula */
function fit(formula) {
  if (!formula) return;
  formula.classList.remove("is-tight");
  formula.classList.toggle("is-tight", formula.scrollWidth > formula.clientWidth + 1);
}

// How wide a formula is, is known for certain when its fonts have come.
document.fonts.addEventListener("loadingdone", () => {
  for (const formula of document.querySelectorAll(".formula")) fit(formula);
});
