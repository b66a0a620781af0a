/** What scripts need of a page, where there is none: a root, a clock and frames that a test moves on. */

export class Root {
  dataset = {};
}

/** The timers and frames of a page, by a clock of the test's own. */
export class Time {
  now = 0;
  #number = 0;
  /** @type {Map<number, {at: number, work: (now: number) => void}>} */
  #waiting = new Map();

  install() {
    const later = (work, wait = 0) => {
      this.#number += 1;
      this.#waiting.set(this.#number, { at: this.now + wait, work });
      return this.#number;
    };
    globalThis.window = {
      setTimeout: later,
      clearTimeout: (timer) => this.#waiting.delete(timer),
      requestAnimationFrame: (work) => later(work, 16),
      addEventListener() {},
      dispatchEvent() {},
    };
    // How things look is data of the server's, which pages come with.
    const look = { textContent: process.env.AXISPATH_LOOK };
    globalThis.document = { documentElement: new Root(), querySelector: () => null, getElementById: (id) => (id === "look" ? look : null), adoptedStyleSheets: [] };
    globalThis.CSSStyleSheet = class {};
    globalThis.performance = { now: () => this.now };
    return this;
  }

  /** So many milliseconds go by; whatever is due is done in its order. @param {number} ms */
  async pass(ms) {
    const until = this.now + ms;
    for (;;) {
      await settled();
      const [next] = [...this.#waiting].filter(([, { at }]) => at <= until).sort(([a, one], [b, other]) => one.at - other.at || a - b);
      if (!next) break;
      this.#waiting.delete(next[0]);
      this.now = Math.max(this.now, next[1].at);
      next[1].work(this.now);
    }
    this.now = until;
    await settled();
  }
}

/** Whatever waits for promises goes on. */
export async function settled() {
  for (let k = 0; k < 20; k += 1) await null;
}

/** A promise that a test keeps or breaks. */
export function promised() {
  let keep, give;
  const promise = new Promise((done, failed) => {
    keep = done;
    give = failed;
  });
  return { promise, keep, fail: give };
}
