// @ts-check
/** Hand and keys on the plot: read, pan, zoom, box, one axis. Turns events into views and readings. */

import { heightAt, listenToRail, onNumbers, pulled, readingAt, wheelFactor } from "./axes.js";
import { pointTo } from "../drawing/marks.js";
import { fromPixelX, fromPixelY, isPossible, niceStep, panned, rounded, zoomed, zoomedAxis } from "../sheet/view.js";

const KEY_ZOOM = 0.8;
const LEAST_BOX = 8;

/** @typedef {import("../drawing/plot.js").Plot} Plot */
/** @typedef {import("../sheet/view.js").View} View */
/**
 * `read` is told whether the reading was put there or only looked at in passing; `lead` says
 * which axis a zoom was about.
 * @typedef {((now: {x: number, y: number}, done: boolean) => void) & {click?: () => void}} Drag
 * @typedef {{look: (view: View, lead?: "x" | "y") => void, read: (x: number, put: boolean, y?: number) => void,
 *   left: () => void, pick: (px: number, py: number) => boolean,
 *   restrict: (low: number, high: number, done: boolean) => void,
 *   hold: (at: {x: number, y: number}) => null | Drag,
 *   brokenOff: () => void, putting: () => boolean, put: (at: {x: number, y: number}) => void, gather: (box: View) => void,
 *   restricting: () => boolean, boxing: () => boolean, boxed: () => void,
 *   divide: () => {move: (down: number) => void, end: () => void}, usualDivision: () => void,
 *   keys: Record<string, () => void>, step: (by: number) => void}} Told
 */

/** @param {Plot} plot @param {Told} told */
export function listen(plot, told) {
  const { canvas } = plot;
  /**
   * Where fingers and the mouse are in the window: the plot may move under a hand that rests, as when a
   * lane comes in, and that is no movement of the hand.
   * @type {Map<number, {x: number, y: number}>}
   */
  const pointers = new Map();
  let moved = false;
  /** Where on the plot the hand came down: there a click is. */
  let pressed = { x: 0, y: 0 };
  /** What a drag does, decided where it begins. @type {null | Drag} */
  let drag = null;

  const place = (/** @type {PointerEvent | WheelEvent} */ event) => {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  /** A finger cannot hover: its first touch of a number opens the group. @param {{x: number, y: number}} at @param {PointerEvent} event */
  const opensHere = (at, event) => {
    if (event.pointerType === "mouse" || !pointTo(plot, at)) return false;
    plot.ask();
    return true;
  };
  const look = (/** @type {View} */ view, /** @type {"x" | "y"} */ lead = "x") => isPossible(view) && told.look(view, lead);
  const readAt = (/** @type {number} */ px, /** @type {boolean} */ put, /** @type {number} */ py = NaN) =>
    told.read(readingAt(plot, px), put, heightAt(plot, py));

  canvas.addEventListener("pointerdown", (event) => {
    if (event.button !== 0) return;
    canvas.setPointerCapture(event.pointerId);
    const at = place(event);
    pointers.set(event.pointerId, inWindow(event));
    if (pointers.size === 1) pressed = at;
    plot.underHand = true;
    // The first finger of a pinch must not read where it is lifted, nor the second.
    moved = pointers.size > 1;
    drag = null;
    if (moved) return;
    drag = told.hold(at);
    if (drag) return;
    if (told.putting()) drag = boxFrom(plot, at, told.gather, () => {});
    else if (event.shiftKey || told.boxing()) drag = boxFrom(plot, at, look, told.boxed);
    else if (onNumbers(plot, at)) drag = pulled(plot, "y", at, look);
  });
  canvas.addEventListener("pointermove", (event) => {
    const now = place(event);
    const before = pointers.get(event.pointerId);
    canvas.classList.toggle("on-numbers", onNumbers(plot, now));
    if (!before) canvas.classList.toggle("on-point", told.hold(now) !== null);
    if (!before && pointTo(plot, now)) plot.ask();
    if (!before) {
      if (event.pointerType === "mouse") readAt(now.x, false);
      return;
    }
    const hand = inWindow(event);
    if (pointers.size === 2) {
      drag = null;
      pinch(plot, pointers, event.pointerId, hand, look);
    } else if (moved || Math.hypot(hand.x - before.x, hand.y - before.y) > 3) {
      moved = true;
      if (drag) {
        drag(now, false);
      } else {
        canvas.classList.add("is-panning");
        look(panned(plot.view, plot.size, hand.x - before.x, hand.y - before.y));
      }
    } else {
      return;
    }
    pointers.set(event.pointerId, hand);
  });
  const release = (/** @type {PointerEvent} */ event) => {
    const known = pointers.delete(event.pointerId);
    plot.underHand = pointers.size > 0;
    const { x, y } = moved ? place(event) : pressed;
    const up = event.type === "pointerup";
    if (known && drag && moved) drag({ x, y }, up);
    if (known && drag && !up) told.brokenOff();
    else if (known && !moved && up && told.putting()) told.put({ x, y });
    else if (known && !moved && up && drag?.click) drag.click();
    else if (known && !moved && up && !opensHere({ x, y }, event) && !told.pick(x, y)) readAt(x, true, y);
    drag = null;
    // A finger that stays after a pinch goes on to pan.
    moved = pointers.size > 0;
    canvas.classList.remove("is-panning");
  };
  canvas.addEventListener("pointerup", release);
  canvas.addEventListener("pointercancel", release);
  canvas.addEventListener("pointerleave", (event) => {
    if (pointTo(plot, null)) plot.ask();
    if (event.pointerType === "mouse") told.left();
  });

  canvas.addEventListener(
    "wheel",
    (event) => {
      event.preventDefault();
      const at = place(event);
      const factor = wheelFactor(event);
      const y = fromPixelY(plot.view, plot.size, at.y);
      if (onNumbers(plot, at)) look(zoomedAxis(plot.view, "y", factor, y), "y");
      else look(zoomed(plot.view, factor, fromPixelX(plot.view, plot.size, at.x), y));
    },
    { passive: false },
  );

  listenToRail(plot, { ...told, look }, place, (px) => readAt(px, true));

  canvas.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey) return;
    if (key(event, plot, { ...told, look })) event.preventDefault();
  });
}

