// @ts-check
/** Making SVG elements. */

const SVG = "http://www.w3.org/2000/svg";

/** @param {string} name @param {Record<string, string | number>} attributes @param {string} [text] */
export function element(name, attributes, text) {
  const made = document.createElementNS(SVG, name);
  place(made, attributes);
  if (text !== undefined) made.textContent = text;
  return made;
}

/** @param {SVGElement} part @param {Record<string, string | number>} attributes */
export function place(part, attributes) {
  for (const [key, value] of Object.entries(attributes)) part.setAttribute(key, String(value));
}
