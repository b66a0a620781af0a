// @ts-check
/** The width divided between the work and the desk: by the desk's edge, by keys; and the desk put away. */

import { isTyping } from "../sheet/focus.js";
import { read, write } from "../sheet/session.js";
import { dragged } from "./handle.js";

const STEP = 32; // pixels
const LEAST = 260;
const MOST = 0.6; // of the window
const USUAL = 352;
const WIDE = 1600; // from here on windows have a memory of their own

/** @typedef {{away: boolean, widths: {[page: string]: number}}} Kept */

export class DeskEdge {
  /** @param {HTMLElement} page the grid @param {HTMLElement} edge @param {HTMLElement} button */
  constructor(page, edge, button) {
    this.page = page;
    this.edge = edge;
    this.button = button;
    this.on = "";
    /** @type {Kept} */
    this.kept = { away: false, widths: {}, ...read(this.memory()) };
    edge.addEventListener("pointerdown", (event) => this.grab(event));
    edge.addEventListener("keydown", (event) => this.pressed(event));
    edge.addEventListener("dblclick", () => this.set(null));
    button.addEventListener("click", () => this.put(!this.kept.away));
    document.addEventListener("keydown", (event) => {
      if (event.key !== "]" || isTyping() || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      this.put(!this.kept.away);
    });
    this.show();
  }

  memory() {
    return `axispath desk ${window.innerWidth >= WIDE ? "wide" : "usual"}`; // of this browser, for all sheets
  }

  /** Each page of the desk has its width. @param {string} page */
  turn(page) {
    this.on = page;
    this.show();
  }

  get width() {
    return Math.min(Math.max(this.kept.widths[this.on] ?? USUAL, LEAST), window.innerWidth * MOST);
  }

  /** @param {boolean} away */
  put(away) {
    this.kept.away = away;
    const desk = /** @type {HTMLElement} */ (this.page.querySelector(".desk"));
    if (away && desk.contains(document.activeElement)) this.button.focus();
    this.show();
    write(this.memory(), this.kept);
  }

  /** @param {number | null} width null for the usual one @param {boolean} [kept] */
  set(width, kept = true) {
    if (width === null) delete this.kept.widths[this.on];
    else this.kept.widths[this.on] = Math.round(Math.min(Math.max(width, LEAST), window.innerWidth * MOST));
    this.show();
    if (kept) write(this.memory(), this.kept);
  }

  show() {
    this.page.classList.toggle("has-no-desk", this.kept.away);
    if (this.kept.widths[this.on] === undefined) this.page.style.removeProperty("--desk");
    else this.page.style.setProperty("--desk", `${this.width}px`);
    this.button.setAttribute("aria-expanded", String(!this.kept.away));
    this.edge.setAttribute("aria-valuenow", String(Math.round((100 * this.width) / window.innerWidth)));
  }

  /** @param {PointerEvent} event */
  grab(event) {
    dragged(this.edge, event, () => {
      const begun = this.width;
      return { move: (across) => this.set(begun - across, false), end: () => write(this.memory(), this.kept) };
    });
  }

  /** @param {KeyboardEvent} event */
  pressed(event) {
    const by = { ArrowLeft: STEP, ArrowRight: -STEP, PageUp: 4 * STEP, PageDown: -4 * STEP }[event.key];
    if (by) this.set(this.width + by);
    else if (event.key === "Home" || event.key === "Escape") this.set(null);
    else return;
    event.preventDefault();
  }
}
