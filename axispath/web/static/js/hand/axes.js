// @ts-check
/** One axis at a time: its numbers are dragged, or the wheel turned over them; and the rail. */

import { landmarkNear } from "../drawing/marks.js";
import { fromPixelX, fromPixelY, niceStep, rounded, zoomedAxis } from "../sheet/view.js";

const WIDE = 44; // pixels left of where the numbers of y end
const NEAR = 24; // closer to what stays put than this, nothing can be pulled
const WHEEL = 1.0016;
const SNAP = 6; // pixels within which a reading goes to a landmark
const FARTHEST = 20; // times, in one drag

/** @typedef {import("../drawing/plot.js").Plot} Plot */
/** @typedef {import("../sheet/view.js").View} View */

/** How much a turn of the wheel zooms. @param {WheelEvent} event */
export function wheelFactor(event) {
  const amount = event.deltaMode === 1 ? event.deltaY * 16 : event.deltaY;
  return WHEEL ** Math.max(-400, Math.min(400, amount));
}

/** The x of a pixel: that of a landmark where one is near, or rounded to what a pixel can tell. @param {Plot} plot @param {number} px */
export function readingAt(plot, px) {
  const near = landmarkNear(plot, px, SNAP);
  if (near !== null) return near;
  const step = niceStep((plot.view.right - plot.view.left) / plot.size.width);
  return rounded(fromPixelX(plot.view, plot.size, px), step);
}

/** A round y at a pixel; NaN where there is none. @param {Plot} plot @param {number} py */
export function heightAt(plot, py) {
  const step = niceStep((plot.view.top - plot.view.bottom) / plot.size.height);
  return rounded(fromPixelY(plot.view, plot.size, py), step);
}

/** Whether a pixel is on the numbers of the y-axis. @param {Plot} plot @param {{x: number, y: number}} at */
export function onNumbers(plot, at) {
  const right = plot.numbersRight;
  return right > 0 && at.x > right - WIDE && at.x <= right + 5;
}

/**
 * The number under the pointer is pulled along its axis; 0 stays put where it is in view.
 * @param {Plot} plot @param {"x" | "y"} axis @param {{x: number, y: number}} from
 * @param {(view: View, lead: "x" | "y") => void} look
 * @returns {(now: {x: number, y: number}) => void}
 */
export function pulled(plot, axis, from, look) {
  const view = { ...plot.view };
  const length = axis === "x" ? plot.size.width : plot.size.height;
  const zero = axis === "x" ? plot.px(0) : plot.py(0);
  const start = from[axis];
  const inView = zero >= 0 && zero <= length && Math.abs(start - zero) > NEAR;
  const fixed = inView ? zero : start > length / 2 ? 0 : length;
  const [low, high] = axis === "x" ? [view.left, view.right] : [view.top, view.bottom];
  const about = low + (fixed / length) * (high - low);
  return (now) => {
    const before = start - fixed;
    const after = now[axis] - fixed;
    const share = after / before;
    look(zoomedAxis(view, axis, 1 / Math.min(Math.max(share, 1 / FARTHEST), FARTHEST), about), axis);
  };
}

/**
 * A click on the rail reads there; a drag along its numbers stretches the x-axis, and with
 * Shift chooses the part for the landmarks; a drag across it divides the height.
 * @param {Plot} plot
 * @param {import("./gestures.js").Told} told
 * @param {(event: PointerEvent | WheelEvent) => {x: number, y: number}} place
 * @param {(px: number) => void} readAt
 */
export function listenToRail(plot, told, place, readAt) {
  const { rail } = plot;
  /** @type {null | {x: number, y: number}} */
  let from = null;
  /** @type {null | ((now: {x: number, y: number}, done: boolean) => void)} */
  let drag = null;
  let dragged = false;
  /** Once the hand moves up or down. @type {null | {move: (down: number) => void, end: () => void}} */
  let dividing = null;
  let startY = 0;
  const choose = (/** @type {{x: number, y: number}} */ start) => (/** @type {{x: number, y: number}} */ now, /** @type {boolean} */ done) => {
    const ends = [readingAt(plot, start.x), readingAt(plot, now.x)].sort((a, b) => a - b);
    if (ends[0] < ends[1]) told.restrict(ends[0], ends[1], done);
  };
  rail.addEventListener("pointerdown", (event) => {
    if (event.button !== 0) return;
    rail.setPointerCapture(event.pointerId);
    from = place(event);
    startY = event.clientY;
    dragged = false;
    dividing = null;
    drag = event.shiftKey || told.restricting() ? choose(from) : pulled(plot, "x", from, told.look);
  });
  rail.addEventListener("pointermove", (event) => {
    if (!from || !rail.hasPointerCapture(event.pointerId)) return;
    const now = place(event);
    const [across, down] = [now.x - from.x, event.clientY - startY];
    if (!dragged && Math.abs(down) > 5 && Math.abs(down) > Math.abs(across)) dividing ??= told.divide();
    if (dividing) {
      dividing.move(down);
      return;
    }
    dragged ||= Math.abs(across) > 5;
    if (dragged) drag?.(now, false);
  });
  rail.addEventListener("pointerup", (event) => {
    if (!from) return;
    if (dividing) dividing.end();
    else if (dragged) drag?.(place(event), true);
    else readAt(from.x);
    from = dividing = null;
  });
  rail.addEventListener("pointercancel", () => {
    dividing?.end();
    from = dividing = null;
  });
  rail.addEventListener("dblclick", () => told.usualDivision());
  rail.addEventListener(
    "wheel",
    (event) => {
      event.preventDefault();
      const about = fromPixelX(plot.view, plot.size, place(event).x);
      told.look(zoomedAxis(plot.view, "x", wheelFactor(event), about), "x");
    },
    { passive: false },
  );
}
