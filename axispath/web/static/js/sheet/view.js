// @ts-check
/** The visible rectangle and its mapping to pixels. */

import { LOOK } from "../drawing/look.js";

/** @typedef {{left: number, right: number, bottom: number, top: number, chosen?: boolean}} View */
/** @typedef {{width: number, height: number}} Size */

/** @param {View} view @param {Size} size @param {number} x */
export const toPixelX = (view, size, x) =>
  ((x - view.left) / (view.right - view.left)) * size.width;

/** @param {View} view @param {Size} size @param {number} y */
export const toPixelY = (view, size, y) =>
  ((view.top - y) / (view.top - view.bottom)) * size.height;

/** @param {View} view @param {Size} size @param {number} px */
export const fromPixelX = (view, size, px) =>
  view.left + (px / size.width) * (view.right - view.left);

/** @param {View} view @param {Size} size @param {number} px */
export const fromPixelY = (view, size, px) =>
  view.top - (px / size.height) * (view.top - view.bottom);

/** The view moved by pixels. @param {View} view @param {Size} size @param {number} dx @param {number} dy @returns {View} */
export function panned(view, size, dx, dy) {
  const x = (dx / size.width) * (view.right - view.left);
  const y = (dy / size.height) * (view.top - view.bottom);
  return {
    left: view.left - x,
    right: view.right - x,
    bottom: view.bottom + y,
    top: view.top + y,
    chosen: true,
  };
}

/** The view scaled about a place. @param {View} view @param {number} factor @param {number} x @param {number} y @returns {View} */
export function zoomed(view, factor, x, y) {
  return {
    left: x + (view.left - x) * factor,
    right: x + (view.right - x) * factor,
    bottom: y + (view.bottom - y) * factor,
    top: y + (view.top - y) * factor,
    chosen: true,
  };
}

/** The view scaled along one axis about a place on it. @param {View} view @param {"x" | "y"} axis @param {number} factor @param {number} about @returns {View} */
export function zoomedAxis(view, axis, factor, about) {
  const scaled = zoomed(view, factor, about, about);
  const { left, right, bottom, top } = axis === "x" ? { ...view, left: scaled.left, right: scaled.right } : { ...view, bottom: scaled.bottom, top: scaled.top };
  return { left, right, bottom, top, chosen: true };
}

/** The view with as many pixels to 1 on both axes; `lead` keeps its limits, "all" keeps everything in sight. @param {View} view @param {Size} size @param {"x" | "y" | "all"} lead @returns {View} */
export function equalled(view, size, lead) {
  if (!size.width || !size.height) return view;
  const middleX = (view.left + view.right) / 2;
  const middleY = (view.bottom + view.top) / 2;
  const across = (view.right - view.left) / size.width;
  const upwards = (view.top - view.bottom) / size.height;
  const pixel = { x: across, y: upwards, all: Math.max(across, upwards) }[lead];
  const halfX = (pixel * size.width) / 2;
  const halfY = (pixel * size.height) / 2;
  const x = pixel === across ? {} : { left: middleX - halfX, right: middleX + halfX };
  const y = pixel === upwards ? {} : { bottom: middleY - halfY, top: middleY + halfY };
  return { ...view, ...x, ...y };
}

/** Whether the server would accept the view. @param {View} view */
export function isPossible(view) {
  const { widest, narrowest, narrowestShare } = LOOK.view;
  return [
    [view.left, view.right],
    [view.bottom, view.top],
  ].every(([low, high]) => {
    const size = high - low;
    const largest = Math.max(Math.abs(low), Math.abs(high));
    return size > narrowest && size < widest && largest < widest && size > largest * narrowestShare;
  });
}

/** A step of 1, 2 or 5 times a power of ten that is at least `least`. @param {number} least */
export function niceStep(least) {
  const power = 10 ** Math.floor(Math.log10(least));
  for (const factor of [1, 2, 5]) {
    if (factor * power >= least * 0.999999) return factor * power;
  }
  return 10 * power;
}

/** A number rounded to a multiple of a step, without trailing noise. @param {number} value @param {number} step */
export function rounded(value, step) {
  const digits = Math.max(0, Math.min(20, -Math.floor(Math.log10(step))));
  return Number((Math.round(value / step) * step).toFixed(digits)) + 0;
}

/** Tick places from low to high. @param {number} low @param {number} high @param {number} step */
export function ticks(low, high, step) {
  const found = [];
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  for (let k = first; k <= last && found.length < 400; k += 1) found.push(rounded(k * step, step));
  return found;
}

/** A tick's label. @param {number} value @param {number} step */
export function tickLabel(value, step) {
  if (value === 0) return "0";
  const size = Math.abs(value);
  let text;
  if (size >= 1e6 || step < 1e-5) {
    const power = Math.floor(Math.log10(size) + 1e-12);
    const digits = Math.max(0, Math.min(12, power - Math.floor(Math.log10(step) + 1e-12)));
    const raised = String(power).replace(/[-0-9]/g, (c) => "⁻⁰¹²³⁴⁵⁶⁷⁸⁹"["-0123456789".indexOf(c)]);
    text = `${(size / 10 ** power).toFixed(digits)}×10${raised}`;
  } else {
    text = size.toFixed(Math.max(0, -Math.floor(Math.log10(step) + 1e-12)));
  }
  return (value < 0 ? "−" : "") + text;
}

/** A number as short text that the server reads back. @param {number} value @param {number} step */
export function short(value, step) {
  if (Math.abs(value) >= 1e6 || (value !== 0 && Math.abs(value) < 1e-4)) return String(Number(value.toPrecision(9)));
  const digits = Math.max(0, Math.min(12, -Math.floor(Math.log10(step))));
  return String(Number(value.toFixed(digits)) + 0);
}

/** Whether two views show the same. @param {View} a @param {View} b */
export function sameView(a, b) {
  return a.left === b.left && a.right === b.right && a.bottom === b.bottom && a.top === b.top;
}
