// @ts-check
/** The height divided between the plot above and the lanes below: by the rail, by its handle, by keys. */

import { read, write } from "../sheet/session.js";
import { dragged } from "./handle.js";

const MEMORY = "axispath division"; // of this browser, for all sheets
const STEP = 0.03;
const LEAST = 0.2;
const MOST = 0.9;

export class Divider {
  /** @param {HTMLElement} handle @param {HTMLElement} instrument */
  constructor(handle, instrument) {
    this.handle = handle;
    this.instrument = instrument;
    /** The share of the height that the plot has; null for the usual division. @type {number | null} */
    this.share = read(MEMORY);
    this.show();
    handle.addEventListener("pointerdown", (event) => this.grab(event));
    handle.addEventListener("keydown", (event) => this.pressed(event));
    handle.addEventListener("dblclick", () => this.set(null));
    new ResizeObserver(() => this.tell()).observe(instrument);
  }

  /** The parts of the page that are divided, in pixels: above the rail, and all but the rail. */
  heights() {
    const plot = /** @type {HTMLElement} */ (this.instrument.querySelector(".plot-box")).getBoundingClientRect();
    const flowing = getComputedStyle(this.instrument).display === "flex";
    const whole = flowing ? window.innerHeight * 0.78 : this.instrument.getBoundingClientRect().height - 30;
    return { plot: plot.height, whole };
  }

  /** @param {number | null} share @param {boolean} [kept] */
  set(share, kept = true) {
    this.share = share === null ? null : Math.min(Math.max(share, LEAST), MOST);
    this.show();
    if (kept) write(MEMORY, this.share);
  }

  /** The heights stay as they are, whatever comes below; or are divided as before again. @param {boolean} on */
  hold(on) {
    const { plot, whole } = this.heights();
    if (!on) this.set(read(MEMORY), false);
    else if (this.share === null) this.set(plot / whole, false);
  }

  show() {
    this.instrument.classList.toggle("is-divided", this.share !== null);
    if (this.share === null) this.instrument.style.removeProperty("--plot-share");
    else this.instrument.style.setProperty("--plot-share", String(this.share));
    this.tell();
  }

  tell() {
    const { plot, whole } = this.heights();
    this.handle.setAttribute("aria-valuenow", String(Math.round((100 * plot) / Math.max(whole, 1))));
  }

  /** What a movement up or down does, from where it begins. @returns {{move: (down: number) => void, end: () => void}} */
  begin() {
    const { plot, whole } = this.heights();
    document.body.classList.add("is-dividing");
    return {
      move: (down) => this.set((plot + down) / whole, false),
      end: () => {
        document.body.classList.remove("is-dividing");
        write(MEMORY, this.share);
      },
    };
  }

  /** @param {PointerEvent} event */
  grab(event) {
    dragged(this.handle, event, () => {
      const { move, end } = this.begin();
      return { move: (_, down) => move(down), end };
    });
  }

  /** @param {KeyboardEvent} event */
  pressed(event) {
    const { plot, whole } = this.heights();
    const by = { ArrowDown: STEP, ArrowUp: -STEP, PageDown: 4 * STEP, PageUp: -4 * STEP }[event.key];
    if (by) this.set(plot / whole + by);
    else if (event.key === "Home" || event.key === "Escape") this.set(null);
    else return;
    event.preventDefault();
  }
}