/** A box to zoom into, or to gather what lies in it. @param {Plot} plot @param {{x: number, y: number}} from @param {(view: View) => void} look @param {() => void} boxed */
function boxFrom(plot, from, look, boxed) {
  return (/** @type {{x: number, y: number}} */ now, /** @type {boolean} */ done) => {
    const { width, height } = plot.size;
    const toX = Math.min(Math.max(now.x, 0), width);
    const toY = Math.min(Math.max(now.y, 0), height);
    plot.box = done ? null : { ...from, toX, toY };
    plot.ask();
    if (!done) return;
    boxed();
    if (Math.abs(toX - from.x) < LEAST_BOX || Math.abs(toY - from.y) < LEAST_BOX) return;
    const [left, right] = [from.x, toX].sort((a, b) => a - b).map((px) => fromPixelX(plot.view, plot.size, px));
    const [top, bottom] = [from.y, toY].sort((a, b) => a - b).map((py) => fromPixelY(plot.view, plot.size, py));
    look({ left, right, bottom, top, chosen: true });
  };
}

/** @param {KeyboardEvent} event @param {Plot} plot @param {Told} told */
function key(event, plot, told) {
  const { view, size } = plot;
  const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
  const arrow = arrows[/** @type {keyof typeof arrows} */ (event.key)];
  const across = plot.reading ?? (view.left + view.right) / 2;
  const upwards = (view.bottom + view.top) / 2;
  if (arrow && (event.altKey || arrow[1])) {
    told.look(panned(view, size, (-arrow[0] * size.width) / 10, (arrow[1] * size.height) / 10));
  } else if (arrow) {
    const step = niceStep((view.right - view.left) / 200) * (event.shiftKey ? 10 : 1);
    const next = rounded(across + arrow[0] * step, step);
    told.read(Math.min(Math.max(next, view.left), view.right), true);
  } else if (event.key === "+" || event.key === "=" || event.key === "-" || event.key === "−") {
    const factor = event.key === "+" || event.key === "=" ? KEY_ZOOM : 1 / KEY_ZOOM;
    told.look(zoomed(view, factor, across, upwards));
  } else if (event.key === "x" || event.key === "X") {
    told.look(zoomedAxis(view, "x", event.key === "x" ? KEY_ZOOM : 1 / KEY_ZOOM, across), "x");
  } else if (event.key === "y" || event.key === "Y") {
    told.look(zoomedAxis(view, "y", event.key === "y" ? KEY_ZOOM : 1 / KEY_ZOOM, upwards), "y");
  } else if (event.key === "." || event.key === ",") {
    told.step(event.key === "." ? 1 : -1);
  } else {
    const act = told.keys[event.shiftKey && event.key === "Backspace" ? "Shift Backspace" : event.key];
    if (!act) return false;
    act();
  }
  return true;
}

/** @param {PointerEvent} event */
const inWindow = (event) => ({ x: event.clientX, y: event.clientY });

/**
 * @param {Plot} plot
 * @param {Map<number, {x: number, y: number}>} pointers
 * @param {number} id
 * @param {{x: number, y: number}} now
 * @param {(view: View) => void} look
 */
function pinch(plot, pointers, id, now, look) {
  const before = pointers.get(id);
  const other = [...pointers].find(([pointer]) => pointer !== id)?.[1];
  if (!before || !other) return;
  const was = Math.hypot(before.x - other.x, before.y - other.y);
  const is = Math.hypot(now.x - other.x, now.y - other.y);
  if (was < 10 || is < 10) return;
  const box = plot.canvas.getBoundingClientRect();
  const x = fromPixelX(plot.view, plot.size, (now.x + other.x) / 2 - box.left);
  const y = fromPixelY(plot.view, plot.size, (now.y + other.y) / 2 - box.top);
  look(zoomed(plot.view, was / is, x, y));
}
