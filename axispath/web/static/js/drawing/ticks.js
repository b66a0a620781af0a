// @ts-check
/** Where the numbers of an axis stand and how they are written. The server says what is meant. */

import { LOOK } from "./look.js";
import { niceStep, rounded, tickLabel } from "../sheet/view.js";

/**
 * A step between numbers: `part` (a fraction) of `unit`, with `sign` written after it.
 * Where it is `free`, how wide the axis is decides.
 * @typedef {{part: [number, number], unit: number, sign: string, free: boolean}} Step
 */

/** @type {Step} */
export const AUTOMATIC = { part: [1, 1], unit: 1, sign: "", free: true };
const { most: MOST, typed: TYPED, partsOfPi: PARTS_OF_PI, turns: TURNS } = LOOK.ticks;

/** The fraction between two numbers that are at least `least` apart. @param {Step} step @param {number} least @returns {[number, number]} */
export function spaced(step, least) {
  const wanted = (least / step.unit) * (step.free ? 1 : TYPED);
  if (!step.free) {
    const [top, bottom] = step.part;
    for (let power = 1; power < 1e16; power *= 10) {
      for (const factor of [1, 2, 5]) {
        if ((top * factor * power) / bottom >= wanted) return [top * factor * power, bottom];
      }
    }
  } else if (step.sign === "π") {
    const found = PARTS_OF_PI.find(([top, bottom]) => top / bottom >= wanted);
    if (found) return found;
  } else if (step.sign === "°" && wanted > 0.5) {
    const found = TURNS.find((turn) => turn >= wanted);
    if (found) return [found, 1];
  }
  return [niceStep(wanted), 1];
}

/** How far apart two written numbers are. @param {Step} step @param {[number, number]} part */
export const apart = (step, part) => (part[0] / part[1]) * step.unit;

/**
 * Numbers from low to high, each with what is written there.
 * @param {Step} step @param {[number, number]} part @param {number} low @param {number} high
 * @returns {{at: number, text: string}[]}
 */
export function numbers(step, part, low, high) {
  const size = apart(step, part);
  const first = Math.ceil(low / size - 1e-9);
  const last = Math.min(Math.floor(high / size + 1e-9), first + MOST);
  const found = [];
  for (let k = first; k <= last; k += 1) {
    const at = step.unit === 1 && part[1] === 1 ? rounded(k * size, part[0]) : k * size;
    found.push({ at, text: written(step, part, k) });
  }
  return found;
}

/** @param {Step} step @param {[number, number]} part @param {number} k */
function written(step, part, k) {
  const [top, bottom] = part;
  if (step.sign === "π" && Number.isInteger(top)) {
    const shared = divisor(Math.abs(k * top), bottom);
    const above = (k * top) / shared;
    const below = bottom / shared;
    if (!above) return "0";
    const size = Math.abs(above) === 1 ? "π" : `${Math.abs(above)}π`;
    return `${above < 0 ? "−" : ""}${size}${below > 1 ? `/${below}` : ""}`;
  }
  if (bottom !== 1 || !step.free) return short((k * top) / bottom) + step.sign;
  return tickLabel(rounded(k * top, top), top) + step.sign;
}

/** @param {number} value */
function short(value) {
  return String(Number(value.toPrecision(6)) + 0).replace("-", "−");
}

/** @param {number} a @param {number} b @returns {number} */
function divisor(a, b) {
  return b ? divisor(b, a % b) : a;
}
