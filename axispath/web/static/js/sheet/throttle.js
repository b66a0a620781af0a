// @ts-check
/** Work that waits: until nothing has asked for it for a while, or until its turn comes again. */

import { cancel, soon } from "./underway.js";

const LONGEST = 10_000; // ms that work may take before it is asked for again

export class Timers {
  constructor() {
    /** @type {Map<string, number>} */
    this.timers = new Map();
    /** What was asked for while it was not its turn. @type {Map<string, () => unknown>} */
    this.missed = new Map();
  }

  /** Once nothing has asked for it for so many milliseconds. @param {string} name @param {number} wait @param {() => void} work */
  later(name, wait, work) {
    this.stop(name);
    this.timers.set(name, soon(work, wait));
  }

  /** @param {string} name */
  stop(name) {
    cancel(this.timers.get(name));
  }

  /** At once, then at most every so many milliseconds. @param {string} name @param {number} wait @param {() => unknown} work */
  throttled(name, wait, work) {
    if (this.timers.has(name)) {
      this.missed.set(name, work);
      return;
    }
    const again = () => {
      this.timers.delete(name);
      const missed = this.missed.get(name);
      this.missed.delete(name);
      if (missed) this.throttled(name, wait, missed);
    };
    // What takes long is done less often, so that it never holds up the picture.
    const before = performance.now();
    this.timers.set(name, soon(again, LONGEST));
    Promise.resolve(work()).then(() => {
      this.stop(name);
      this.timers.set(name, soon(again, Math.max(wait, 2 * (performance.now() - before))));
    });
  }
}
