// @ts-check
/** Typesets formulas with KaTeX where the server has put MathML. */

import katex from "../vendor/katex/katex.mjs";

/** @param {ParentNode} root */
export function typeset(root) {
  for (const place of root.querySelectorAll(".math[data-latex]")) {
    const latex = place.getAttribute("data-latex") ?? "";
    place.removeAttribute("data-latex");
    // Rendering into the page, unlike rendering to text, needs no inline style attributes.
    katex.render(latex, /** @type {HTMLElement} */ (place), { throwOnError: false, output: "htmlAndMathml" });
  }
}
