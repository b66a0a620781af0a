// @ts-check
/** Lanes under the hand: dragged to another place by their grip, opened by a long press. */

import { cancel, soon } from "../sheet/underway.js";

const START = 5; // pixels until a press on the grip is a drag
const LONG = 450; // ms: before the browser takes a long press for one of its own
const STILL = 8; // pixels that a long press may wander

/**
 * @param {HTMLElement} list
 * @param {{move: (row: HTMLElement, to: number) => void, menu: (row: HTMLElement) => void}} told
 */
export function arrange(list, told) {
  list.addEventListener("pointerdown", (event) => {
    const target = /** @type {HTMLElement} */ (event.target);
    const row = /** @type {HTMLElement | null} */ (target.closest(".lane"));
    if (!row || event.button !== 0) return;
    if (target.closest(".grip")) drag(list, row, event, told.move);
    else if (event.pointerType === "touch" && !target.closest("input, select, .thumb, .handle, .lane-more")) press(row, event, told.menu);
  });
}

/** @param {HTMLElement} list @param {HTMLElement} row @param {PointerEvent} start @param {(row: HTMLElement, to: number) => void} done */
function drag(list, row, start, done) {
  let dragging = false;
  let to = -1;
  const others = () => /** @type {HTMLElement[]} */ ([...list.children]).filter((other) => other !== row);
  const move = (/** @type {PointerEvent} */ event) => {
    dragging ||= Math.abs(event.clientY - start.clientY) > START;
    if (!dragging) return;
    row.classList.add("is-lifted");
    row.style.transform = `translateY(${event.clientY - start.clientY}px)`;
    to = others().filter((other) => middle(other) < event.clientY).length;
    others().forEach((other, k) => {
      other.classList.toggle("drop-above", k === to);
      other.classList.toggle("drop-below", k === to - 1 && to === others().length);
    });
  };
  const drop = (/** @type {PointerEvent} */ event) => {
    window.removeEventListener("pointermove", move);
    window.removeEventListener("pointerup", drop);
    window.removeEventListener("pointercancel", drop);
    row.classList.remove("is-lifted");
    row.style.transform = "";
    for (const other of others()) other.classList.remove("drop-above", "drop-below");
    if (!dragging) return;
    // The click that follows a drag must not fold the lane; where none follows, nothing waits for it.
    const swallow = (/** @type {Event} */ click) => click.stopPropagation();
    row.addEventListener("click", swallow, { capture: true, once: true });
    soon(() => row.removeEventListener("click", swallow, { capture: true }), 50);
    if (event.type === "pointerup" && to >= 0 && to !== [...list.children].indexOf(row)) done(row, to);
  };
  window.addEventListener("pointermove", move);
  window.addEventListener("pointerup", drop);
  window.addEventListener("pointercancel", drop);
}

/** @param {HTMLElement} row */
function middle(row) {
  const box = row.getBoundingClientRect();
  return (box.top + box.bottom) / 2;
}

/** @param {HTMLElement} row @param {PointerEvent} start @param {(row: HTMLElement) => void} menu */
function press(row, start, menu) {
  const stop = () => {
    cancel(timer);
    window.removeEventListener("pointermove", wander);
    window.removeEventListener("pointerup", stop);
    window.removeEventListener("pointercancel", stop);
  };
  const wander = (/** @type {PointerEvent} */ event) => {
    if (Math.hypot(event.clientX - start.clientX, event.clientY - start.clientY) > STILL) stop();
  };
  const timer = soon(() => {
    stop();
    // The lifted finger must not also press what lies under it.
    const swallow = (/** @type {Event} */ click) => {
      click.stopPropagation();
      click.preventDefault();
    };
    window.addEventListener("click", swallow, { capture: true, once: true });
    window.addEventListener("pointerdown", () => window.removeEventListener("click", swallow, { capture: true }), { once: true });
    menu(row);
  }, LONG);
  window.addEventListener("pointermove", wander);
  window.addEventListener("pointerup", stop);
  window.addEventListener("pointercancel", stop);
}
