// @ts-check
/** Colours, dashes and landmark shapes, the same in plot, strip and desk. */

import { LOOK } from "./look.js";

const cache = new Map();

window.addEventListener("axispath-theme", () => cache.clear());

/** A colour token of the page; empty, and not kept so, while its style sheets are not there. @param {string} name */
export function token(name) {
  const known = cache.get(name);
  if (known) return known;
  const value = getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
  if (value) cache.set(name, value);
  return value;
}

/** When all style sheets are there, or could not be had: scripts do not wait for them, and would draw in black. */
export async function styled() {
  const links = /** @type {NodeListOf<HTMLLinkElement>} */ (document.querySelectorAll('link[rel="stylesheet"]'));
  const late = [...links].filter((link) => !link.sheet);
  await Promise.all(
    late.map((link) => new Promise((done) => {
      for (const event of ["load", "error"]) link.addEventListener(event, done, { once: true });
    })),
  );
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

/** @param {import("./plot.js").Lane} lane */
export const dashOf = (lane) => LOOK.dashes[lane.style.dash] ?? LOOK.usualDashes[lane.colour];

/** @param {import("./plot.js").Lane} lane */
export const widthOf = (lane) => LOOK.widths[lane.style.thickness];

/** @param {number} r */
const circle = (r) => `M${-r} 0A${r} ${r} 0 1 1 ${r} 0A${r} ${r} 0 1 1 ${-r} 0Z`;
const CIRCLE = circle(LOOK.ring);
const DOT = circle(LOOK.eye);

/** Landmark shapes as SVG path data around (0, 0), for both canvas and SVG. @type {Record<string, {path: string, fill: boolean}>} */
const SHAPES = Object.fromEntries(
  Object.entries(LOOK.shapes).map(([kind, { filled, lines }]) => [kind, { path: lines.map((line) => `M${line.map((point) => point.join(" ")).join("L")}${filled ? "Z" : ""}`).join(""), fill: filled }]),
);

/**
 * The strokes that make up a landmark.
 * @param {string} kind @param {boolean} closed @param {string} colour
 * @returns {{path: string, fill: string, stroke: string}[]}
 */
export function shapeParts(kind, closed, colour) {
  const ground = token("plot-ground");
  const ring = LOOK.rings[kind];
  if (ring === "dot") {
    return [
      { path: CIRCLE, fill: ground, stroke: colour },
      { path: DOT, fill: colour, stroke: "none" },
    ];
  }
  if (ring) return [{ path: CIRCLE, fill: ring === "closed" && closed ? colour : ground, stroke: colour }];
  if (kind === "pole") return [{ path: "M0 -15V-9M0 -5V5M0 9V15", fill: "none", stroke: colour }];
  if (kind === "jump") {
    return [
      { path: "M-7 3H-1", fill: "none", stroke: colour },
      { path: "M1 -3H7", fill: "none", stroke: colour },
    ];
  }
  const shape = SHAPES[kind];
  if (!shape) return [];
  return [{ path: shape.path, fill: shape.fill ? colour : "none", stroke: colour }];
}
