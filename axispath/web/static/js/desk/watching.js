// @ts-check
/** Steps of a method that is watched: the rows that show, and a view in which a step can be seen. */

import { byId } from "../sheet/focus.js";

/** @typedef {import("../sheet/view.js").View} View */
const SEEN = 0.06; // of the view's width that a step takes at least where it can be seen
const ROOM = 2.4; // times a step that a view is wide and high
const FINEST = 1e-9; // of a place, below which no view goes

/** The rows up to a step, with the formula of that step alone; or all of them. @param {number} at @param {number} last @param {boolean} all */
export function showRows(at, last, all) {
  for (const row of /** @type {NodeListOf<HTMLElement>} */ (byId("iterates").querySelectorAll("[data-step], [data-worked], [data-ended]"))) {
    const { step, worked } = row.dataset;
    const now = step === String(at);
    row.classList.toggle("is-selected", now);
    row.hidden = !all && (worked ? worked !== String(at) : Number(step ?? last) > at);
    if (now) row.scrollIntoView({ block: "nearest" });
  }
}

/** Where to look for the lines of a step; null where they can be seen. @param {[number, number | null][]} points @param {View} view @returns {View | null} */
export function viewOf(points, view) {
  const across = points.map(([x]) => x).filter(Number.isFinite);
  const heights = [0, ...points.flatMap(([, y]) => (y !== null && Number.isFinite(y) ? [y] : []))];
  const [left, right] = [Math.min(...across), Math.max(...across)];
  const [bottom, top] = [Math.min(...heights), Math.max(...heights)];
  const width = right - left;
  if (!(width > FINEST * Math.max(Math.abs(left), Math.abs(right), 1e-3))) return null;
  const inside = left >= view.left && right <= view.right && bottom >= view.bottom && top <= view.top;
  if (inside && width >= SEEN * (view.right - view.left)) return null;
  const [x, y] = [(left + right) / 2, (bottom + top) / 2];
  const half = [(width * ROOM) / 2, (((top - bottom) || (width * (view.top - view.bottom)) / (view.right - view.left)) * ROOM) / 2];
  return { left: x - half[0], right: x + half[0], bottom: y - half[1], top: y + half[1], chosen: true };
}
