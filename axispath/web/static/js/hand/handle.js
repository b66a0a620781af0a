// @ts-check
/** A handle that is dragged: what begins once it has moved, goes on and ends. */

const SLACK = 3; // pixels that a press may move without being a drag

/**
 * @param {HTMLElement} handle @param {PointerEvent} event the press
 * @param {() => {move: (across: number, down: number) => void, end: () => void}} begin
 */
export function dragged(handle, event, begin) {
  if (event.button !== 0) return;
  event.preventDefault();
  handle.focus();
  const { clientX, clientY } = event;
  /** @type {ReturnType<typeof begin> | null} */
  let going = null;
  handle.setPointerCapture(event.pointerId);
  const move = (/** @type {PointerEvent} */ at) => {
    const across = at.clientX - clientX;
    const down = at.clientY - clientY;
    if (!going && Math.max(Math.abs(across), Math.abs(down)) > SLACK) going = begin();
    going?.move(across, down);
  };
  const drop = () => {
    handle.removeEventListener("pointermove", move);
    going?.end();
  };
  handle.addEventListener("pointermove", move);
  handle.addEventListener("lostpointercapture", drop, { once: true });
}
