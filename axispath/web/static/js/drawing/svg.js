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

/** Set what has changed: setting an attribute to what it is lays out all text of the drawing anew. @param {SVGElement} part @param {Record<string, string | number>} attributes */
export function place(part, attributes) {
  for (const [key, value] of Object.entries(attributes)) {
    if (part.getAttribute(key) !== String(value)) part.setAttribute(key, String(value));
  }
}

/** @param {Element} part @param {string} text */
export function write(part, text) {
  if (part.textContent !== text) part.textContent = text;
}
