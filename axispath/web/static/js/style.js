// @ts-check
/** Colours, dashes and landmark shapes, the same in plot, strip and desk. */

const cache = new Map();

window.addEventListener("axispath-theme", () => cache.clear());

/** A colour token of the page. @param {string} name */
export function token(name) {
  if (!cache.has(name)) {
    const value = getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
    cache.set(name, value);
  }
  return cache.get(name);
}

/** @param {number} colour */
export const curveColour = (colour) => token(`curve-${colour}`);

/** The colour of a lane: its own in this theme, or one of the palette. @param {import("./plot.js").Lane} lane */
export function laneColour(lane) {
  return lane.own ? lane.own[isDark() ? "dark" : "light"] : curveColour(lane.colour);
}

const isDark = () => document.documentElement.dataset.theme === "dark";

/** Rules for the lanes that have a colour of their own; a style sheet of the page. */
const ownRules = new CSSStyleSheet();
document.adoptedStyleSheets = [...document.adoptedStyleSheets, ownRules];

/** @param {import("./plot.js").Lane[]} lanes */
export function showOwnColours(lanes) {
  const own = lanes.filter((lane) => lane.own);
  ownRules.replaceSync(own.map((lane) => `.k-${lane.id} { color: ${laneColour(lane)}; }`).join("\n"));
}

/** Dash patterns in pixels, one to a colour, so that colour is never the only sign. */
const USUAL = [[], [9, 5], [2, 4], [12, 4, 2, 4], [6, 3], [14, 6], [4, 2, 1, 2], [16, 3, 3, 3]];
/** @type {Record<string, number[]>} */
const CHOSEN = { unbroken: [], dashes: [9, 5], dots: [2, 4], "dashes and dots": [12, 4, 2, 4] };
/** @type {Record<string, number>} */
const WIDTHS = { thin: 1.25, medium: 2.25, thick: 4 };

/** @param {import("./plot.js").Lane} lane */
export const dashOf = (lane) => CHOSEN[lane.style.dash] ?? USUAL[lane.colour];

/** @param {import("./plot.js").Lane} lane */
export const widthOf = (lane) => WIDTHS[lane.style.thickness];

/**
 * Landmark shapes as SVG path data around (0, 0), for both canvas and SVG.
 * `fill` tells whether the shape is filled or drawn as a line.
 * @type {Record<string, {path: string, fill: boolean}>}
 */
const SHAPES = {
  maximum: { path: "M-5 4H5L0 -5Z", fill: true },
  minimum: { path: "M-5 -4H5L0 5Z", fill: true },
  kink: { path: "M-5 4L0 -4L5 4", fill: false },
  inflection: { path: "M-3 4L3 -4", fill: false },
  intersection: { path: "M-4 -4L4 4M-4 4L4 -4", fill: false },
};
const CIRCLE = "M-4.5 0A4.5 4.5 0 1 1 4.5 0A4.5 4.5 0 1 1 -4.5 0Z";
const DOT = "M-1.5 0A1.5 1.5 0 1 1 1.5 0A1.5 1.5 0 1 1 -1.5 0Z";

/**
 * The strokes that make up a landmark.
 * @param {string} kind @param {boolean} closed @param {string} colour
 * @returns {{path: string, fill: string, stroke: string}[]}
 */
export function shapeParts(kind, closed, colour) {
  const ground = token("plot-ground");
  if (kind === "zero") {
    return [
      { path: CIRCLE, fill: ground, stroke: colour },
      { path: DOT, fill: colour, stroke: "none" },
    ];
  }
  if (kind === "pole") return [{ path: "M0 -15V-9M0 -5V5M0 9V15", fill: "none", stroke: colour }];
  if (kind === "jump") {
    return [
      { path: "M-7 3H-1", fill: "none", stroke: colour },
      { path: "M1 -3H7", fill: "none", stroke: colour },
    ];
  }
  if (kind === "hole") return [{ path: CIRCLE, fill: ground, stroke: colour }];
  if (kind === "end") return [{ path: CIRCLE, fill: closed ? colour : ground, stroke: colour }];
  const shape = SHAPES[kind];
  if (!shape) return [];
  return [{ path: shape.path, fill: shape.fill ? colour : "none", stroke: colour }];
}
