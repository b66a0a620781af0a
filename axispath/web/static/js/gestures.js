// @ts-check
/** Hand and keys on the plot: read, pan, zoom. Turns events into views and readings. */

import { fromPixelX, fromPixelY, isPossible, niceStep, panned, rounded, zoomed } from "./view.js";

const WHEEL = 1.0016;
const KEY_ZOOM = 0.8;

/**
 * @param {import("./plot.js").Plot} plot
 * @param {{look: (view: import("./view.js").View) => void, read: (x: number) => void,
 *   frame: () => void, previous: () => void, pick: (px: number, py: number) => boolean,
 *   step: (by: number) => void, restrict: (low: number, high: number, done: boolean) => void}} told
 */
export function listen(plot, told) {
  const { canvas, rail } = plot;
  /** @type {Map<number, {x: number, y: number}>} */
  const pointers = new Map();
  let moved = false;

  const place = (/** @type {PointerEvent | WheelEvent} */ event) => {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const look = (/** @type {import("./view.js").View} */ view) => isPossible(view) && told.look(view);
  const readAt = (/** @type {number} */ px) => told.read(readingAt(plot, px));

  canvas.addEventListener("pointerdown", (event) => {
    if (event.button !== 0) return;
    canvas.setPointerCapture(event.pointerId);
    pointers.set(event.pointerId, place(event));
    moved = false;
  });
  canvas.addEventListener("pointermove", (event) => {
    const now = place(event);
    const before = pointers.get(event.pointerId);
    if (!before) {
      if (event.pointerType === "mouse") readAt(now.x);
      return;
    }
    if (pointers.size === 2) {
      pinch(plot, pointers, event.pointerId, now, look);
    } else if (moved || Math.hypot(now.x - before.x, now.y - before.y) > 3) {
      moved = true;
      canvas.classList.add("is-panning");
      look(panned(plot.view, plot.size, now.x - before.x, now.y - before.y));
    } else {
      return;
    }
    pointers.set(event.pointerId, now);
  });
  const release = (/** @type {PointerEvent} */ event) => {
    if (pointers.delete(event.pointerId) && !moved && event.type === "pointerup") {
      const { x, y } = place(event);
      if (!told.pick(x, y)) readAt(x);
    }
    canvas.classList.remove("is-panning");
  };
  canvas.addEventListener("pointerup", release);
  canvas.addEventListener("pointercancel", release);

  canvas.addEventListener(
    "wheel",
    (event) => {
      event.preventDefault();
      const at = place(event);
      const amount = event.deltaMode === 1 ? event.deltaY * 16 : event.deltaY;
      const factor = WHEEL ** Math.max(-400, Math.min(400, amount));
      const x = fromPixelX(plot.view, plot.size, at.x);
      look(zoomed(plot.view, factor, x, fromPixelY(plot.view, plot.size, at.y)));
    },
    { passive: false },
  );

  listenToRail(plot, told, place, readAt);

  canvas.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey) return;
    const done = key(event, plot, { ...told, look });
    if (done) event.preventDefault();
  });
}

/**
 * A click on the rail reads there; a drag along it chooses the part for the landmarks.
 * @param {import("./plot.js").Plot} plot
 * @param {{restrict: (low: number, high: number, done: boolean) => void}} told
 * @param {(event: PointerEvent) => {x: number, y: number}} place
 * @param {(px: number) => void} readAt
 */
function listenToRail(plot, told, place, readAt) {
  const { rail } = plot;
  /** @type {number | null} */
  let from = null;
  let dragged = false;
  const choose = (/** @type {number} */ to, /** @type {boolean} */ done) => {
    const ends = [readingAt(plot, /** @type {number} */ (from)), readingAt(plot, to)].sort((a, b) => a - b);
    if (ends[0] < ends[1]) told.restrict(ends[0], ends[1], done);
  };
  rail.addEventListener("pointerdown", (event) => {
    rail.setPointerCapture(event.pointerId);
    from = place(event).x;
    dragged = false;
  });
  rail.addEventListener("pointermove", (event) => {
    if (from === null || !rail.hasPointerCapture(event.pointerId)) return;
    const to = place(event).x;
    dragged ||= Math.abs(to - from) > 5;
    if (dragged) choose(to, false);
  });
  rail.addEventListener("pointerup", (event) => {
    if (from === null) return;
    if (dragged) choose(place(event).x, true);
    else readAt(place(event).x);
    from = null;
  });
  rail.addEventListener("pointercancel", () => {
    from = null;
  });
}

/** The x of a pixel, rounded to what a pixel can tell. @param {import("./plot.js").Plot} plot @param {number} px */
export function readingAt(plot, px) {
  const step = niceStep((plot.view.right - plot.view.left) / plot.size.width);
  return rounded(fromPixelX(plot.view, plot.size, px), step);
}

/**
 * @param {KeyboardEvent} event
 * @param {import("./plot.js").Plot} plot
 * @param {{look: (view: import("./view.js").View) => void, read: (x: number) => void,
 *   frame: () => void, previous: () => void, pick: (px: number, py: number) => boolean,
 *   step: (by: number) => void, restrict: (low: number, high: number, done: boolean) => void}} told
 */
function key(event, plot, told) {
  const { view, size } = plot;
  const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
  const arrow = arrows[/** @type {keyof typeof arrows} */ (event.key)];
  if (arrow && (event.altKey || arrow[1])) {
    told.look(panned(view, size, (-arrow[0] * size.width) / 10, (arrow[1] * size.height) / 10));
  } else if (arrow) {
    const step = niceStep((view.right - view.left) / 200) * (event.shiftKey ? 10 : 1);
    const from = plot.reading ?? (view.left + view.right) / 2;
    const next = rounded(from + arrow[0] * step, step);
    told.read(Math.min(Math.max(next, view.left), view.right));
  } else if (event.key === "+" || event.key === "=" || event.key === "-" || event.key === "−") {
    const factor = event.key === "+" || event.key === "=" ? KEY_ZOOM : 1 / KEY_ZOOM;
    const x = plot.reading ?? (view.left + view.right) / 2;
    told.look(zoomed(view, factor, x, (view.bottom + view.top) / 2));
  } else if (event.key === "." || event.key === ",") {
    told.step(event.key === "." ? 1 : -1);
  } else if (event.key === "0") {
    told.frame();
  } else if (event.key === "Backspace") {
    told.previous();
  } else {
    return false;
  }
  return true;
}

/**
 * @param {import("./plot.js").Plot} plot
 * @param {Map<number, {x: number, y: number}>} pointers
 * @param {number} id
 * @param {{x: number, y: number}} now
 * @param {(view: import("./view.js").View) => void} look
 */
function pinch(plot, pointers, id, now, look) {
  const before = pointers.get(id);
  const other = [...pointers].find(([pointer]) => pointer !== id)?.[1];
  if (!before || !other) return;
  const was = Math.hypot(before.x - other.x, before.y - other.y);
  const is = Math.hypot(now.x - other.x, now.y - other.y);
  if (was < 10 || is < 10) return;
  const x = fromPixelX(plot.view, plot.size, (now.x + other.x) / 2);
  const y = fromPixelY(plot.view, plot.size, (now.y + other.y) / 2);
  look(zoomed(plot.view, was / is, x, y));
}
