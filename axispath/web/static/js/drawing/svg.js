// @ts-check
/** Making SVG elements. */

const SVG = "http://www.w3.org/2000/svg";

/** @param {string} name @param {Record<string, string | number>} attributes @param {string} [text] */
export function element(name, attributes, text) {
  const made = /** @type {SVGElement} */ (document.createElementNS(SVG, name));
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

/** The parts of a drawing by what they are, so that those that are there still are not made anew. */
export class Kept {
  constructor() {
    /** @type {Map<string, SVGElement>} */
    this.before = new Map();
    /** @type {Map<string, SVGElement>} */
    this.now = new Map();
  }

  /**
   * A part with its attributes as they are now; `fill` puts into it what never changes.
   * @param {string} key @param {string} name @param {Record<string, string | number>} attributes @param {(part: SVGElement) => void} [fill]
   */
  part(key, name, attributes, fill) {
    let part = this.before.get(key);
    this.before.delete(key);
    if (part) {
      place(part, attributes);
    } else {
      part = element(name, attributes);
      fill?.(part);
    }
    this.now.set(key, part);
    return part;
  }

  /** A drawing is complete: what was not asked for again is forgotten. */
  done() {
    this.before = this.now;
    this.now = new Map();
  }
}

/** @type {WeakMap<Element, Kept>} */
const kept = new WeakMap();

/** The parts of a drawing. @param {Element} drawing */
export function keptIn(drawing) {
  const found = kept.get(drawing) ?? new Kept();
  kept.set(drawing, found);
  return found;
}
