// @ts-check
/**
 * What the page has under way: requests, timers and drawings. All of them begin here, so that the page
 * can say when it is at rest: `data-underway` at its root is how many there are, and gone while there are none.
 */

let count = 0;
/** The timers that run. @type {Map<number, () => void>} */
const timers = new Map();

/** Something begins; what this gives is called when it is over. @returns {() => void} */
export function begun() {
  add(1);
  return () => add(-1);
}

/** @param {number} more */
function add(more) {
  count += more;
  if (count) document.documentElement.dataset.underway = String(count);
  else delete document.documentElement.dataset.underway;
}

/** Work in so many milliseconds. What it begins is under way before it is over. @param {() => unknown} work @param {number} [wait] */
export function soon(work, wait = 0) {
  const over = begun();
  const timer = window.setTimeout(() => {
    timers.delete(timer);
    try {
      work();
    } finally {
      over();
    }
  }, wait);
  timers.set(timer, over);
  return timer;
}

/** Work that waits is not done. @param {number | undefined} timer */
export function cancel(timer) {
  if (timer === undefined) return;
  window.clearTimeout(timer);
  timers.get(timer)?.();
  timers.delete(timer);
}

/** Work before the next frame is shown. @param {(now: number) => unknown} work */
export function nextFrame(work) {
  const over = begun();
  return window.requestAnimationFrame((now) => {
    try {
      work(now);
    } finally {
      over();
    }
  });
}

/** Until so many milliseconds have gone. @param {number} ms @returns {Promise<void>} */
export const pause = (ms) => new Promise((done) => soon(done, ms));

/** Whatever is promised, and what follows from it. @template T @param {Promise<T>} promise @returns {Promise<T>} */
export function during(promise) {
  const over = begun();
  // Whoever waits for it goes on first.
  const end = () => window.setTimeout(over);
  promise.then(end, end);
  return promise;
}

/** Housekeeping, which nobody waits for. @param {() => unknown} work @param {number} wait */
export const unwatched = (work, wait) => window.setTimeout(work, wait);
