// @ts-check
/** The areas of the page: a key to each, links that skip to them, and the focus where its part has gone. */

import { byId, isTyping } from "./focus.js";

/** @param {string} selector @returns {HTMLElement[]} */
const all = (selector) => [.../** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll(selector))];

/**
 * An area: the letter of its key (with Alt), what it is, and its parts, from one to the next of which the
 * key goes where the focus is in it already; `from` where it is entered.
 * @typedef {{letter: string, within: string, parts: () => HTMLElement[], from: (parts: HTMLElement[]) => number, go?: (part: HTMLElement) => void}} Area
 */

/** @type {Record<string, Area>} */
export const AREAS = {
  entry: { letter: "e", within: ".entry-box", parts: () => [byId("entry")], from: () => 0 },
  plot: { letter: "p", within: ".plot-box", parts: () => [byId("plot")], from: () => 0 },
  lanes: { letter: "l", within: "#room", parts: () => all("#lanes > .lane"), from: () => 0 },
  desk: {
    letter: "d",
    within: "#desk",
    parts: () => all(".desk-tabs [role=tab]"),
    from: (parts) => Math.max(parts.findIndex((tab) => tab.getAttribute("aria-selected") === "true"), 0),
    go: (tab) => tab.getAttribute("aria-selected") === "true" || tab.click(),
  },
};

/** Of a lane its slider, else its line. @param {HTMLElement} part */
const field = (part) => /** @type {HTMLElement} */ (part.querySelector(".thumb[tabindex]") ?? part.querySelector(".formula") ?? part);

export class Areas {
  /** @param {() => void} shown called before the desk is gone to, which may be put away */
  constructor(shown) {
    this.shown = shown;
    /** Where the focus was last, to go on from there where its part is gone. @type {null | {part: Element, area: string, index: number}} */
    this.last = null;
    /** Whether the last thing that a hand did was a key. */
    this.byKeys = false;
    document.addEventListener("focusin", ({ target }) => this.note(/** @type {Element} */ (target)));
    document.addEventListener("pointerdown", () => (this.byKeys = false), true);
    document.addEventListener("keydown", (event) => this.pressed(event), true);
  }

  /** @param {Element} part */
  note(part) {
    const area = Object.keys(AREAS).find((name) => part.closest(AREAS[name].within)) ?? "";
    this.last = { part, area, index: area ? this.index(area, part) : 0 };
  }

  /** Which part of an area something is or lies in; −1 for none. @param {string} area @param {Element | null} part */
  index(area, part) {
    return AREAS[area].parts().findIndex((one) => one.contains(part));
  }

  /** Into an area, or where one is there to its next part. @param {string} name @param {number} [by] @returns {void} */
  go(name, by = 1) {
    const area = AREAS[name];
    const inside = document.activeElement?.closest(area.within);
    if (name === "desk") this.shown();
    const parts = area.parts();
    if (!parts.length) {
      if (name === "lanes") this.go("entry");
      return;
    }
    const at = inside ? this.index(name, document.activeElement) : -1;
    const next = at < 0 ? area.from(parts) : (at + by + parts.length) % parts.length;
    area.go?.(parts[next]);
    const part = name === "lanes" ? field(parts[next]) : parts[next];
    part.focus();
    part.scrollIntoView({ block: "nearest" });
  }

  /** @param {KeyboardEvent} event */
  pressed(event) {
    this.byKeys = true;
    this.keep();
    if (event.ctrlKey || event.metaKey || document.querySelector("dialog[open]")) return;
    const by = event.shiftKey ? -1 : 1;
    const names = Object.keys(AREAS);
    // Where Alt makes a sign of a letter, that sign may be what is wanted in a field.
    const letter = isTyping() ? event.key.toLowerCase() : event.code.replace("Key", "").toLowerCase();
    const meant = event.altKey ? names.find((name) => AREAS[name].letter === letter) : undefined;
    if (meant) {
      this.go(meant, by);
    } else if (event.key === "F6") {
      const here = names.findIndex((name) => document.activeElement?.closest(AREAS[name].within));
      this.go(names[here < 0 ? 0 : (here + by + names.length) % names.length]);
    } else {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  /** What had the focus is gone, and left it nowhere: what stands in its place has it. */
  keep() {
    const { last } = this;
    if (!this.byKeys || !last || last.part.isConnected || (document.activeElement && document.activeElement !== document.body)) return;
    const parts = last.area ? AREAS[last.area].parts() : [];
    const part = parts[Math.min(Math.max(last.index, 0), parts.length - 1)] ?? byId("entry");
    (last.area === "lanes" ? field(part) : part)?.focus({ preventScroll: true });
  }
}
