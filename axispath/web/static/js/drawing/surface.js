// @ts-check
/** A surface over a rectangle, seen from where it is turned to: facets from back to front, levels on them. */

import { token } from "./style.js";

/**
 * @typedef {{id: string, name: string, across: number, low: number, high: number, ends: Record<string, string>,
 *   heights: (number | null)[], beside: {id: string, heights: (number | null)[]}[], levels: {z: number, rows: (number | null)[]}[]}} Surface
 * @typedef {{around: number, above: number, tall: number}} Turn degrees about the upright axis, degrees above the ground, height
 * @typedef {(x: number, y: number, z: number) => [number, number, number]} Eye from −1 … 1 to pixels, and how near it is
 */

const STEP = 5; // degrees of a key
const LIMITS = { above: [0, 90], tall: [0.1, 1.6] };
/** Standard directions. @type {Record<string, {around: number, above: number}>} */
export const FROM = { front: { around: 0, above: 15 }, side: { around: -90, above: 15 }, above: { around: 0, above: 90 } };

/** Another direction, within what makes sense. @param {Turn} turn @param {Partial<Turn>} change @returns {Turn} */
export function turned(turn, change) {
  const next = { ...turn, ...change };
  next.around = ((((next.around + 180) % 360) + 360) % 360) - 180;
  for (const side of /** @type {const} */ (["above", "tall"])) next[side] = Math.min(Math.max(next[side], LIMITS[side][0]), LIMITS[side][1]);
  return next;
}

/** What a key changes. @param {string} key @param {Turn} turn @returns {Partial<Turn> | undefined} */
export function keyed(key, { around, above, tall }) {
  /** @type {Record<string, Partial<Turn>>} */
  const keys = {
    ArrowLeft: { around: around - STEP },
    ArrowRight: { around: around + STEP },
    ArrowUp: { above: above + STEP },
    ArrowDown: { above: above - STEP },
    "+": { tall: tall + 0.1 },
    "-": { tall: tall - 0.1 },
  };
  return keys[key];
}

const ROOM = 0.36; // of the plot's smaller side, for half of the rectangle

/** @param {Turn} turn @param {number} width @param {number} height @returns {Eye} */
export function eye({ around, above, tall }, width, height) {
  const [a, e] = [(around * Math.PI) / 180, (above * Math.PI) / 180];
  const [sa, ca, se, ce] = [Math.sin(a), Math.cos(a), Math.sin(e), Math.cos(e)];
  const size = Math.min(width, height) * ROOM;
  return (x, y, z) => {
    const across = x * ca - y * sa;
    const away = x * sa + y * ca;
    const up = z * tall;
    return [width / 2 + size * across, height / 2 - size * (away * se + up * ce), up * se - away * ce];
  };
}

/** @param {CanvasRenderingContext2D} context @param {Surface} surface @param {Turn} turn @param {{width: number, height: number}} size @param {(id: string) => string} colourOf */
export function drawSurface(context, surface, turn, { width, height }, colourOf) {
  context.clearRect(0, 0, width, height);
  context.fillStyle = token("plot-ground");
  context.fillRect(0, 0, width, height);
  const see = eye(turn, width, height);
  drawFrame(context, surface, see);
  const lines = levelsByFacet(surface);
  const all = [surface, ...surface.beside].map(({ id, heights }, place) => facets(surface, heights, see, { colour: colourOf(id), own: !place }));
  for (const facet of all.flat().sort((a, b) => a.near - b.near)) {
    context.beginPath();
    for (const [x, y] of facet.corners) context.lineTo(x, y);
    context.closePath();
    context.globalAlpha = 1;
    context.fillStyle = token("plot-ground");
    context.fill();
    context.globalAlpha = 0.12 + 0.7 * facet.share;
    context.fillStyle = facet.colour;
    context.fill();
    context.globalAlpha = 0.25;
    context.strokeStyle = token("ink");
    context.lineWidth = 0.4;
    context.stroke();
    if (facet.own) drawLevels(context, lines.get(facet.number) ?? [], see, facet.colour);
  }
  context.globalAlpha = 1;
}

/** Where a height stands between −1 and 1. @param {Surface} surface @param {number} z */
const share = ({ low, high }, z) => (high > low ? (z - low) / (high - low) : 0.5);

