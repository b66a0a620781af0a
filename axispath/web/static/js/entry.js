// @ts-check
/** The entry: shows how a line is read while it is typed, completes names, offers signs. */

import { Trouble, send } from "./api.js";
import { render } from "./formulas.js";
import { Queue } from "./queue.js";

const MOST = 7;
const SHORTEST = 2; // letters before names are offered
const WORD = /[^\W\d_][\w]*$/u;

/** Signs of the palette: what the button shows, what it inserts, where the cursor goes. */
const SIGNS = [
  { face: "√", text: "√()", back: 1, title: "square root" },
  { face: "xⁿ", text: "^()", back: 1, title: "power" },
  { face: "x²", text: "^2", back: 0, title: "square" },
  { face: "a⁄b", text: "()/()", back: 4, title: "fraction" },
  { face: "|x|", text: "||", back: 1, title: "absolute value" },
  { face: "π", text: "π", back: 0, title: "pi" },
  { face: "θ", text: "θ", back: 0, title: "theta" },
  { face: "≤", text: " ≤ ", back: 0, title: "less than or equal" },
  { face: "≥", text: " ≥ ", back: 0, title: "greater than or equal" },
  { face: "∞", text: "∞", back: 0, title: "infinity" },
  { face: "°", text: "°", back: 0, title: "degrees" },
  { face: "f′", text: "'", back: 0, title: "prime: derivative" },
  { face: "{ if", text: " if x < 0, 0 otherwise", back: 0, title: "cases" },
  { face: "for", text: " for 0 <= x <= 5", back: 0, title: "domain" },
  { face: "Σ", text: "sum( for k = 1 to 10)", back: 17, title: "sum" },
];

/**
 * State and methods of the entry, for the component of the sheet.
 * @param {() => import("./session.js").Session} session
 * @param {{name: string, signature: string, help: string}[]} words
 */
export function entryParts(session, words) {
  const previews = new Queue();
  const input = () => /** @type {HTMLInputElement} */ (document.getElementById("entry"));

  return {
    entry: "",
    readings: /** @type {{taken: string, other: string}[]} */ ([]),
    previewing: false,
    previewHint: "",
    /** Whether what is shown was the reading of another line. */
    previewFades: false,
    completions: /** @type {any[]} */ ([]),
    chosen: -1,
    palette: false,
    signs: SIGNS,

    /** Ask how the line reads; answers that come late are dropped. */
    askPreview() {
      const text = this.entry;
      if (!text.trim()) {
        this.clearPreview();
        return;
      }
      this.previewFades = this.previewing;
      previews.run(async () => {
        try {
          const key = session().key;
          const found = await send("POST", `/api/sheets/${key}/preview`, { head: session().state.head, text });
          if (this.entry === text) this.showPreview(found);
        } catch (trouble) {
          if (!(trouble instanceof Trouble)) throw trouble;
          if (this.entry === text) this.clearPreview();
        }
      });
    },
    showPreview(/** @type {any} */ found) {
      this.previewing = true;
      this.previewFades = false;
      this.readings = found.readings;
      this.previewHint = found.hint;
      const place = document.getElementById("preview");
      if (place && found.latex) render(found.latex, place);
      else if (place) place.textContent = "";
    },
    clearPreview() {
      this.previewing = false;
      this.readings = [];
      this.previewHint = "";
      this.completions = [];
      this.chosen = -1;
    },
    take(/** @type {string} */ other) {
      this.entry = other;
      this.askPreview();
      input().focus();
    },

    // Completion

    complete() {
      const field = input();
      const before = field.value.slice(0, field.selectionStart ?? field.value.length);
      const word = WORD.exec(before)?.[0].toLowerCase() ?? "";
      this.chosen = -1;
      if (word.length < SHORTEST) {
        this.completions = [];
        return;
      }
      const own = session()
        .state.lanes.filter((/** @type {any} */ lane) => lane.name)
        .map((/** @type {any} */ lane) => ({
          name: lane.name,
          signature: lane.signature,
          help: "of this sheet",
        }));
      this.completions = [...own, ...words]
        .filter((entry) => entry.name.toLowerCase().startsWith(word) && entry.name.toLowerCase() !== word)
        .slice(0, MOST)
        .map((entry, index) => ({ ...entry, id: `completion-${index}`, index }));
    },
    get previewClass() {
      return this.previewFades ? "is-fading" : "";
    },
    get completing() {
      return this.completions.length > 0;
    },
    get chosenId() {
      return this.chosen >= 0 ? `completion-${this.chosen}` : null;
    },
    isChosen(/** @type {number} */ index) {
      return this.chosen === index;
    },
    entryKey(/** @type {KeyboardEvent} */ event) {
      if (!this.completions.length) return;
      const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
      if (step) {
        event.preventDefault();
        const count = this.completions.length;
        this.chosen = (this.chosen + step + (this.chosen < 0 && step < 0 ? 1 : 0) + count) % count;
      } else if ((event.key === "Enter" || event.key === "Tab") && this.chosen >= 0) {
        event.preventDefault();
        this.insertWord(this.completions[this.chosen]);
      } else if (event.key === "Tab" && !event.shiftKey) {
        event.preventDefault();
        this.insertWord(this.completions[0]);
      } else if (event.key === "Escape") {
        this.completions = [];
      }
    },
    insertWord(/** @type {{name: string, signature: string}} */ word) {
      const field = input();
      const caret = field.selectionStart ?? field.value.length;
      const start = caret - (WORD.exec(field.value.slice(0, caret))?.[0].length ?? 0);
      const brackets = word.signature.includes("(") && field.value[caret] !== "(" ? "()" : "";
      this.replace(start, caret, word.name + brackets, brackets ? 1 : 0);
      this.completions = [];
    },

    // Palette

    togglePalette() {
      this.palette = !this.palette;
      input().focus();
    },
    insertSign(/** @type {{text: string, back: number}} */ sign) {
      const field = input();
      this.replace(field.selectionStart ?? 0, field.selectionEnd ?? 0, sign.text, sign.back);
    },
    replace(/** @type {number} */ start, /** @type {number} */ end, /** @type {string} */ text, /** @type {number} */ back) {
      const field = input();
      field.setRangeText(text, start, end, "end");
      const caret = start + text.length - back;
      field.setSelectionRange(caret, caret);
      this.entry = field.value;
      field.focus();
      this.askPreview();
    },
  };
}

/** One component out of several objects, keeping their getters live. @param {object[]} parts @returns {any} */
export function joined(...parts) {
  const whole = {};
  for (const part of parts) Object.defineProperties(whole, Object.getOwnPropertyDescriptors(part));
  return whole;
}