/** The facets of one surface; what is higher or nearer hides the rest. @param {Surface} surface @param {(number | null)[]} heights @param {Eye} see @param {{colour: string, own: boolean}} of */
function facets(surface, heights, see, of) {
  const { across } = surface;
  const at = (/** @type {number} */ k) => (2 * k) / (across - 1) - 1;
  /** @type {{corners: [number, number, number][], near: number, share: number, number: number, colour: string, own: boolean}[]} */
  const found = [];
  for (let j = 0; j + 1 < across; j += 1) {
    for (let i = 0; i + 1 < across; i += 1) {
      const places = [[i, j], [i + 1, j], [i + 1, j + 1], [i, j + 1]];
      const z = places.map(([p, q]) => heights[q * across + p]);
      if (z.some((value) => value === null)) continue;
      const parts = z.map((value) => share(surface, Number(value)));
      const corners = places.map(([p, q], k) => see(at(p), at(q), 2 * parts[k] - 1));
      const middle = parts.reduce((sum, part) => sum + part, 0) / 4;
      const near = see(at(i + 0.5), at(j + 0.5), 2 * middle - 1)[2];
      found.push({ corners, near, share: middle, number: j * across + i, ...of });
    }
  }
  return found;
}

/** @typedef {[number, number, number, number, number]} Piece two places and a height, −1 … 1 */

/** The lines of all levels, by the facet that they lie on. @param {Surface} surface */
function levelsByFacet(surface) {
  const { across, levels } = surface;
  /** @type {Map<number, Piece[]>} */
  const found = new Map();
  for (const { z, rows } of levels) {
    const up = 2 * share(surface, z) - 1;
    for (let k = 0; k + 3 < rows.length; k += 2) {
      const [a, b, c, d] = [rows[k], rows[k + 1], rows[k + 2], rows[k + 3]];
      if (a === null || b === null || c === null || d === null) continue;
      const cell = (/** @type {number} */ p) => Math.min(Math.max(Math.floor(p * (across - 1)), 0), across - 2);
      const number = cell((b + d) / 2) * across + cell((a + c) / 2);
      const pieces = found.get(number) ?? [];
      pieces.push([2 * a - 1, 2 * b - 1, 2 * c - 1, 2 * d - 1, up]);
      found.set(number, pieces);
    }
  }
  return found;
}

/** @param {CanvasRenderingContext2D} context @param {Piece[]} pieces @param {Eye} see @param {string} colour */
function drawLevels(context, pieces, see, colour) {
  if (!pieces.length) return;
  context.globalAlpha = 1;
  context.strokeStyle = colour;
  context.lineWidth = 1.4;
  context.beginPath();
  for (const [a, b, c, d, z] of pieces) {
    const [from, to] = [see(a, b, z), see(c, d, z)];
    context.moveTo(from[0], from[1]);
    context.lineTo(to[0], to[1]);
  }
  context.stroke();
}

/** The rectangle on the ground, an upright, and the numbers at their ends. @param {CanvasRenderingContext2D} context @param {Surface} surface @param {Eye} see */
function drawFrame(context, { ends, name }, see) {
  context.strokeStyle = token("muted");
  context.lineWidth = 1;
  context.beginPath();
  const ground = [[-1, -1], [1, -1], [1, 1], [-1, 1], [-1, -1]].map(([x, y]) => see(x, y, -1));
  for (const [x, y] of ground) context.lineTo(x, y);
  const [foot, head] = [see(-1, 1, -1), see(-1, 1, 1)];
  context.moveTo(foot[0], foot[1]);
  context.lineTo(head[0], head[1]);
  context.stroke();
  context.fillStyle = token("ink");
  context.font = `12.5px ${token("font")}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  const write = (/** @type {string} */ text, /** @type {number} */ x, /** @type {number} */ y, /** @type {number} */ z) => {
    const [px, py] = see(x, y, z);
    context.fillText(text, px, py);
  };
  write(`x = ${ends.left}`, -1, -1.18, -1);
  write(ends.right, 1, -1.18, -1);
  write(`y = ${ends.bottom}`, 1.32, -1, -1);
  write(ends.top, 1.2, 1, -1);
  write(ends.low, -1.16, 1.05, -1);
  write(`${name} = ${ends.high}`, -1.16, 1.05, 1);
}
